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
