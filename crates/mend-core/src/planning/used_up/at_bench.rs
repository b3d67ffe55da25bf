//! What was used up by what was done at the bench.

use super::{FLUX_OF_A_PASS, Use, alcohol_ml, braid_mm, fed_mm, flux_ml, shields};
use crate::board::{Board, groups};
use crate::heat::recipe::Recipe;
use crate::planning::bench_run::BenchRun;
use crate::planning::ledger::Ledger;
use crate::planning::sequence::step::Step;
use crate::planning::sequence::task::Task;
use crate::solder::JointComposition;

/// A bench run with what it was run by.
#[derive(Debug, Clone, Copy)]
pub struct BenchUse<'a> {
    /// The board.
    pub board: &'a Board,
    /// What its joints hold and are fed.
    pub composition: &'a JointComposition,
    /// The plan's recipe.
    pub recipe: &'a Recipe,
    /// Its steps.
    pub steps: &'a [Step],
    /// Where they have led.
    pub run: &'a BenchRun,
    /// What was entered of each row.
    pub ledger: &'a Ledger,
}

impl BenchUse<'_> {
    /// Wire by each feed of a row, braid and flux by each of its passes; a coat of flux, the shields and the alcohol by the
    /// steps that are done; the nozzle by how long the air was on. What nobody entered was not used.
    pub fn uses(&self) -> Vec<Use> {
        let (mut fed, mut braid, mut flux) = (0.0, 0.0, 0.0);
        let coats = self.done(|task| matches!(task, Task::Flux)) as f64;
        for row in groups(self.board) {
            let entered = self.ledger.groups.iter().find(|state| state.name == row.name);
            let (feeds, passes) = entered.map_or((0.0, 0.0), |state| (state.feeds as f64, state.passes as f64));
            fed += fed_mm(self.composition, &row) * feeds;
            braid += braid_mm(&row) * passes;
            flux += flux_ml(&row) * (coats + FLUX_OF_A_PASS * passes);
        }
        let wire = self.composition.fed().filter(|_| fed > 0.0);
        let wire = wire.map(|feed| Use::Alloy { mm: fed, name: feed.metal.name.clone() });
        let braid = (braid > 0.0).then_some(Use::Braid { cm: braid / 10.0 });
        let flux = (flux > 0.0).then_some(Use::Flux { ml: flux });
        let uses = wire.into_iter().chain(braid).chain(flux);
        uses.chain(self.shields()).chain(self.alcohol()).chain(self.nozzle()).collect()
    }

    /// How many of the steps that are done are of this kind.
    fn done(&self, is: fn(&Task) -> bool) -> usize {
        self.steps.iter().take(self.run.at).filter_map(Step::task).filter(|task| is(task)).count()
    }

    fn shields(&self) -> impl Iterator<Item = Use> {
        let laid = self.done(|task| matches!(task, Task::Protect | Task::ProtectPart)) > 0;
        shields(if laid { &self.recipe.shields } else { &[] })
    }

    fn alcohol(&self) -> Option<Use> {
        let cleanings =
            self.done(|task| matches!(task, Task::CleanPads | Task::Clean | Task::CleanAll | Task::CleanPart));
        (cleanings > 0).then(|| Use::Alcohol { ml: alcohol_ml(self.board) * cleanings as f64 })
    }

    fn nozzle(&self) -> Option<Use> {
        let air = self.recipe.air.as_ref().filter(|_| self.run.air_on_ms > 0)?;
        Some(Use::Nozzle { width_mm: air.nozzle.in_mm(), hours: self.run.air_on_ms as f64 / 3_600_000.0 })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::planning::bench_event::{Event, Happening};
    use crate::planning::ledger::GroupState;
    use crate::planning::make_plan::plan_alone;
    use crate::planning::plan::Plan;
    use crate::planning::sequence::{script::Script, sequence};

    struct Shop {
        bench: Bench,
        plan: Plan,
        steps: Vec<Step>,
    }

    impl Shop {
        fn new() -> Self {
            let bench = Bench::try_new().expect("the example");
            let plan = plan_alone(&bench.order()).expect("it can be computed");
            let steps = sequence(&Script::plain(&bench.board, &plan, &bench.composition));
            Self { bench, plan, steps }
        }

        /// Used after so many presses, four seconds from each to the next, and passes over the first row.
        fn used(&self, presses: i64, passes: usize) -> Vec<Use> {
            let events: Vec<Event> = (1..=presses).map(|k| Event { what: Happening::Go, at_ms: 4000 * k }).collect();
            let name = groups(&self.bench.board)[0].name.clone();
            let row = GroupState { name, feeds: 0, passes, holds: vec![], flags: vec![], clean: false };
            let ledger = Ledger { groups: vec![row], reason: None };
            let run = BenchRun::after(&self.steps, &events);
            let (board, composition) = (&self.bench.board, &self.bench.composition);
            let recipe = &self.plan.recipe;
            BenchUse { board, composition, recipe, steps: &self.steps, run: &run, ledger: &ledger }.uses()
        }
    }

    fn of(uses: &[Use], amount: fn(&Use) -> Option<f64>) -> f64 {
        uses.iter().filter_map(amount).sum()
    }

    #[test]
    fn twice_the_passes_use_twice_the_braid_and_what_nobody_did_used_nothing() {
        let shop = Shop::new();
        assert!(shop.used(0, 0).is_empty());
        let braid =
            |passes| of(&shop.used(0, passes), |used| if let Use::Braid { cm } = used { Some(*cm) } else { None });
        assert!(braid(1) > 0.0 && (braid(2) - 2.0 * braid(1)).abs() < 1e-9);
    }

    #[test]
    fn flux_alcohol_and_the_nozzles_hours_come_with_their_steps() {
        let shop = Shop::new();
        let flux = |used: &Use| if let Use::Flux { ml } = used { Some(*ml) } else { None };
        let alcohol = |used: &Use| if let Use::Alcohol { ml } = used { Some(*ml) } else { None };
        let hours = |used: &Use| if let Use::Nozzle { hours, .. } = used { Some(*hours) } else { None };
        let begun = shop.used(3, 0);
        assert!(of(&begun, flux) > 0.0 && of(&begun, alcohol) == 0.0 && of(&begun, hours) == 0.0);
        let done = shop.used(40, 0);
        assert_eq!(of(&done, flux), of(&begun, flux), "one coat");
        assert!(of(&done, alcohol) > 0.0);
        // The removal's air and the fit's were on for a press each.
        assert!((of(&done, hours) - 8.0 / 3600.0).abs() < 1e-9, "{}", of(&done, hours));
    }
}
