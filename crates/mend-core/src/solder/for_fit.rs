//! What the joints hold when the new part is soldered: what cleaning leaves of the old metal, and the refit alloy.

use super::finished_joint::FinishedJoints;
use super::joint_composition::JointComposition;
use super::residue::cleaned;
use crate::board::{Board, groups};

impl JointComposition {
    /// The same joints once they are cleaned as planned and hold the refit alloy: what a new part is fitted with. The factory's
    /// alloy stays what the rest of the board is soldered with.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// let fitted = bench.composition.for_fit(&bench.board);
    /// assert!(fitted.feed.is_none() && !fitted.finished.is_empty());
    /// assert!(fitted.targets(&bench.board).is_ok());
    /// ```
    pub fn for_fit(&self, board: &Board) -> Self {
        let refit = self.refit.composition;
        let joints = groups(board).into_iter().map(|group| {
            let (residue, _) = cleaned(self, &group);
            FinishedJoints { metals: residue.finished(&refit), row: group.name }
        });
        Self { feed: None, finished: joints.collect(), ..self.clone() }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::materials::{Element, Metal};
    use crate::solder::{Feed, Wire};

    #[test]
    fn braid_leaves_a_little_of_what_was_fed_and_the_refit_alloy_is_most_of_the_joint() {
        let bench = Bench::try_new().expect("the example");
        let metal = Metal::parse("feed", "Sn42Bi58").expect("in the table");
        let rows = vec!["anchors".to_owned()];
        let feed = Some(Feed { metal, wire: Wire::USUAL, mixing_fraction: 0.4, rows });
        let fed = JointComposition { feed, ..bench.composition.clone() };
        let bismuth = |composition: &JointComposition| {
            let fitted = composition.for_fit(&bench.board);
            let anchors = fitted.finished.into_iter().find(|joints| joints.row == "anchors").expect("its row");
            anchors.metals.map(|metal| metal.wt(Element::Bi))
        };
        let [good, usual, poor] = bismuth(&fed);
        assert!(good <= usual && usual <= poor && usual > 0.0 && poor < 15.0, "{good} {usual} {poor}");
        assert_eq!(bismuth(&bench.composition), [0.0; 3]);
    }
}
