//! What a heat run showed, in words.

use mend_core::finding::problem::PlanProblem;

use super::quantity::list;
use super::{ProblemWords, Words, problem};

impl Words {
    pub(super) fn plan_problem(&self, found: &PlanProblem) -> ProblemWords {
        match found {
            PlanProblem::NearJet { component, material, mm } => problem(
                format!("{component} ({material}) is {mm:.0} mm from the jet"),
                "take it out before any heat; a shield is not enough",
            ),
            PlanProblem::DenseBoard { layers } => problem(
                format!("{layers} copper layers: such boards melt later than computed, the band leans that way"),
                "expect the late end of the band",
            ),
            PlanProblem::EarlyRelease { s } => problem(
                format!("the part is loose {s:.0} s before the last stage begins"),
                "shorten the soak, or lift it then",
            ),
            PlanProblem::IdleShield { shield } => problem(
                format!("shield {} lies on a face where no air comes", shield + 1),
                "there it only keeps heat in: remove it, or lay a copper block on what it covers",
            ),
            PlanProblem::BlownInto { component, pa } => problem(
                format!("the jet blows into {component} with about {pa:.0} Pa"),
                "cover its port with tape, or heat from the other face",
            ),
            PlanProblem::OwnJointsMelt { components } => problem(
                format!("the own joints of {} melt too", list(components)),
                "they stay where nobody bumps them: no tweezers near them until all is solid",
            ),
            PlanProblem::SteepRamp { components, k_per_s, most_k_per_s } => problem(
                format!(
                    "{} warm by up to {}, more than {}",
                    list(components),
                    self.ramp(*k_per_s),
                    self.ramp(*most_k_per_s)
                ),
                "soak the board first, or begin further away",
            ),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::units::Scale;

    #[test]
    fn a_ramp_is_said_with_what_it_may_be_on_the_visitors_scale() {
        let components = ["C1", "C2", "C3", "C4"].map(str::to_owned).to_vec();
        let steep = PlanProblem::SteepRamp { components, k_per_s: 4.5, most_k_per_s: 3.0 };
        let said = |scale| Words { scale }.plan_problem(&steep).message;
        assert_eq!(said(Scale::Celsius), "C1, C2, C3 and 1 more warm by up to 4.5 K/s, more than 3.0 K/s");
        assert!(said(Scale::Fahrenheit).contains("8.1 °F/s, more than 5.4 °F/s"));
    }

    #[test]
    fn shields_are_counted_as_the_page_counts_them() {
        assert!(Words::default().plan_problem(&PlanProblem::IdleShield { shield: 0 }).message.starts_with("shield 1 "));
    }
}
