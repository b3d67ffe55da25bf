//! What can't be fed, and why.

use super::amount::amount;
use super::joint_composition::{JointComposition, MOST_SHARE};
use super::melt_curve::liquidus;
use crate::board::{Board, groups};
use crate::finding::Finding;

impl JointComposition {
    /// Objections to what can't be done.
    pub fn check(&self, board: &Board) -> Vec<Finding> {
        let Some(feed) = &self.feed else { return Vec::new() };
        let mut found = feed.wire.check();
        if !(0.0..=MOST_SHARE).contains(&feed.share) {
            let message = format!("a share of {} can't be fed", feed.share);
            found.push(Finding::blocking("charge", "share", message).hint("between 0 and 0.95 of a joint's metal"));
        }
        for row in &feed.rows {
            if board.connector.joints.iter().all(|joint| joint.row != *row) {
                let hint = "name rows as the board does";
                found.push(Finding::blocking("charge", "rows", format!("“{row}” is no row here")).hint(hint));
            }
        }
        // An amount can only be reckoned of a wire and a share that can be.
        let groups = if found.is_empty() { groups(board) } else { Vec::new() };
        for group in groups.iter().filter(|group| self.feeds(group).is_some() && amount(self, group).is_none()) {
            let what = format!("{:.0} % of {}", feed.share * 100.0, feed.metal.name);
            let object = Finding::blocking("charge", "share", format!("{what} is more than {} can take", group.name));
            found.push(object.hint("feed less, or clear these joints first"));
        }
        if liquidus(&feed.metal.composition).is_none() {
            let message = format!("where {} melts could not be computed", feed.metal.name);
            found.push(Finding::blocking("charge", "feed", message).hint("take another alloy"));
        }
        found
    }
}
