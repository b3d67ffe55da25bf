//! What the sequence is written from.

use crate::board::{Board, KeepIntact};
use crate::method::equipment::Sucker;
use crate::method::techniques::Question;
use crate::method::{JobKind, MethodChoice, MethodFamily};
use crate::planning::plan::Plan;
use crate::planning::small_runs::{SmallRun, SmallWork};
use crate::solder::JointComposition;

/// What the sequence is written from.
#[derive(Debug, Clone, Copy)]
pub struct Script<'a> {
    /// The board.
    pub board: &'a Board,
    /// The plan.
    pub plan: &'a Plan,
    /// The plan of the fit, where there is one.
    pub fit: Option<&'a Plan>,
    /// What the joints hold, are fed, and are soldered with in the end.
    pub composition: &'a JointComposition,
    /// What was chosen; none: hot air as it is set, nothing else said.
    pub choice: Option<&'a MethodChoice>,
    /// What is kept intact.
    pub keep_intact: KeepIntact,
    /// What empties holes here.
    pub sucker: Sucker,
    /// Is there an ultrasonic bath?
    pub bath: bool,
    /// Joints whose land is not whole, by name.
    pub broken: &'a [String],
    /// What the job is for.
    pub kind: JobKind,
}

impl<'a> Script<'a> {
    /// Hot air as it is set, on a customer's board.
    pub fn plain(board: &'a Board, plan: &'a Plan, composition: &'a JointComposition) -> Self {
        let (keep_intact, sucker) = (KeepIntact::Board, Sucker::None);
        let kind = JobKind::Replace;
        Self { board, plan, fit: None, composition, choice: None, keep_intact, sucker, bath: false, broken: &[], kind }
    }
}

impl Script<'_> {
    pub(super) fn is(&self, family: MethodFamily) -> bool {
        self.choice.is_some_and(|choice| choice.family == family)
    }

    /// The technique that is followed.
    pub(super) fn technique(&self, question: &Question) -> &'static str {
        let recommended = question.techniques.first().map_or("", |(key, _)| key);
        self.choice.map_or(recommended, |choice| choice.techniques.followed(question))
    }

    /// What the plan of the fit says of some small work; none where it says nothing.
    pub(super) fn small_runs(&self, works: &[SmallWork]) -> Vec<SmallRun> {
        let runs = self.fit.map_or(&[][..], |fit| &fit.small_runs);
        runs.iter().filter(|run| works.contains(&run.work)).cloned().collect()
    }

    pub(super) fn holes(&self) -> usize {
        self.board.connector.holes()
    }
}
