//! A shield on a face that no air meets: it keeps the heat in.

use super::Seen;
use crate::finding::Finding;

pub(super) fn said(seen: &Seen<'_>) -> Vec<Finding> {
    let recipe = seen.order.recipe;
    let faces: Vec<_> = recipe.airs().map(|air| air.face).collect();
    let idle = recipe.shields.iter().enumerate().filter(|(_, s)| s.block().is_none() && !faces.contains(&s.face));
    let said = idle.map(|(k, shield)| {
        let message = format!("{} on the {} face, where no air comes", shield.kind.name(), shield.face.name());
        let warn = Finding::warning("idle_shield", format!("shields[{k}]"), message);
        warn.hint("there it only keeps heat in: take it off, or lay a copper block on what it covers")
    });
    said.collect()
}
