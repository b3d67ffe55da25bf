//! Two bodies in one place on one face. A can over lower parts is none; what lies inside the part is asked about by
//! `faces_mixed_up`.

use crate::board::{Board, Component, Rect};
use crate::finding::Finding;
use crate::finding::problem::BoardProblem;
use crate::materials::BodyMaterial;

/// Share of the smaller one that may lie in the other: drawn by hand, measured by eye.
const SLACK: f64 = 0.1;

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let all = &board.components;
    let object = |(k, component): (usize, &Component)| {
        let others = all[..k].iter().filter(|o| o.face == component.face && !covered(o, component));
        let under = others.filter(|o| overlap(&o.covers(), &component.covers()));
        let components: Vec<String> = under.map(|o| o.name.clone()).collect();
        let part = component.face == board.connector.face && beside(board, component);
        let place = format!("component {}", component.name);
        let found = part || !components.is_empty();
        found.then(|| Finding::warning("overlapping_bodies", place, BoardProblem::Overlaps { part, components }))
    };
    all.iter().enumerate().filter_map(object).collect()
}

/// Half in, half out of the part.
fn beside(board: &Board, component: &Component) -> bool {
    let (body, own) = (&board.connector.body, component.covers());
    overlap(body, &own) && !super::faces_mixed_up::is_inside(body, &own)
}

fn overlap(a: &Rect, b: &Rect) -> bool {
    a.shared(b) > SLACK * a.area().min(b.area())
}

/// One is a can or a foil that lies over the other.
fn covered(a: &Component, b: &Component) -> bool {
    let covers =
        |n: &Component| matches!(n.material, BodyMaterial::Metal | BodyMaterial::AcrylicFoam | BodyMaterial::Pvc);
    covers(a) || covers(b)
}
