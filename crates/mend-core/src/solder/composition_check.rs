//! What can't be fed, and why.

use super::amount::amount;
use super::joint_composition::{JointComposition, MOST_MIXING_FRACTION};
use super::melt_curve::liquidus;
use crate::board::{Board, groups};
use crate::finding::Finding;
use crate::finding::problem::{AlloyProblem, ValueProblem};

const RULE: &str = "composition_check";

impl JointComposition {
    /// Objections to what can't be done.
    pub fn check(&self, board: &Board) -> Vec<Finding> {
        let Some(feed) = &self.feed else { return Vec::new() };
        let mut found = feed.wire.check();
        if !(0.0..=MOST_MIXING_FRACTION).contains(&feed.mixing_fraction) {
            let problem = AlloyProblem::FeedShare { share: feed.mixing_fraction, most: MOST_MIXING_FRACTION };
            found.push(Finding::blocking(RULE, "share", problem));
        }
        for row in &feed.rows {
            if board.connector.joints.iter().all(|joint| joint.row != *row) {
                found.push(Finding::blocking(RULE, "rows", ValueProblem::NoSuchRow { row: row.clone() }));
            }
        }
        // An amount can only be reckoned of a wire and a share that can be.
        let groups = if found.is_empty() { groups(board) } else { Vec::new() };
        for group in groups.iter().filter(|group| self.feeds(group).is_some() && amount(self, group).is_none()) {
            let (alloy, row) = (feed.metal.name.clone(), group.name.clone());
            let problem = AlloyProblem::TooMuchFed { percent: feed.mixing_fraction * 100.0, alloy, row };
            found.push(Finding::blocking(RULE, "share", problem));
        }
        if liquidus(&feed.metal.composition).is_none() {
            let problem = AlloyProblem::FeedNotComputed { alloy: feed.metal.name.clone() };
            found.push(Finding::blocking(RULE, "feed", problem));
        }
        found
    }
}
