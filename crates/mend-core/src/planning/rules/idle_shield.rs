//! A shield on a face that no air meets: it keeps the heat in.

use super::input::RuleInput;
use crate::finding::Finding;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let recipe = seen.order.recipe;
    let faces: Vec<_> = recipe.airs().map(|air| air.face).collect();
    let idle = recipe.shields.iter().enumerate().filter(|(_, s)| s.block().is_none() && !faces.contains(&s.face));
    let finding = idle.map(|(k, shield)| {
        let message = format!("{} on the {} face, where no air comes", shield.kind.name(), shield.face.name());
        let warn = Finding::warning("idle_shield", format!("shields[{k}]"), message);
        warn.hint("there it only keeps heat in: take it off, or lay a copper block on what it covers")
    });
    finding.collect()
}
