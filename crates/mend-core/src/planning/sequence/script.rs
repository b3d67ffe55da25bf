//! What the sequence is written from.

use crate::board::{Board, KeepIntact};
use crate::method::equipment::Sucker;
use crate::method::techniques::Question;
use crate::method::{MethodChoice, MethodFamily};
use crate::planning::plan::Plan;
use crate::solder::JointComposition;

/// What the sequence is written from.
#[derive(Debug, Clone, Copy)]
pub struct Script<'a> {
    /// The board.
    pub board: &'a Board,
    /// The plan.
    pub plan: &'a Plan,
    /// What the joints hold, are fed, and are soldered with in the end.
    pub composition: &'a JointComposition,
    /// What was chosen; none: hot air as it is set, nothing else said.
    pub choice: Option<&'a MethodChoice>,
    /// What is kept intact.
    pub keep_intact: KeepIntact,
    /// What empties holes here.
    pub sucker: Sucker,
}

impl<'a> Script<'a> {
    /// Hot air as it is set, on a customer's board.
    pub fn plain(board: &'a Board, plan: &'a Plan, composition: &'a JointComposition) -> Self {
        Self { board, plan, composition, choice: None, keep_intact: KeepIntact::Board, sucker: Sucker::None }
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

    pub(super) fn holes(&self) -> usize {
        self.board.connector.joints.iter().filter(|joint| joint.shape.is_hole()).count()
    }
}
