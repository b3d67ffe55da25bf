//! Single changes of a recipe: settings, faces, tips and soaks, each within what the station gives. They are proposed
//! without knowing how the present plan does.

use super::change::Change;
use super::order::Order;
use crate::heat::iron::Iron;
use crate::heat::recipe::{HeatingAids, Recipe};
use crate::heat::tool::HotAir;
use crate::method::usual::{self, FROM_BELOW_MM};
use crate::units::{Flow, Length, Temperature};

/// As stout as tips are usually owned, mm (E).
const STOUT_TIP_MM: f64 = 6.0;

/// A change with the whole recipe that it leads to.
pub(super) type ProposedRecipe = (Change, Recipe);

/// All of them.
pub(super) fn single_changes(order: &Order<'_>) -> Vec<ProposedRecipe> {
    let mut moves = Vec::new();
    if let Some(air) = &order.recipe.air {
        moves.extend(settings(order, air));
        moves.extend(faces(order, air));
    } else if let Some(iron) = &order.recipe.during.iron {
        moves.extend(tips(order, iron));
    }
    moves.extend(soaks(order));
    moves
}

fn blown(order: &Order<'_>, what: Change, air: HotAir) -> ProposedRecipe {
    (what, Recipe { air: Some(air), ..order.recipe.clone() })
}

/// The air a little hotter, cooler, stronger, weaker; every other nozzle.
fn settings(order: &Order<'_>, air: &HotAir) -> Vec<ProposedRecipe> {
    let station = order.station;
    let changed = |what: Change, air: HotAir| blown(order, what, air);
    let (low, high) = station.set_range;
    let sets = [-40.0, -20.0, 20.0, 40.0].map(|by| Temperature::celsius(air.set.in_celsius() + by));
    let sets = sets.into_iter().filter(|set| (low..=high).contains(set));
    let sets = sets.map(|set| changed(Change::AirSet { set_c: set.in_celsius() }, HotAir { set, ..*air }));
    let (weak, strong) = station.flow_range;
    let flows = [0.6, 0.8, 1.25].map(|by| Flow::litres_per_minute((air.flow.in_litres_per_minute() * by).round()));
    let flows = flows.into_iter().filter(|flow| (weak..=strong).contains(flow));
    let flows = flows.map(|flow| changed(Change::Flow { lpm: flow.in_litres_per_minute() }, HotAir { flow, ..*air }));
    let nozzles = station.nozzles.iter().filter(|n| (n.in_mm() - air.nozzle.in_mm()).abs() > 0.05);
    let nozzles =
        nozzles.map(|nozzle| changed(Change::Nozzle { mm: nozzle.in_mm() }, HotAir { nozzle: *nozzle, ..*air }));
    sets.chain(flows).chain(nozzles).collect()
}

/// The same air on the other face; from below with the widest nozzle.
fn faces(order: &Order<'_>, air: &HotAir) -> Vec<ProposedRecipe> {
    let face = air.face.other();
    if face != order.board.hanging() {
        return vec![blown(order, Change::FromAbove { face }, HotAir { face, ..*air })];
    }
    let nozzle = usual::widest_nozzle(order.station, air);
    let strong = order.station.flow_range.1.in_litres_per_minute();
    let distance = Length::mm(FROM_BELOW_MM);
    let below = |flow: f64| HotAir { face, nozzle, distance, flow: Flow::litres_per_minute(flow.round()), ..*air };
    let what = |lpm: f64| Change::FromBelow { distance_mm: FROM_BELOW_MM, nozzle_mm: nozzle.in_mm(), lpm };
    let flow = |share: f64| (strong * share).max(air.flow.in_litres_per_minute()).round();
    [0.7, 1.0].map(|share| blown(order, what(flow(share)), below(flow(share)))).into_iter().collect()
}

/// The tip hotter, cooler, or as stout as they come.
fn tips(order: &Order<'_>, iron: &Iron) -> Vec<ProposedRecipe> {
    let changed = |what: Change, iron: Iron| {
        let during = HeatingAids { iron: Some(iron), ..order.recipe.during.clone() };
        (what, Recipe { during, ..order.recipe.clone() })
    };
    let sets = [-20.0, 20.0, 40.0].map(|by| Temperature::celsius(iron.set.in_celsius() + by));
    let sets = sets.map(|set| changed(Change::IronSet { set_c: set.in_celsius() }, Iron { set, ..iron.clone() }));
    let stout = Length::mm(STOUT_TIP_MM);
    let stouter = Iron { tip: stout, ..iron.clone() };
    let stouter = (iron.tip < stout && stouter.too_wide_for(order.board).is_none())
        .then(|| changed(Change::Tip { mm: STOUT_TIP_MM }, stouter));
    sets.into_iter().chain(stouter).collect()
}

/// A soak before: the bare nozzle from below, or a preheater that stays on.
fn soaks(order: &Order<'_>) -> Vec<ProposedRecipe> {
    let recipe = order.recipe;
    let during = HeatingAids { preheater: Some(usual::preheater(order.board)), ..recipe.during.clone() };
    let warm = usual::warm(HeatingAids { iron: None, ..during.clone() });
    let mut changes = Vec::new();
    if let Some(air) = recipe.air.filter(|_| recipe.preheat.is_empty()) {
        let soak = usual::soak(order.board, order.station, &air);
        let set = soak.air.map_or(0.0, |air| air.set.in_celsius());
        let what = Change::Soak { s: soak.lasts.in_seconds(), set_c: set };
        changes.push((what, Recipe { preheat: vec![soak], ..recipe.clone() }));
    }
    if recipe.preheat.is_empty() && recipe.during.preheater.is_none() {
        let set_c = during.preheater.map_or(0.0, |preheater| preheater.set.in_celsius());
        let what = Change::Preheater { set_c, ahead_s: warm.lasts.in_seconds() };
        changes.push((what, Recipe { preheat: vec![warm], during, ..recipe.clone() }));
    }
    changes
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;

    #[test]
    fn single_changes_stay_within_what_the_station_gives() {
        let bench = Bench::try_new().expect("the example");
        let offered = single_changes(&bench.order());
        let (low, high) = bench.station.set_range;
        assert!(offered.iter().flat_map(|(_, recipe)| recipe.airs()).all(|air| (low..=high).contains(&air.set)));
        assert!(offered.iter().any(|(what, _)| matches!(what, Change::FromAbove { .. })));
        assert!(offered.iter().any(|(what, _)| matches!(what, Change::Soak { .. })));
    }
}
