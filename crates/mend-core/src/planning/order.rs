//! An order: what is to be planned, what forbids it, and the case that is run for it.

use super::settings;
use crate::board::{Board, KeepIntact, rules};
use crate::finding::{Finding, any_blocking};
use crate::heat::case::Case;
use crate::heat::covered_joint::covered_joints;
use crate::heat::known::Knowledge;
use crate::heat::purpose::Purpose;
use crate::heat::recipe::Recipe;
use crate::heat::station::Station;
use crate::solder::{JointComposition, MeltTarget};
use crate::units::Temperature;
use crate::watch::{Cancelled, Watch};

/// What is to be planned.
#[derive(Debug, Clone, Copy)]
pub struct Order<'a> {
    /// The board.
    pub board: &'a Board,
    /// What its joints hold.
    pub composition: &'a JointComposition,
    /// The station.
    pub station: &'a Station,
    /// What is done with it.
    pub recipe: &'a Recipe,
    /// Ambient temperature.
    pub ambient: Temperature,
    /// What has been learnt of station, board, hand and place.
    pub known: &'a Knowledge,
    /// What for.
    pub purpose: Purpose,
    /// Is the part wanted alive (taken from a donor)? Then its body's limit binds.
    pub keep_intact: KeepIntact,
    /// How far it is, and whether it is still wanted.
    pub watch: &'a Watch,
}

/// Why there is no plan.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum Unplanned {
    /// The inputs can't be planned on.
    #[error("{} objections", .0.len())]
    Objections(Vec<Finding>),
    /// Nobody wants it any more.
    #[error(transparent)]
    Cancelled(#[from] Cancelled),
}

impl From<Vec<Finding>> for Unplanned {
    fn from(findings: Vec<Finding>) -> Self {
        Self::Objections(findings)
    }
}

impl Unplanned {
    /// The objections; none where it was cancelled.
    pub fn objections(self) -> Vec<Finding> {
        match self {
            Self::Objections(findings) => findings,
            Self::Cancelled(_) => Vec::new(),
        }
    }
}

impl<'a> Order<'a> {
    /// Must a part come through whole that is heated? A new one always.
    pub fn keeps_part(&self) -> bool {
        self.purpose.keeps_part() || (self.purpose == Purpose::Remove && self.keep_intact.part())
    }

    /// Must the board? A board that a new part goes on always.
    pub fn keeps_board(&self) -> bool {
        self.purpose.fits() || self.keep_intact.board()
    }

    /// What forbids to plan it; nothing is computed for that.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// let mut bench = bench;
    /// assert!(bench.order().refusals().is_empty());
    /// bench.recipe.air = None;
    /// assert_eq!(bench.order().refusals()[0].place, "settings", "nothing is hot");
    /// ```
    pub fn refusals(&self) -> Vec<Finding> {
        self.checked().err().unwrap_or_default()
    }

    /// What the rules have to say of its inputs; an error where that forbids to compute.
    pub(super) fn checked(&self) -> Result<Vec<Finding>, Vec<Finding>> {
        let mut findings = rules::check(self.board);
        findings.extend(settings::check(self.recipe, self.station, self.known, self.board));
        findings.extend(covered_joints(self.board, &self.recipe.shields));
        findings.extend(self.composition.check(self.board));
        if any_blocking(&findings) { Err(findings) } else { Ok(findings) }
    }

    /// What is run of it, with joints that melt at these.
    pub fn case(&self, melting: &'a [MeltTarget]) -> Case<'a> {
        let Self { board, station, recipe, ambient, known, purpose, watch, .. } = *self;
        Case { board, melting, station, recipe, purpose, ambient, known, thermocouples: &[], watch }
    }
}
