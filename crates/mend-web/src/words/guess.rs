//! What is guessed, and what to do about it.

use mend_core::heat::uncertainty::UncertainInput;
use mend_core::planning::sensitivity::Sensitivity;

/// A guess as the page tells it.
pub(crate) struct GuessView {
    /// What is guessed.
    pub(crate) what: &'static str,
    /// Its share of the band's width.
    pub(crate) share: String,
    /// What to do about it and what that would bring.
    pub(crate) advice: String,
}

const fn name(input: UncertainInput) -> &'static str {
    match input {
        UncertainInput::JetTransfer => "how hard the jet heats",
        UncertainInput::Flow => "the real flow",
        UncertainInput::OutletTemperature => "the air's real temperature",
        UncertainInput::Distance => "the nozzle's distance",
        UncertainInput::Aim => "where the nozzle points",
        UncertainInput::Conduction => "the copper in the board",
        UncertainInput::HeatCapacity => "what the small parts take up",
        UncertainInput::Losses => "losses to the room",
        UncertainInput::Mixing => "how well the feed mixes in",
        UncertainInput::LetGo => "how soft a joint must be to let go",
        UncertainInput::MeltingPoint => "where the alloy melts",
        UncertainInput::Shields => "what the shields keep out",
        UncertainInput::Tolerance => "what plastics and laminate stand",
    }
}

/// None where nothing can be done about it before the job.
const fn remedy(input: UncertainInput) -> Option<&'static str> {
    match input {
        UncertainInput::JetTransfer => Some("probe the station"),
        UncertainInput::Flow => Some("measure the flow with a bag"),
        UncertainInput::OutletTemperature => Some("measure it with a thermocouple"),
        UncertainInput::Distance | UncertainInput::Aim => Some("put the nozzle on a stand"),
        UncertainInput::Conduction => Some("describe the copper or probe the board"),
        UncertainInput::HeatCapacity => Some("probe the board"),
        UncertainInput::Mixing => Some("keep the tip on each joint until the feed flows"),
        UncertainInput::Losses
        | UncertainInput::LetGo
        | UncertainInput::MeltingPoint
        | UncertainInput::Shields
        | UncertainInput::Tolerance => None,
    }
}

/// A guess in words.
pub(crate) fn guess(of: &Sensitivity) -> GuessView {
    let advice = match (remedy(of.input), narrowed(of.narrows_to)) {
        (Some(remedy), Some(narrowed)) => format!("{remedy}: the band would be {narrowed}"),
        (Some(remedy), None) => remedy.to_owned(),
        (None, _) => "nothing to measure before the job".to_owned(),
    };
    GuessView { what: name(of.input), share: format!("{:.0} %", 100.0 * of.share), advice }
}

/// How wide a band would be; none where it would hardly change.
fn narrowed(to: f64) -> Option<String> {
    match to {
        to if to > 0.95 => None,
        to if (0.45..0.55).contains(&to) => Some("half as wide".to_owned()),
        to => Some(format!("{:.0} % as wide", 100.0 * to)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_guess_says_what_to_do_and_what_that_brings() {
        let said = |input, narrows_to| guess(&Sensitivity { input, share: 0.4, narrows_to }).advice;
        assert_eq!(said(UncertainInput::Flow, 0.5), "measure the flow with a bag: the band would be half as wide");
        assert_eq!(said(UncertainInput::Aim, 0.8), "put the nozzle on a stand: the band would be 80 % as wide");
        assert_eq!(said(UncertainInput::Mixing, 1.0), "keep the tip on each joint until the feed flows");
        assert_eq!(said(UncertainInput::LetGo, 1.0), "nothing to measure before the job");
    }
}
