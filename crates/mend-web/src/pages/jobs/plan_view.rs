//! What a plan says, ready to lay out.

use mend_core::board::{Board, Face};
use mend_core::heat::display::Shows;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::station::Station;
use mend_core::planning::band::Band;
use mend_core::planning::laminate::Risk;
use mend_core::planning::limited_by::{LastJoint, LastMelt, LimitedBy};
use mend_core::planning::margin::{Margin, MarginKind};
use mend_core::planning::plan::Plan;
use mend_core::planning::tips::{TipChoice, tips_of};
use mend_core::units::{Scale, TempDelta};

use crate::draw::board_map::{BoardMap, Drawing, MapExtent};
use crate::draw::heat_map::{Range, isotherms};
use crate::draw::margin_strip::{Strip, strip};
use crate::draw::overlay::Overlay;
use crate::job::Planned;
use crate::pages::window_word;
use crate::words::{
    self, FindingView, GuessView, Words, capital, guess, joint_class, of_samples, seconds_band, small_run, thing,
    tip_wanted,
};

/// What the plan says.
pub(crate) struct PlanView {
    /// The jet is no longer what it was; else empty.
    pub(crate) drift: String,
    /// What the large figure is.
    pub(crate) over: &'static str,
    pub(crate) window: &'static str,
    pub(crate) is_fit: bool,
    /// Each class of joints: what it is, what its tip must deliver, and which tip does.
    pub(crate) tips: Vec<(String, String, String)>,
    /// The bridge wire that is drawn, where one is laid.
    pub(crate) wire: Option<String>,
    /// Of a fit: holes cleared and anchors flowed through, with their times.
    pub(crate) small_runs: Vec<(String, String)>,
    pub(crate) chance: String,
    pub(crate) limited_by: String,
    /// The best single change, and what it brings.
    pub(crate) better: Option<(String, String)>,
    pub(crate) release: String,
    pub(crate) release_mid: String,
    pub(crate) share: String,
    pub(crate) stop: String,
    pub(crate) stop_why: String,
    pub(crate) hold: String,
    pub(crate) warm: String,
    pub(crate) melts_at: String,
    /// Figures of the laminate, each with its word.
    pub(crate) laminate: Vec<(&'static str, String)>,
    pub(crate) lift: Option<(&'static str, String)>,
    pub(crate) findings: Vec<FindingView>,
    pub(crate) strip: Strip,
    pub(crate) top: BoardMap,
    pub(crate) bottom: BoardMap,
    pub(crate) scale_labels: [String; 3],
    pub(crate) melt_place: String,
    pub(crate) samples: usize,
    /// Which guesses widen the band, the one that does most first.
    pub(crate) guesses: Vec<GuessView>,
    /// Passes before the last, for the strip's small marks.
    pub(crate) stages: usize,
    /// Components nearest to their limits, to be covered at a press: place in the board, name.
    pub(crate) coverable: Vec<(usize, String)>,
    /// What the station's own display shows at this flow; empty where it shows litres per minute.
    pub(crate) display: String,
}

/// What to set on a station that does not show litres per minute.
fn display(station: &Station, plan: &Plan) -> String {
    let Some((flow, shown)) = plan.recipe.air.and_then(|air| Some((air.flow, station.display.value(air.flow)?))) else {
        return String::new();
    };
    let set = match station.display.shows() {
        Shows::Percent => format!("{shown:.0} %"),
        _ => format!("{:.1}", shown),
    };
    let what = if station.display.shows() == Shows::Dial { "Dial" } else { "Display" };
    format!("{what} at {set} for {} L/min.", flow.in_litres_per_minute())
}

/// A band of seconds in words.
pub(crate) fn seconds(band: Option<Band>) -> String {
    band.map_or("not reached".to_owned(), |b| seconds_band(b.low, b.high))
}

/// All of a plan, for a board at a station.
pub(crate) fn plan_view(board: &Board, station: Option<&Station>, planned: &Planned, scale: Scale) -> PlanView {
    let (plan, words) = (&planned.plan, Words { scale });
    let overlay = station.map(|station| Overlay::from_recipe(&plan.recipe, board, station));
    let drawing = |face| Drawing {
        photos: &[],
        board,
        face,
        window: MapExtent::Near(16.0),
        margins: &plan.margins,
        scale,
        lettering: 3.6,
        overlay: overlay.as_ref(),
    };
    let range = Range::within(&drawing(Face::Top).frame(), &plan.map);
    let draw = |face| drawing(face).draw(Some(isotherms(&plan.map, face, range, plan.melts_at_c)));
    let time = |t: Option<f64>| t.map_or("may not melt".to_owned(), |t| format!("{t:.0} s"));
    PlanView {
        drift: String::new(),
        over: match plan.purpose {
            Purpose::Remove => "Time to release",
            Purpose::SetOn => "Joints liquid, set it on",
            Purpose::Fit | Purpose::Clear => "All joints liquid",
        },
        is_fit: plan.purpose.fits(),
        tips: tips_of(plan, board).iter().map(tip_row).collect(),
        wire: Overlay::laid(&plan.recipe, board).wire(plan.recipe.face(board)).map(|wire| format!("{}.", wire.name)),
        small_runs: plan.small_runs.iter().map(small_run).collect(),
        window: window_word(plan.window),
        chance: of_samples(plan.works_in()),
        limited_by: words.limited_by(&plan.limited_by),
        better: plan.next_move.as_ref().map(|m| (words.change(&m.what), words.move_effect(&m.brings))),
        release: release(plan, words),
        release_mid: time(plan.release.mid_s),
        share: format!("{:.0} of {}", plan.release.share * plan.samples as f64, plan.samples),
        stop: format!("{:.0} s", plan.abort.at_s),
        stop_why: plan.abort.spares.as_ref().map_or("longest heating".to_owned(), |of| format!("spares {}", thing(of))),
        hold: seconds(plan.solid_after_s),
        warm: seconds(plan.wickable_for_s),
        melts_at: words.temperature(plan.melts_at_c),
        laminate: laminate(plan, scale),
        lift: lift(plan, scale),
        findings: words.findings(&plan.findings),
        strip: strip(plan, scale),
        top: draw(Face::Top),
        bottom: draw(Face::Bottom),
        scale_labels: range.labels(scale),
        melt_place: format!("{:.1}", 320.0 * range.place(plan.melts_at_c)),
        samples: plan.samples,
        guesses: plan.guesses.iter().map(guess).collect(),
        stages: plan.recipe.preheat.len(),
        coverable: coverable(board, plan),
        display: station.map_or(String::new(), |station| display(station, plan)),
    }
}

fn tip_row(choice: &TipChoice) -> (String, String, String) {
    let needs = format!("draws {:.1} W while it flows", choice.needs_w);
    (capital(&joint_class(choice)), needs, tip_wanted(choice))
}

/// The large figure: when it happens, or by how much it does not.
fn release(plan: &Plan, words: Words) -> String {
    match &plan.limited_by {
        LimitedBy::Found {
            last: Some(LastJoint { melts: LastMelt::NotWithin { short: Some(short), .. }, .. }),
            ..
        } if plan.release.low_s.is_none() => {
            format!("{} short", words.apart(short.by_k))
        }
        _ => words::release(&plan.release),
    }
}

/// Components on a face that the air meets, tightest first, that no shield covers yet.
fn coverable(board: &Board, plan: &Plan) -> Vec<(usize, String)> {
    /// More of them are no help to choose from.
    const OFFERED: usize = 3;
    let bare = |m: &&Margin| {
        let component = board.components.iter().position(|n| n.name == m.name)?;
        let n = &board.components[component];
        let covered = plan.recipe.shields.iter().any(|s| s.covers(n.face, &n.body) > 0.0);
        (n.face == plan.recipe.face(board) && !covered).then(|| (component, n.name.clone()))
    };
    let tight = plan.margins.iter().filter(|m| m.kind == MarginKind::Component);
    tight.filter_map(|m| bare(&m)).take(OFFERED).collect()
}

fn laminate(plan: &Plan, scale: Scale) -> Vec<(&'static str, String)> {
    let Some(l) = &plan.laminate else { return Vec::new() };
    let per_second = |k: f64| scale.of_delta(TempDelta::kelvin(k));
    let unit = scale.symbol();
    vec![
        ("laminate at its hottest", Words { scale }.temperature_band(l.peak_c)),
        ("time above 260 °C / 500 °F", seconds_band(l.over_260_s.low, l.over_260_s.high)),
        (
            "pads warm by up to",
            format!("{:.1}–{:.1} {unit}/s", per_second(l.ramp_k_per_s.low), per_second(l.ramp_k_per_s.high)),
        ),
    ]
}

/// How easily a pad lifts, and why.
fn lift(plan: &Plan, scale: Scale) -> Option<(&'static str, String)> {
    let lift = plan.pad_lift.as_ref()?;
    let word = match lift.risk {
        Risk::Low => "low",
        Risk::Raised => "raised",
        Risk::High => "high",
    };
    let over = scale.of_delta(TempDelta::kelvin(lift.over_tg_k.mid.max(0.0)));
    let why = format!(
        "{} melts last, {:.0}–{:.0} s after the first; the board is then {over:.0} {} above where its resin softens",
        lift.last,
        lift.lag_s.low,
        lift.lag_s.high,
        scale.symbol()
    );
    Some((word, why))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{gull, planned, power_board};

    fn of(scale: Scale) -> PlanView {
        let (inputs, plan) = planned().clone();
        plan_view(&power_board(), Some(&gull()), &Planned { id: 1, inputs, plan }, scale)
    }

    #[test]
    fn figures_are_said_in_the_visitors_degrees_with_their_units() {
        let (celsius, fahrenheit) = (of(Scale::Celsius), of(Scale::Fahrenheit));
        assert!(celsius.laminate[0].1.ends_with(" °C") && fahrenheit.laminate[0].1.ends_with(" °F"));
        assert!(fahrenheit.laminate[2].1.ends_with("°F/s"), "{:?}", fahrenheit.laminate);
        assert!(celsius.release.ends_with(" s") || celsius.release.contains("never"), "{}", celsius.release);
        assert!(celsius.lift.as_ref().is_some_and(|(_, why)| why.contains("melts last")));
    }

    #[test]
    fn what_may_be_covered_stands_on_the_face_of_the_air_and_has_no_shield() {
        let board = power_board();
        let view = of(Scale::Celsius);
        let face = planned().1.recipe.face(&power_board());
        assert!(!view.coverable.is_empty() && view.coverable.len() <= 3);
        assert!(
            view.coverable
                .iter()
                .all(|(k, name)| board.components[*k].name == *name && board.components[*k].face == face)
        );
        assert!(view.better.is_some() && view.stages == 0);
    }
}
