//! A recipe on another station: the settings there that give the part the same gas and the same transfer.

use super::order::Order;
use crate::finding::Finding;
use crate::heat::at_work::blowing;
use crate::heat::case::Case;
use crate::heat::known::Knowledge;
use crate::heat::parameters::ParameterSample;
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::units::{Flow, Temperature};

/// Flows and set temperatures that are tried of each nozzle.
const FLOWS: usize = 25;
const SETS: usize = 61;
/// What is further off than this, of the logarithm, the other station can't give: a twentieth is less than any jet is known to.
const SAME: f64 = 0.05;

/// What a jet gives the part: transfer, W/m²K, and the gas over ambient, K, both over its body.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct GivenHeat {
    /// W/m²K.
    pub transfer: f64,
    /// K.
    pub gas_k: f64,
}

impl GivenHeat {
    /// Of some air in a case, under the middle of what is believed of it.
    fn of(case: &Case<'_>, middle: &ParameterSample, air: &HotAir) -> Self {
        let (transfer, heat) = blowing(case, air, middle).over(&case.board.connector.body);
        Self { transfer, gas_k: heat / transfer.max(f64::MIN_POSITIVE) }
    }

    /// How far another is from this: logarithms of transfer and of gas.
    fn off(&self, other: &Self) -> [f64; 2] {
        [(other.transfer / self.transfer).ln(), (other.gas_k / self.gas_k).ln()]
    }
}

/// A recipe as another station has it. What comes of it there is for a plan to say.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Translated {
    /// Its settings there.
    pub air: HotAir,
    /// What the part gets, here and there.
    pub gives: [GivenHeat; 2],
}

impl Translated {
    /// The nearest settings of another station, with what is known of that one. None where no air blows.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// use mend_core::heat::known::Knowledge;
    /// use mend_core::planning::translated::Translated;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::units::Flow;
    /// let mut weaker = bench.station.clone();
    /// weaker.jet_scale *= 0.8;
    /// weaker.flow_range.1 = Flow::litres_per_minute(200.0);
    /// let found = Translated::try_new(&bench.order(), &weaker, &Knowledge::NOTHING).expect("computed").expect("air blows");
    /// assert!(found.is_same() && found.air.flow > bench.recipe.air.expect("hot air").flow, "more of a weaker jet");
    /// ```
    pub fn try_new(order: &Order<'_>, station: &Station, known: &Knowledge) -> Result<Option<Self>, Vec<Finding>> {
        let Some(air) = order.recipe.air else { return Ok(None) };
        let melting = order.composition.targets(order.board)?;
        let here = order.case(&melting);
        let there = Case { station, known, ..here };
        let wanted = GivenHeat::of(&here, &ParameterSample::middle(&here), &air);
        let middle = ParameterSample::middle(&there);
        let given = |air: HotAir| (GivenHeat::of(&there, &middle, &air), air);
        let far = |(given, _): &(GivenHeat, HotAir)| wanted.off(given).into_iter().fold(0.0, f64::hypot);
        let nearest = candidates(station, &air).into_iter().map(given).min_by(|a, b| far(a).total_cmp(&far(b)));
        Ok(nearest.map(|(given, air)| Self { air, gives: [wanted, given] }))
    }

    /// Does the part get the same there?
    pub fn is_same(&self) -> bool {
        self.gives[0].off(&self.gives[1]).iter().all(|off| off.abs() < SAME)
    }

    /// The heat that it gets there, against here: 0.8 is a fifth less.
    pub fn heat(&self) -> f64 {
        let [here, there] = self.gives.map(|given| given.transfer * given.gas_k);
        there / here
    }
}

/// Every nozzle of a station at even steps of its flow and its set temperature, held and moved as before.
fn candidates(station: &Station, air: &HotAir) -> Vec<HotAir> {
    let even = |(low, high): (f64, f64), k: usize, of: usize| low + (high - low) * k as f64 / (of - 1) as f64;
    let flows = (station.flow_range.0.in_litres_per_minute(), station.flow_range.1.in_litres_per_minute());
    let sets = (station.set_range.0.in_celsius(), station.set_range.1.in_celsius());
    let mut all = Vec::with_capacity(station.nozzles.len() * FLOWS * SETS);
    for nozzle in &station.nozzles {
        for flow in 0..FLOWS {
            for set in 0..SETS {
                let flow = Flow::litres_per_minute(even(flows, flow, FLOWS));
                let set = Temperature::celsius(even(sets, set, SETS).round());
                all.push(HotAir { nozzle: *nozzle, flow, set, ..*air });
            }
        }
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::heat::mesh::Resolution;
    use crate::heat::recipe::Recipe;
    use crate::heat::run::run;

    fn release(order: &Order<'_>) -> f64 {
        let melting = order.composition.targets(order.board).expect("computed");
        let case = order.case(&melting);
        run(&case, &ParameterSample::middle(&case), Resolution::COARSE).release.expect("it melts")
    }

    #[test]
    fn the_part_comes_away_as_soon_on_another_station() {
        let bench = Bench::try_new().expect("the example");
        let mut other = bench.station.clone();
        other.jet_scale *= 0.8;
        other.flow_range.1 = Flow::litres_per_minute(200.0);
        let found = Translated::try_new(&bench.order(), &other, &Knowledge::NOTHING).expect("computed");
        let recipe = Recipe { air: found.map(|found| found.air), ..bench.recipe.clone() };
        let there = Order { station: &other, recipe: &recipe, ..bench.order() };
        assert!((release(&there) / release(&bench.order())).ln().abs() < 0.1);
    }

    #[test]
    fn one_that_can_not_says_how_much_is_missing() {
        let bench = Bench::try_new().expect("the example");
        let mut weak = bench.station.clone();
        weak.jet_scale *= 0.4;
        weak.nozzles = vec![weak.widest_nozzle()];
        let found = Translated::try_new(&bench.order(), &weak, &Knowledge::NOTHING).expect("computed").expect("air");
        assert!(!found.is_same() && found.heat() < 0.8, "{}", found.heat());
    }
}
