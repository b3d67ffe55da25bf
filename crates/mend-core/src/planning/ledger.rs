//! The cleaning ledger: what was fed, flooded and wicked at the bench, folded into what each group of joints still holds.

use crate::board::JointGroup;
use crate::finding::Finding;
use crate::materials::{Composition, Element};
use crate::solder::{JointComposition, Residue, amount};

/// What was done.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LedgerAct {
    /// The planned amount of the planned alloy.
    Fed,
    /// Fresh alloy of the kind that the new part is soldered with, up to what a joint holds.
    Flooded,
    /// One pass of braid.
    Wicked,
    /// Going on against the arithmetic, with a reason.
    Overridden,
}

impl LedgerAct {
    /// As it is stored.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Fed => "fed",
            Self::Flooded => "flooded",
            Self::Wicked => "wicked",
            Self::Overridden => "overridden",
        }
    }

    /// Read back.
    pub fn named(name: &str) -> Option<Self> {
        [Self::Fed, Self::Flooded, Self::Wicked, Self::Overridden].into_iter().find(|act| act.name() == name)
    }
}

/// An entry, in order of time.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Entry {
    /// What was done.
    pub act: LedgerAct,
    /// To which row; empty: to all.
    pub row: String,
    /// Why, where the arithmetic says no.
    pub reason: String,
}

/// What a group still holds.
#[derive(Debug, Clone, PartialEq)]
pub struct GroupState {
    /// The row.
    pub name: String,
    /// Feeds that were entered.
    pub feeds: usize,
    /// Passes of braid so far.
    pub passes: usize,
    /// The elements that matter with their range in the finished joint, wt%.
    pub holds: Vec<(Element, f64, f64)>,
    /// What is wrong with the finished joint if every pass was a poor one.
    pub flags: Vec<Finding>,
    /// May it be fitted? What was fed has come out at least once, and what is left is within limits.
    pub clean: bool,
}

/// The ledger.
#[derive(Debug, Clone, PartialEq)]
pub struct Ledger {
    /// Each group.
    pub groups: Vec<GroupState>,
    /// Why one goes on all the same.
    pub reason: Option<String>,
}

impl Ledger {
    /// After these entries. Whoever feeds and does not say so has fed as planned: the first feed counts without a tap.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::board::groups;
    /// use mend_core::planning::ledger::Ledger;
    /// let ledger = Ledger::after(&bench.composition, &groups(&bench.board), &[]);
    /// assert!(ledger.is_open(), "nothing was fed, so nothing has to come out");
    /// ```
    pub fn after(composition: &JointComposition, groups: &[JointGroup], entries: &[Entry]) -> Self {
        let reason = entries.iter().rev().find(|e| e.act == LedgerAct::Overridden).map(|e| e.reason.clone());
        let state = |group: &JointGroup| group_state(composition, group, entries);
        Self { groups: groups.iter().map(state).collect(), reason }
    }

    /// May the new part be fitted?
    pub fn is_open(&self) -> bool {
        self.reason.is_some() || self.groups.iter().all(|group| group.clean)
    }
}

fn group_state(composition: &JointComposition, group: &JointGroup, entries: &[Entry]) -> GroupState {
    let refit = &composition.refit.composition;
    let own = || entries.iter().filter(|e| e.row.is_empty() || e.row == group.name);
    let planned = composition.feeds(group).zip(amount(composition, group));
    let mut residue = Residue::from_group(composition, group);
    let feed = |residue: &mut Residue| {
        if let Some((feed, amount)) = planned {
            residue.fed(&feed.metal.composition, amount.mass_mg);
        }
    };
    if own().all(|e| e.act != LedgerAct::Fed) {
        feed(&mut residue);
    }
    for entry in own() {
        match entry.act {
            LedgerAct::Fed => feed(&mut residue),
            LedgerAct::Flooded => residue.flooded(refit),
            LedgerAct::Wicked => residue.wicked(),
            LedgerAct::Overridden => {}
        }
    }
    let passes = own().filter(|e| e.act == LedgerAct::Wicked).count();
    GroupState {
        name: group.name.clone(),
        feeds: own().filter(|e| e.act == LedgerAct::Fed && planned.is_some()).count(),
        passes,
        clean: planned.is_none() || (passes > 0 && residue.is_clean(refit)),
        holds: holds(&residue, refit),
        flags: residue.flags(refit),
    }
}

/// Bismuth, indium and lead, where there is any of them that the final alloy does not bring.
fn holds(residue: &Residue, refit: &Composition) -> Vec<(Element, f64, f64)> {
    let of = |element: Element| {
        let (low, high) = residue.range(refit, element);
        (high > 0.05 && high > refit.wt(element) + 0.05).then_some((element, low, high))
    };
    [Element::Bi, Element::In, Element::Pb].into_iter().filter_map(of).collect()
}
