//! Under heat, until the part is off.

use mend_core::heat::motion::Motion;
use mend_core::heat::tool::ComesNearWhen;
use mend_core::planning::sequence::line::HeatLine;

use super::Words;

impl Words {
    /// What a recipe's tools do, a line each.
    pub fn heat_line(&self, line: &HeatLine) -> String {
        let from = |onto_part: bool| if onto_part { "onto the part" } else { "from the far face" };
        match line {
            HeatLine::AirOn { face, motion, distance_mm, nozzle_mm, lpm } => format!(
                "Air on the {} face, {}, {distance_mm:.0} mm away; {nozzle_mm} mm nozzle, {lpm:.0} L/min.",
                face.name(),
                moving(*motion)
            ),
            HeatLine::AirAndPlace { onto_part, face, motion, distance_mm, nozzle_mm, lpm } => format!(
                "Air {}, {} face, {distance_mm:.0} mm away, {nozzle_mm} mm nozzle, {lpm:.0} L/min; {}.",
                from(*onto_part),
                face.name(),
                moving(*motion)
            ),
            HeatLine::AirPlace { onto_part, face, motion, distance_mm } => format!(
                "Air {}, {} face: {}, {distance_mm:.0} mm away.",
                from(*onto_part),
                face.name(),
                moving(*motion)
            ),
            HeatLine::AirSetting { nozzle_mm, lpm } => format!("{nozzle_mm} mm nozzle, {lpm:.0} L/min."),
            HeatLine::PreheaterOn { face, coupling } => {
                format!("Preheater under the {} face, through {}.", face.name(), coupling.name())
            }
            HeatLine::IronOnRow { tip_mm, row } => {
                format!("Iron with a {tip_mm} mm tip on {row}, from joint to joint without rest.")
            }
            HeatLine::AllOff => "Everything off: the heat spreads through the board.".into(),
            HeatLine::NextToolWithin { s } => format!("Then the next tool within {s:.0} s."),
            HeatLine::MethodHands { family } => self.method(*family).heat.join(" "),
            HeatLine::DoNotPull => "No pulling, no prising: grip, and wait. It moves by itself.".into(),
            HeatLine::TipOnEachLeg { tip_mm, s } => {
                format!("{tip_mm:.0} mm tip on each leg for about {s:.0} s, until its far side runs.")
            }
            HeatLine::OneAfterOther { joints } => format!("One after the other: {}.", joints.join(", ")),
            HeatLine::StraightUp => {
                "Straight up. Air away the moment it is off: a freed part deforms in seconds.".into()
            }
            HeatLine::LeverRound => {
                "Lever each end up by a hair while its joint is liquid, then the next; round again until it is out."
                    .to_owned()
            }
            HeatLine::ComesNear { from_mm, to_mm, s, when } => {
                let way = format!("come down to {to_mm:.0} mm within {s:.0} s");
                match when {
                    ComesNearWhen::AtOnce => format!("Begin {from_mm:.0} mm away and {way}."),
                    when => format!("Stay {from_mm:.0} mm away until {}; then {way}.", comes_near_when(*when)),
                }
            }
            HeatLine::Leans { lean_deg, towards_deg } => {
                format!("Lean the nozzle by {lean_deg:.0}°, so that it blows {}.", towards(*towards_deg))
            }
            HeatLine::GlueHolds => {
                "Glue holds the tail behind its fingers: a thin blade under it from the free end, never a fold."
                    .to_owned()
            }
            HeatLine::RockPegs { pegs } => {
                format!("{pegs} plastic pegs hold by friction: rock gently, only now that all solder is liquid.")
            }
        }
    }
}

/// What a hand waits for before it comes near, after "once" or "until".
pub(crate) const fn comes_near_when(when: ComesNearWhen) -> &'static str {
    match when {
        ComesNearWhen::AtOnce => "the air is on",
        ComesNearWhen::FluxSmokes => "the flux smokes",
        ComesNearWhen::FirstShines => "the first joint shines",
    }
}

/// The same, as a form offers it.
pub(crate) const fn begins_when(when: ComesNearWhen) -> &'static str {
    match when {
        ComesNearWhen::AtOnce => "at once",
        ComesNearWhen::FluxSmokes => "once the flux smokes",
        ComesNearWhen::FirstShines => "once the first joint shines",
    }
}

/// How a nozzle is held, in a phrase.
const fn moving(motion: Motion) -> &'static str {
    match motion {
        Motion::Still => "held still",
        Motion::Circle => "moving in a small circle",
        Motion::AlongRow => "moving along the row",
        Motion::Sweeping => "always moving over the whole part",
    }
}

/// A direction over the board as a person at the bench says it.
fn towards(degrees: f64) -> &'static str {
    const EIGHTHS: [&str; 8] = [
        "to the right",
        "away from you to the right",
        "away from you",
        "away from you to the left",
        "to the left",
        "towards you to the left",
        "towards you",
        "towards you to the right",
    ];
    EIGHTHS[(degrees.rem_euclid(360.0) / 45.0).round() as usize % 8]
}

#[cfg(test)]
mod tests {
    use super::towards;

    #[test]
    fn a_direction_is_said_from_where_the_technician_sits() {
        assert_eq!(
            [0.0, 90.0, -90.0, 350.0].map(towards),
            ["to the right", "away from you", "towards you", "to the right"]
        );
    }
}
