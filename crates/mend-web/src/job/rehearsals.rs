//! What of a job can be rehearsed at the practice bench.

use mend_core::practice::goal::PracticeGoal;

use super::Job;

impl Job {
    /// In the order in which it is done: what its kind does, and what there is to do on its board.
    pub(crate) fn rehearsals(&self) -> Vec<PracticeGoal> {
        let (Some((_, board)), Some(inputs)) = (&self.board, self.inputs()) else { return Vec::new() };
        let Ok(composition) = inputs.composition() else { return Vec::new() };
        let (removes, fits) = (self.kind().removes(), self.kind().fits());
        let does = |goal: &PracticeGoal| match goal {
            PracticeGoal::Remove => removes,
            PracticeGoal::Fit => fits,
            // Where nothing goes on again, nothing is cleaned.
            PracticeGoal::ClearHoles | PracticeGoal::CleanUp => removes && fits,
        };
        PracticeGoal::ALL
            .into_iter()
            .filter(|goal| does(goal) && goal.obstacle(board, &composition).is_none())
            .collect()
    }
}
