//! What a plan expects to use up.

use super::{FLUX_OF_A_PASS, Use, alcohol_ml, braid_mm, fed_mm, flux_ml, shields};
use crate::board::{Board, JointGroup, KeepIntact, groups};
use crate::planning::bench_time::passes;
use crate::planning::plan::Plan;
use crate::solder::JointComposition;

/// Where nobody knows how many passes get the feed out, it is taken for so many.
const MOST_PASSES: usize = 8;
/// Cleanings of a board: its pads once the part is off, and everything at the end. A donor's part is cleaned once.
const CLEANINGS: [f64; 2] = [1.0, 2.0];

/// A job that is planned.
#[derive(Debug, Clone, Copy)]
pub struct PlannedUse<'a> {
    /// The board.
    pub board: &'a Board,
    /// What its joints hold and are fed.
    pub composition: &'a JointComposition,
    /// The plan.
    pub plan: &'a Plan,
    /// What is kept intact.
    pub keep_intact: KeepIntact,
}

impl PlannedUse<'_> {
    /// Wire, braid and flux by flood-and-wick passes, shields, alcohol, and the nozzle's time in the air.
    ///
    /// ```
    /// use mend_core::board::KeepIntact;
    /// use mend_core::example::Bench;
    /// use mend_core::planning::make_plan::plan;
    /// use mend_core::planning::used_up::{Use, expected::PlannedUse};
    /// let bench = Bench::try_new().expect("the example");
    /// let plan = plan(&bench.order()).expect("it can be computed");
    /// let keep_intact = KeepIntact::Board;
    /// let uses = PlannedUse { board: &bench.board, composition: &bench.composition, plan: &plan, keep_intact }.uses();
    /// assert!(uses.iter().any(|used| matches!(used, Use::Flux { ml } if (0.01..5.0).contains(ml))));
    /// ```
    pub fn uses(&self) -> Vec<Use> {
        let rows = groups(self.board);
        let together = |of: fn(&JointGroup) -> f64| rows.iter().map(of).sum::<f64>();
        let cleaned = self.keep_intact.board();
        let passes = match cleaned {
            true => passes(self.board, self.composition).unwrap_or(MOST_PASSES).max(1) as f64,
            false => 0.0,
        };
        let wire = self.composition.fed().map(|feed| Use::Alloy {
            mm: rows.iter().map(|row| fed_mm(self.composition, row)).sum(),
            name: feed.metal.name.clone(),
        });
        let braid = (passes > 0.0).then(|| Use::Braid { cm: together(braid_mm) * passes / 10.0 });
        let flux = Use::Flux { ml: together(flux_ml) * (1.0 + FLUX_OF_A_PASS * passes) };
        let alcohol = Use::Alcohol { ml: alcohol_ml(self.board) * CLEANINGS[usize::from(cleaned)] };
        let uses = wire.into_iter().chain(braid).chain([flux]);
        uses.chain(shields(&self.plan.recipe.shields)).chain([alcohol]).chain(self.nozzle()).collect()
    }

    /// Until the part is off, by the middle of the band.
    fn nozzle(&self) -> Option<Use> {
        let (air, seconds) = (self.plan.recipe.air.as_ref()?, self.plan.release.mid_s?);
        Some(Use::Nozzle { width_mm: air.nozzle.in_mm(), hours: seconds / 3600.0 })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::planning::make_plan::plan_alone;

    #[test]
    fn on_a_donors_board_nothing_is_wicked_and_the_part_is_cleaned_once() {
        let bench = Bench::try_new().expect("the example");
        let plan = plan_alone(&bench.order()).expect("it can be computed");
        let of = |keep_intact| {
            PlannedUse { board: &bench.board, composition: &bench.composition, plan: &plan, keep_intact }.uses()
        };
        let alcohol =
            |uses: &[Use]| uses.iter().find_map(|used| if let Use::Alcohol { ml } = used { Some(*ml) } else { None });
        let (board, part) = (of(KeepIntact::Board), of(KeepIntact::Part));
        let braid = |uses: &[Use]| uses.iter().any(|used| matches!(used, Use::Braid { .. }));
        assert!(braid(&board) && !braid(&part));
        assert_eq!(alcohol(&board), alcohol(&part).map(|ml| 2.0 * ml));
    }
}
