//! The fit of a job's new part beside its removal: what it is set to, and its plan.

use mend_core::board::Board;
use mend_core::heat::purpose::Purpose;
use mend_core::planning::fit::first_settings;
use mend_core::planning::plan_inputs::PlanInputs;

use super::{HeatWork, Job, Planned, Workplace};
use crate::refusal::Refusal;

impl Job {
    /// What a run of heat is to be planned from; of a fit that nobody has set yet what follows from the removal.
    pub(crate) fn inputs_of(&self, work: HeatWork) -> Option<PlanInputs> {
        match work {
            HeatWork::Removal => self.inputs(),
            HeatWork::Fit => {
                let set = self.fit_entered.as_ref().or(self.fit_planned.as_ref().map(|p| &p.inputs)).cloned();
                let first = || Some(first_fit(self.inputs()?, &self.board.as_ref()?.1));
                Some(set.or_else(first)?.with(&self.composition_entry()))
            }
        }
    }

    /// What the steps of its plan are written for.
    pub(crate) fn workplace(&self) -> Result<Workplace<'_>, Refusal> {
        let fit = self.current_plan_of(HeatWork::Fit);
        let broken = self.broken_lands().into_iter().map(|(joint, _)| joint.name.clone()).collect();
        Ok(Workplace { board: &self.board()?.1, equipment: &self.equipment, fit, broken, kind: self.kind() })
    }

    /// Its newest plan, whatever it was made from.
    pub(crate) fn newest_plan_of(&self, work: HeatWork) -> Option<&Planned> {
        match work {
            HeatWork::Removal => self.planned.as_ref(),
            HeatWork::Fit => self.fit_planned.as_ref(),
        }
    }

    /// Its plan, if it is for what is set and what the joints hold now.
    pub(crate) fn current_plan_of(&self, work: HeatWork) -> Option<&Planned> {
        let inputs = self.inputs_of(work)?;
        self.newest_plan_of(work).filter(|planned| planned.inputs == inputs)
    }
}

/// A fit before anybody has set it.
pub(crate) fn first_fit(removal: PlanInputs, board: &Board) -> PlanInputs {
    PlanInputs { purpose: Purpose::Fit, method: None, settings: first_settings(&removal.settings, board), ..removal }
}
