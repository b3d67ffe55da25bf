//! What the joints hold: the factory's metal, and what is fed to some of them before heat. From it, what each melts at.

use super::finished_joint::FinishedJoints;
use super::melt_target::MeltTarget;
use super::wire::Wire;
use crate::board::{Board, JointGroup, groups};
use crate::finding::Finding;
use crate::finding::problem::AlloyProblem;
use crate::materials::{Composition, Metal};

/// Fed metal is this fraction of a joint at the most: beyond it there is nothing left of the joint.
pub const MOST_MIXING_FRACTION: f64 = 0.95;

/// What is fed.
#[derive(Debug, Clone, PartialEq)]
pub struct Feed {
    /// The alloy.
    pub metal: Metal,
    /// As which wire.
    pub wire: Wire,
    /// Mass fraction of it in a joint, 0-0.95.
    pub mixing_fraction: f64,
    /// Rows that get it.
    pub rows: Vec<String>,
}

/// What the joints of a job hold.
#[derive(Debug, Clone, PartialEq)]
pub struct JointComposition {
    /// The factory's metal.
    pub factory: Metal,
    /// What is fed before heat.
    pub feed: Option<Feed>,
    /// What the new part is soldered with.
    pub refit: Metal,
    /// What the joints hold with the new part on them; empty while they hold the old one.
    pub finished: Vec<FinishedJoints>,
}

/// How much of what was fed has mixed in: the least, the usual, the most. The dry rest lies on top. Engineering
/// estimate; a hole mixes worse than a pad, as its far end is out of the tip's reach.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mixing(pub [f64; 3]);

impl Mixing {
    /// Of a group of joints.
    pub const fn for_group(group: &JointGroup) -> Self {
        Self(if group.holes { [0.5, 0.7, 0.9] } else { [0.6, 0.8, 1.0] })
    }
}

impl JointComposition {
    /// Nothing fed, and the same metal again for the new part.
    pub fn factory(metal: Metal) -> Self {
        Self { refit: metal.clone(), factory: metal, feed: None, finished: Vec::new() }
    }

    /// Is there lead in anything that comes to these joints, or leaves them?
    pub fn has_lead(&self) -> bool {
        self.factory.has_lead() || self.refit.has_lead() || self.fed().is_some_and(|feed| feed.metal.has_lead())
    }

    /// What is really fed: some of it, to some joints.
    pub fn fed(&self) -> Option<&Feed> {
        self.feed.as_ref().filter(|feed| feed.mixing_fraction > 0.0 && !feed.rows.is_empty())
    }

    /// Does this group get the feed?
    pub fn feeds(&self, group: &JointGroup) -> Option<&Feed> {
        self.fed().filter(|feed| feed.rows.contains(&group.name))
    }

    /// A group's metal when `mixing` of what was fed has mixed in.
    pub fn mix(&self, group: &JointGroup, mixing: f64) -> Composition {
        let factory = self.factory.composition;
        let Some(feed) = self.feeds(group) else { return factory };
        let parts = [(factory, 1.0 - feed.mixing_fraction), (feed.metal.composition, feed.mixing_fraction * mixing)];
        Composition::mixed(&parts).unwrap_or(factory)
    }

    /// Where a group melts.
    pub fn target(&self, group: &JointGroup) -> Option<MeltTarget> {
        let finished = self.finished.iter().find(|joints| joints.row == group.name);
        let target = match (finished, self.feeds(group)) {
            (Some(joints), _) => MeltTarget::from_mixes(joints.metals),
            (None, None) => MeltTarget::from_metal(&self.factory),
            (None, Some(_)) => MeltTarget::from_mixes(Mixing::for_group(group).0.map(|mixing| self.mix(group, mixing))),
        };
        target.map(|target| target.of_hole(group.holes))
    }

    /// Where every joint of a board melts, in the connector's order; an objection where that can't be computed.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// let targets = bench.composition.targets(&bench.board).expect("computed");
    /// assert_eq!(targets.len(), bench.board.connector.joints.len());
    /// assert!((targets[0].melted.in_celsius() - 219.0).abs() < 3.0, "SAC305");
    /// ```
    pub fn targets(&self, board: &Board) -> Result<Vec<MeltTarget>, Vec<Finding>> {
        let groups = groups(board);
        let mut targets = vec![None; board.connector.joints.len()];
        for group in &groups {
            let target = self.target(group).ok_or_else(|| {
                let problem = AlloyProblem::RowNotComputed { row: group.name.clone() };
                vec![Finding::blocking("composition_check", "alloy", problem)]
            })?;
            group.joints.iter().for_each(|k| targets[*k] = Some(target));
        }
        Ok(targets.into_iter().flatten().collect())
    }
}
