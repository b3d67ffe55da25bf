//! What a job uses up: expected of its plan, and as its ledger has it.

use serde::Serialize;

use super::bench_time::passes;
use super::ledger::Ledger;
use super::plan::Plan;
use crate::board::{Board, JointGroup, groups};
use crate::heat::shield::ShieldKind;
use crate::solder::{JointComposition, amount};

/// Something that is used up.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "use", rename_all = "kebab-case")]
pub enum Use {
    /// Solder wire.
    Alloy { mm: f64, name: String },
    /// Braid.
    Braid { cm: f64 },
    /// A shield and its area.
    Shield { shield: ShieldKind, cm2: f64 },
}

/// Braid that a pass draws up at a pad and at a hole, mm of 2 mm braid (E).
const BRAID_MM: [f64; 2] = [8.0, 25.0];

fn braid_mm(group: &JointGroup) -> f64 {
    group.joints.len() as f64 * BRAID_MM[usize::from(group.holes)]
}

fn fed_mm(composition: &JointComposition, group: &JointGroup) -> f64 {
    amount(composition, group).map_or(0.0, |amount| amount.length_mm * group.joints.len() as f64)
}

/// What a plan expects to use: wire, braid by flood-and-wick passes, shields.
pub(crate) fn expected_use(board: &Board, (composition, plan): (&JointComposition, &Plan)) -> Vec<Use> {
    let groups = groups(board);
    let mut uses = Vec::new();
    if let Some(feed) = composition.fed() {
        let mm = groups.iter().map(|group| fed_mm(composition, group)).sum();
        uses.push(Use::Alloy { mm, name: feed.metal.name.clone() });
    }
    let per_pass: f64 = groups.iter().map(braid_mm).sum();
    let braid = per_pass * passes(board, composition).unwrap_or(8).max(1) as f64;
    uses.push(Use::Braid { cm: braid / 10.0 });
    let shields = plan.recipe.shields.iter().map(|shield| {
        let cm2 = (shield.width_mm * shield.depth_mm / 100.0).max(1.0);
        Use::Shield { shield: shield.kind, cm2 }
    });
    uses.extend(shields);
    uses
}

/// What was used by what was entered at the bench: wire by each feed of a row, braid by each of its passes. What nobody entered was
/// not used.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::planning::ledger::Ledger;
/// use mend_core::planning::used_up::actual_use;
/// let bench = Bench::try_new().expect("the example");
/// let nothing = Ledger { groups: vec![], reason: None };
/// assert!(actual_use(&bench.board, &bench.composition, &nothing).is_empty());
/// ```
pub fn actual_use(board: &Board, composition: &JointComposition, ledger: &Ledger) -> Vec<Use> {
    let (mut fed, mut braid) = (0.0, 0.0);
    for group in groups(board) {
        let Some(entered) = ledger.groups.iter().find(|state| state.name == group.name) else { continue };
        fed += fed_mm(composition, &group) * entered.feeds as f64;
        braid += braid_mm(&group) * entered.passes as f64;
    }
    let wire =
        composition.fed().filter(|_| fed > 0.0).map(|feed| Use::Alloy { mm: fed, name: feed.metal.name.clone() });
    let braid = (braid > 0.0).then_some(Use::Braid { cm: braid / 10.0 });
    wire.into_iter().chain(braid).collect()
}

#[cfg(test)]
mod tests {
    use super::super::ledger::GroupState;
    use super::*;
    use crate::example::Bench;

    #[test]
    fn twice_the_passes_use_twice_the_braid() {
        let bench = Bench::try_new().expect("the example");
        let row = groups(&bench.board)[0].name.clone();
        let ledger = |passes: usize| {
            let state = GroupState { name: row.clone(), feeds: 0, passes, holds: vec![], flags: vec![], clean: false };
            Ledger { groups: vec![state], reason: None }
        };
        let braid = |passes: usize| match actual_use(&bench.board, &bench.composition, &ledger(passes))[..] {
            [Use::Braid { cm }] => cm,
            ref other => panic!("{other:?}"),
        };
        assert!(braid(1) > 0.0 && (braid(2) - 2.0 * braid(1)).abs() < 1e-9);
    }
}
