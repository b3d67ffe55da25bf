//! What must be known of a melt and of a feed, in words.

use mend_core::solder::notes::{MeltFigure, MeltNote};
use mend_core::solder::{FeedReason, MixesIn};
use mend_core::units::Temperature;

use super::Words;

impl Words {
    /// A note on a melt curve, in a sentence.
    pub fn melt_note(&self, note: &MeltNote) -> String {
        match note {
            MeltNote::UntriedPair { elements: [a, b] } => {
                format!("{} together with {} was never tried in this model.", super::capital(a.name()), b.name())
            }
            MeltNote::TriedOnlyWith { element, with: [a, b] } => {
                format!("{} was tried with {} and {} only.", super::capital(element.name()), a.name(), b.name())
            }
            MeltNote::UntriedShare { element, above_percent } => {
                format!("More than {above_percent} % of {} was never tried in this model.", element.name())
            }
            MeltNote::NeverFitted { elements: [a, b] } => {
                format!("How {} and {} mix is a published estimate that was never fitted.", a.name(), b.name())
            }
            MeltNote::Published { name, solidus_c, liquidus_c, note } => {
                let note = if note.is_empty() { String::new() } else { format!(" ({note})") };
                let from = self.scale.of(Temperature::celsius(*solidus_c));
                format!("{name} is published as melting from {from:.0} to {}{note}.", self.temperature(*liquidus_c))
            }
            MeltNote::NotComputed { figure } => format!("The {} could not be computed.", figure_name(*figure)),
        }
    }

    /// Why a row is fed what it is, in a sentence.
    pub fn feed_reason(&self, reason: &FeedReason) -> String {
        match reason {
            FeedReason::Hidden => "Hidden: no tip gets there, it melts as the factory left it.".to_owned(),
            FeedReason::NotFed => "Not fed: it melts as the factory left it.".to_owned(),
            FeedReason::TooMuch => "More than these joints can take: feed less, or clear them first.".to_owned(),
            FeedReason::Barrel(mixes) => {
                format!("Barrel and two fillets; hold the tip until the far side runs, {}.", mixes_in(mixes))
            }
            FeedReason::Pad(mixes) => format!("Film and fillet of a pad; {}.", mixes_in(mixes)),
            FeedReason::InRounds { rounds, mixes } => {
                format!("More than it holds at once: feed, wick, feed again, {rounds} rounds; {}.", mixes_in(mixes))
            }
        }
    }
}

fn mixes_in(MixesIn { least, most }: &MixesIn) -> String {
    format!("{:.0}–{:.0} % of it mixes in", least * 100.0, most * 100.0)
}

fn figure_name(figure: MeltFigure) -> &'static str {
    match figure {
        MeltFigure::Liquidus => "liquidus",
        MeltFigure::Working => "working temperature",
        MeltFigure::Solidus => "solidus",
        MeltFigure::ScheilEnd => "Scheil end",
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::materials::Element;
    use mend_core::units::Scale;

    #[test]
    fn notes_on_a_melt_are_sentences_on_the_visitors_scale() {
        let published = MeltNote::Published { name: "Sn63Pb37", solidus_c: 183.0, liquidus_c: 183.0, note: "" };
        let said = |note: &MeltNote, scale| Words { scale }.melt_note(note);
        assert_eq!(said(&published, Scale::Celsius), "Sn63Pb37 is published as melting from 183 to 183 °C.");
        assert_eq!(said(&published, Scale::Fahrenheit), "Sn63Pb37 is published as melting from 361 to 361 °F.");
        let pair = MeltNote::UntriedPair { elements: [Element::Sb, Element::In] };
        assert_eq!(said(&pair, Scale::Celsius), "Antimony together with indium was never tried in this model.");
        let gone = MeltNote::NotComputed { figure: MeltFigure::Solidus };
        assert_eq!(said(&gone, Scale::Celsius), "The solidus could not be computed.");
    }

    #[test]
    fn a_feed_says_how_much_of_it_mixes_in() {
        let mixes = MixesIn { least: 0.7, most: 0.95 };
        let said = |reason| Words::default().feed_reason(&reason);
        assert_eq!(said(FeedReason::Pad(mixes)), "Film and fillet of a pad; 70–95 % of it mixes in.");
        assert!(said(FeedReason::InRounds { rounds: 3, mixes }).contains("3 rounds; 70–95 %"));
        assert!(said(FeedReason::Hidden).starts_with("Hidden:"));
    }
}
