//! A name that is there twice: a finding or a mark would not say which is meant.

use std::collections::BTreeSet;

use crate::board::Board;
use crate::finding::Finding;
use crate::finding::problem::{BoardProblem, Named};

pub(super) fn check(board: &Board) -> Vec<Finding> {
    let joints = board.connector.joints.iter().map(|joint| joint.name.as_str());
    let components = board.components.iter().map(|n| n.name.as_str());
    [twice(Named::Joint, joints), twice(Named::Component, components)].concat()
}

fn twice<'a>(what: Named, names: impl Iterator<Item = &'a str>) -> Vec<Finding> {
    let mut seen = BTreeSet::new();
    let again: BTreeSet<&str> = names.filter(|name| !seen.insert(*name)).collect();
    let kind = match what {
        Named::Joint => "joint",
        Named::Component => "component",
    };
    let object =
        |name: &str| Finding::blocking("same_name", format!("{kind} {name}"), BoardProblem::NameTwice { what });
    again.into_iter().map(object).collect()
}
