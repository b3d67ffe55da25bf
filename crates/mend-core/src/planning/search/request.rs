//! What is searched, and settings that were looked at.

use super::score::Score;
use crate::heat::recipe::Recipe;
use crate::method::start::{Start, Vary};
use crate::method::subject::Subject;
use crate::planning::damaged::Damaged;
use crate::planning::order::Order;
use crate::solder::JointComposition;
use crate::units::Temperature;
use crate::watch::Watch;

/// How much of the space is looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Effort {
    /// One distance, every other flow: enough to put families side by side.
    Look,
    /// All of it.
    Thorough,
}

/// What is searched.
#[derive(Debug, Clone, Copy)]
pub struct SearchRequest<'a> {
    /// What is to be done with what.
    pub subject: &'a Subject<'a>,
    /// Ambient temperature.
    pub ambient: Temperature,
    /// How much of the space.
    pub effort: Effort,
    /// Is it still wanted?
    pub watch: &'a Watch,
}

/// Settings that were looked at.
#[derive(Debug, Clone, PartialEq)]
pub struct Tried {
    /// What the joints hold and are fed.
    pub composition: JointComposition,
    /// The settings.
    pub recipe: Recipe,
    /// How they do.
    pub score: Score,
    /// What is tightest at release.
    pub tightest: Option<Damaged>,
    /// Where that is a component near the part, its place in the board's list.
    pub tightest_component: Option<usize>,
}

impl<'a> SearchRequest<'a> {
    /// The order of some settings.
    pub fn order<'o>(&'o self, composition: &'o JointComposition, recipe: &'o Recipe) -> Order<'o> {
        let Subject { board, station, keep_intact, known, purpose, .. } = *self.subject;
        let (ambient, watch) = (self.ambient, self.watch);
        Order { board, composition, station, recipe, ambient, known, purpose, keep_intact, watch }
    }
}

impl SearchRequest<'_> {
    pub(super) fn thinned(&self, start: Start) -> Start {
        let vary = match (start.vary, self.effort) {
            (Vary::Air(space), Effort::Look) => Vary::Air(space.thin()),
            (vary, _) => vary,
        };
        Start { vary, ..start }
    }
}
