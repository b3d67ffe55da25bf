//! How each method works, in words.

use mend_core::method::MethodFamily;

use super::Words;

/// What is said of a method, wherever it is shown.
#[derive(Debug)]
pub struct MethodText {
    /// As it stands on a lane.
    pub name: &'static str,
    /// How it works, in a sentence.
    pub how: &'static str,
    /// The main danger.
    pub danger: &'static str,
    /// What goes wrong, and how to see it early.
    pub early: &'static [&'static str],
    /// What it does to the clean-up.
    pub clean_up: &'static str,
    /// What the hands do while it is hot, besides holding the tools.
    pub heat: &'static [&'static str],
    /// What to watch for then.
    pub cue: &'static str,
    /// If it does not come: better than more heat for longer.
    pub not_coming: &'static [&'static str],
}

impl Words {
    /// What is said of a method.
    pub fn method(&self, family: MethodFamily) -> &'static MethodText {
        match family {
            MethodFamily::IronOnly => &IRON_ONLY,
            MethodFamily::IronFlood => &IRON_FLOOD,
            MethodFamily::BridgeWire => &BRIDGE_WIRE,
            MethodFamily::Blob => &BLOB,
            MethodFamily::FromBelow => &FROM_BELOW,
            MethodFamily::FromAbove => &FROM_ABOVE,
            MethodFamily::TwoStage => &TWO_STAGE,
            MethodFamily::PreheaterAndAir => &PREHEATER_AND_AIR,
            MethodFamily::LowMeltAir => &LOW_MELT_AIR,
            MethodFamily::HotSwap => &HOT_SWAP,
            MethodFamily::Pump => &PUMP,
        }
    }
}

static IRON_ONLY: MethodText = MethodText {
    name: "Iron only",
    how: "One stout tip goes from joint to joint until all are liquid at once.",
    danger: "chasing joints: one sets while the next melts",
    early: &[
        "The first joint is matt again when the tip leaves the last: a stouter tip, or another way.",
        "The part tilts on one leg: stop, a pad goes next.",
    ],
    clean_up: "Little: the joints keep their metal, braid each once.",
    heat: &["Tip flat on joint and pad, fresh solder on it, two seconds each, round and round."],
    cue: "Every joint stays bright while the tip is at the next one.",
    not_coming: &["A stouter tip.", "A preheater below.", "Alloy flooded over all joints."],
};

static IRON_FLOOD: MethodText = MethodText {
    name: "Iron with alloy flood",
    how: "Leaded or low-melt solder covers all joints; the tip runs along the flood while the part is rocked off.",
    danger: "melting the component with the iron's barrel",
    early: &[
        "The flood skins over behind the tip: more alloy, or a preheater below.",
        "Plastic beside the barrel shines or leans: lift the tip, come from the other side.",
    ],
    clean_up: "Much: every trace of the flood out, flooded fresh and wicked again.",
    heat: &["Tip along the flood to and fro, never on plastic; rock the part gently, only sideways."],
    cue: "The whole flood stays bright from end to end and the part floats.",
    not_coming: &["More alloy.", "A preheater below.", "Low-melt instead of leaded."],
};

static BRIDGE_WIRE: MethodText = MethodText {
    name: "Bridge wire",
    how: "A tinned copper wire lies along all joints, soldered to each; the iron heats the wire, the wire all joints.",
    danger: "not enough heat at the far end",
    early: &[
        "The far joints stay matt after ten seconds: a second iron, or a preheater below.",
        "The wire lifts off a joint: solder it down again before going on.",
    ],
    clean_up: "Wire and its solder come off with the part; braid what is left.",
    heat: &["Stout tip flat on the wire, flooded; to and fro along it, the ends last."],
    cue: "The solder on the wire is bright from end to end.",
    not_coming: &["A preheater below.", "Low-melt on the far joints.", "A second iron at the other end."],
};

static BLOB: MethodText = MethodText {
    name: "Flooded blob",
    how: "Solder joins all anchors in one pool on the far side; the part hangs below and drops when the pool is liquid through.",
    danger: "too much solder on the far side",
    early: &[
        "Solder runs along the part's anchors to its body: less of it, tip nearer the board.",
        "The pool splits in two: more solder between, or a wire in it.",
    ],
    clean_up: "Much metal to take up: pump or braid before the holes show.",
    heat: &["Board on its edge supports, part hanging free; tip flat in the pool, moved from leg to leg."],
    cue: "The pool is bright all through and the part drops.",
    not_coming: &["A stouter tip.", "A wire in the pool.", "Air from below at the same time."],
};

static FROM_BELOW: MethodText = MethodText {
    name: "Air from below",
    how: "Air heats the board through from the far face; the part on top comes last to the heat.",
    danger: "parts on the far side",
    early: &[
        "A far-side part slides or tilts: less flow, or a shield over it.",
        "Mask browns where the air stands: further away, or moving.",
    ],
    clean_up: "As the factory left it: braid once, fresh metal on.",
    heat: &["Look at the joints from above while the air works below; a mirror shows the far side."],
    cue: "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches.",
    not_coming: &["A wider nozzle.", "More alloy in the joints.", "The iron on the anchors at the same time."],
};

static FROM_ABOVE: MethodText = MethodText {
    name: "Air from above",
    how: "The nozzle moves over the part all the time until every joint under and round it is liquid.",
    danger: "plastics under the jet",
    early: &["The shell's edge glazes or a latch leans: further away, at once.", "A chip beside it creeps: less flow."],
    clean_up: "As the factory left it: braid once, fresh metal on.",
    heat: &["Never still: round the part along its joints, jet towards the board's edge."],
    cue: "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches.",
    not_coming: &["A preheater below.", "More alloy in the joints.", "Air from the other face."],
};

static TWO_STAGE: MethodText = MethodText {
    name: "Two-stage air",
    how: "The bare nozzle soaks the board from below; then a nozzle on top brings the last degrees.",
    danger: "a long soak: laminate, far-side parts",
    early: &[
        "Mask browns or the board bows during the soak: shorter, further away.",
        "Joints shine before the nozzle is on: lift it now.",
    ],
    clean_up: "As the factory left it; the board stays warm long enough to wick everything.",
    heat: &["From soak to nozzle without a pause; then over the joints, always moving."],
    cue: "Flux runs during the soak; joints turn shiny within a minute of the nozzle.",
    not_coming: &["A longer soak.", "More alloy in the joints.", "The iron on the anchors at the same time."],
};

static PREHEATER_AND_AIR: MethodText = MethodText {
    name: "Preheater and indirect air",
    how: "A preheater warms the board from below; slow air beside the part brings it the rest through the copper.",
    danger: "patience; bumping it while liquid",
    early: &[
        "Nothing shines after the expected end: the air is too far off, bring it nearer, not hotter.",
        "The latch goes soft to the tweezers: aim further away.",
    ],
    clean_up: "As the factory left it; the warm board lets braid glide.",
    heat: &["Nothing touches the board; the air stays on bare copper, never on the latch."],
    cue: "One end shines first, then the other; the part settles by itself.",
    not_coming: &["The preheater up by 10 °C (18 °F).", "Air on the other side of the part.", "Alloy in the joints."],
};

static LOW_MELT_AIR: MethodText = MethodText {
    name: "Low-melt, then air",
    how: "An alloy with bismuth or indium is mixed into every joint; mild air then melts the mix far below the factory's metal.",
    danger: "alloy left behind: weak joints later",
    early: &[
        "The alloy beads on top and does not wet: hold the tip until the board itself is hot.",
        "One joint stays matt in mild air: it was not fed.",
    ],
    clean_up: "Most: every trace out, fresh leaded on, off, on, off; clean tip, fresh braid each time.",
    heat: &["Keep to the setting: the mix needs no more than this."],
    cue: "The fed joints shine long before flux smokes; the part slides under the grip.",
    not_coming: &["Feed again: a joint was missed.", "20 °C (36 °F) more, not 60.", "A wider nozzle."],
};

static HOT_SWAP: MethodText = MethodText {
    name: "Hot swap",
    how: "The old part comes off and the new one, fluxed and at hand, goes on in the same heat.",
    danger: "one try, alignment",
    early: &[
        "A pad stayed dull when the old part came: stop, do it the other way.",
        "The new part floats on one side: it is not level, lift it and look.",
    ],
    clean_up: "None between: the old metal stays in the new joints.",
    heat: &["New part fluxed, in the other tweezers; old one aside, new one down, air on both, then hold."],
    cue: "Every joint is bright when the old part lifts, and still bright when the new one sinks.",
    not_coming: &["Let it cool and do it in two heats.", "More flow at the same distance.", "A preheater below."],
};

static PUMP: MethodText = MethodText {
    name: "Pump or vacuum iron",
    how: "Each leg is heated until its far side runs and the hole is sucked empty; the part then lifts out by hand.",
    danger: "square legs touching the barrel: pulled barrels",
    early: &[
        "A leg does not move sideways when nudged: fill that hole again and suck once more.",
        "The tip stands on a hole for longer than ten seconds: a preheater below, or more solder.",
    ],
    clean_up: "Done on the way: what is left is a film; braid the lands.",
    heat: &[
        "Fresh solder on the leg, tip flat, wait for the far side to run, then suck; nudge the leg while it cools.",
    ],
    cue: "Light shows through every hole round its leg; each leg moves free.",
    not_coming: &["Add solder and suck again.", "A preheater below.", "Air from below to finish."],
};

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_method_is_told_from_its_name_to_what_helps() {
        let words = Words::default();
        let mut names: Vec<&str> = Vec::new();
        for family in MethodFamily::ALL {
            let text = words.method(family);
            names.push(text.name);
            assert!(
                text.how.ends_with('.') && text.cue.ends_with('.') && text.clean_up.ends_with('.'),
                "{}",
                text.name
            );
            assert!(!text.danger.ends_with('.'), "a phrase: {}", text.danger);
            assert!(text.early.len() >= 2 && text.not_coming.len() >= 2 && !text.heat.is_empty(), "{}", text.name);
        }
        names.sort_unstable();
        names.dedup();
        assert_eq!(names.len(), MethodFamily::ALL.len(), "no two have one name");
    }
}
