//! A microphone or sensor whose port the jet blows into.

use super::input::RuleInput;
use crate::finding::Finding;
use crate::finding::problem::PlanProblem;
use crate::heat::draught::dynamic_pressure;
use crate::materials::BodyMaterial;

/// Pressure into a port that is still taken for none, Pa (E: a loud room is 1 Pa, a breath 50).
const STILL_PA: f64 = 50.0;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let Some(air) = seen.air else { return Vec::new() };
    let shields = &seen.order.recipe.shields;
    let open = seen.order.board.components.iter().filter(|n| {
        let covered = shields.iter().any(|s| s.face == n.face && s.area().covers(n.body.centre));
        n.material == BodyMaterial::MemsMicrophone && n.face == air.face && !covered
    });
    let finding = open.filter_map(|n| {
        let pressure = dynamic_pressure(&air.jet, air.nearest(n.body.centre) * 1e-3);
        let problem = PlanProblem::BlownInto { component: n.name.clone(), pa: pressure };
        (pressure > STILL_PA).then(|| Finding::warning("jet_port", &n.name, problem))
    });
    finding.collect()
}
