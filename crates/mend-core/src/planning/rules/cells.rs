//! Lithium cells and displays near the heat: by their distance, whatever the run says of them.

use super::input::RuleInput;
use crate::finding::Finding;
use crate::finding::problem::PlanProblem;
use crate::materials::BodyMaterial;

/// Within this of the nozzle's way it comes out before heat, mm (E: a wand slips by less).
const NEAR_MM: f64 = 60.0;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let Some(air) = seen.air else { return Vec::new() };
    let delicate = |material| matches!(material, BodyMaterial::LithiumCell | BodyMaterial::Display);
    let near = seen.order.board.components.iter().filter(|n| delicate(n.material));
    let finding = near.filter_map(|n| {
        let away = air.nearest(n.body.centre) - n.body.width.min(n.body.depth) / 2.0;
        let (component, material) = (n.name.clone(), n.material.name().to_owned());
        let problem = PlanProblem::NearJet { component, material, mm: away.max(0.0) };
        (away < NEAR_MM).then(|| Finding::warning("cells", &n.name, problem))
    });
    finding.collect()
}
