//! Which method is recommended, why, and what each uses up, in words.

use mend_core::planning::compare::{BestLane, NextBest, Recommendation, Tightest, Use, WhyNot};

use super::Words;
use super::limits::{damaged, may_happen};
use super::quantity::{lower, of_samples, shield};

impl Words {
    /// Why a method is recommended, or why none is.
    pub fn recommendation(&self, recommendation: &Recommendation) -> String {
        match recommendation {
            Recommendation::Best { best, next: Some(next) } => format!("{} {}", self.best(best), self.next_best(next)),
            Recommendation::Best { best, next: None } => {
                format!("{} No other way works here often enough.", self.best(best))
            }
            Recommendation::None { nearest: Some((family, limit)) } => format!(
                "Nothing here opens the window. Nearest is {}: {}",
                lower(self.method(*family).name),
                self.search_limit(limit)
            ),
            Recommendation::None { nearest: None } => "Nothing here opens the window.".to_owned(),
        }
    }

    fn best(&self, best: &BestLane) -> String {
        let headroom = match &best.tightest {
            Some(Tightest { of, headroom_k, .. }) if *headroom_k >= 0.0 => {
                format!(", {} left at {}", self.apart(*headroom_k), damaged(of))
            }
            Some(Tightest { of, .. }) => format!(", though {}", may_happen(of)),
            None => String::new(),
        };
        let reason = best.speaks_for.as_ref().map_or(String::new(), |reason| format!("; {}", self.advantage(reason)));
        format!(
            "{} works in {}{headroom}, in about {:.0} min{reason}.",
            self.method(best.family).name,
            of_samples(best.works_in),
            best.minutes
        )
    }

    fn next_best(&self, next: &NextBest) -> String {
        let why = match &next.why {
            WhyNot::WorksLess { works_in } => format!("works in {} only", of_samples(*works_in)),
            WhyNot::NearLimit { of, headroom_k } => {
                format!("brings {} within {} of its limit", damaged(of), self.apart(*headroom_k))
            }
            WhyNot::LeavesAlloy => "leaves alloy that eight passes do not get out".to_owned(),
            WhyNot::TakesLonger { minutes, passes } => {
                let passes = passes.map_or(String::new(), |passes| format!(", with {passes} wick passes"));
                format!("takes {minutes:.0} min longer{passes}")
            }
            WhyNot::LessHeadroom { of, less_k } => {
                format!("leaves {} less headroom, at {}", self.apart(*less_k), damaged(of))
            }
            WhyNot::AboutAsWell => "does about as well".to_owned(),
        };
        format!("{}, the next best, {why}.", self.method(next.family).name)
    }

    /// What a method uses up, in a row.
    pub fn uses(&self, uses: &[Use]) -> String {
        let used = |used: &Use| match used {
            Use::Alloy { mm, name } => format!("{mm:.0} mm of {name}"),
            Use::Braid { cm } => format!("{cm:.0} cm of braid"),
            Use::Shield { shield: kind, cm2 } => format!("{}, {cm2:.0} cm²", shield(*kind)),
            Use::Flux { ml } => format!("{ml:.1} mL of flux"),
            Use::Alcohol { ml } => format!("{ml:.0} mL of alcohol"),
            Use::Nozzle { width_mm, hours } => format!("{:.0} s of the {width_mm} mm nozzle", 3600.0 * hours),
        };
        uses.iter().map(used).collect::<Vec<_>>().join(", ")
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::method::MethodFamily;
    use mend_core::planning::damaged::Damaged;
    use mend_core::planning::plan::WorksIn;
    use mend_core::units::Scale;

    #[test]
    fn a_recommendation_is_two_sentences_on_the_visitors_scale() {
        let tightest = Some(Tightest { of: Damaged::Laminate, headroom_k: 20.0, inside: true });
        let family = MethodFamily::FromBelow;
        let best =
            BestLane { family, works_in: WorksIn { works: 19, of: 20 }, tightest, minutes: 24.0, speaks_for: None };
        let why = WhyNot::TakesLonger { minutes: 9.0, passes: Some(4) };
        let next = Some(NextBest { family: MethodFamily::Pump, why });
        let said =
            |scale| Words { scale }.recommendation(&Recommendation::Best { best: best.clone(), next: next.clone() });
        assert_eq!(
            said(Scale::Celsius),
            "Air from below works in 19 of 20, 20 K left at the laminate, in about 24 min. Pump or vacuum iron, the next \
             best, takes 9 min longer, with 4 wick passes."
        );
        assert!(said(Scale::Fahrenheit).contains("36 °F left"));
        let none = Words::default().recommendation(&Recommendation::None { nearest: None });
        assert_eq!(none, "Nothing here opens the window.");
    }
}
