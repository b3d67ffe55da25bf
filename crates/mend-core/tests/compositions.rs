//! What is fed, what it melts at, and what wicking leaves.
#![allow(clippy::expect_used)]

mod common;

use common::metals::metal;
use common::{board, fed, sac305};
use mend_core::board::{Board, JointGroup, JointShape, groups};
use mend_core::finding::problem::{AlloyProblem, Problem, ValueProblem};
use mend_core::materials::{Composition, Element, Metal};
use mend_core::planning::ledger::{Entry, Ledger, LedgerAct};
use mend_core::solder::{
    FeedReason, JointComposition, Residue, amount, band, cycles, factory_mg, feed_table, leaded_into_lead_free,
    share_for, within_limits, working_temperature,
};
use mend_core::units::Temperature;

fn group(name: &str) -> JointGroup {
    groups(&board()).into_iter().find(|group| group.name == name).expect("a group")
}

#[test]
fn a_connector_falls_into_groups_that_are_fed_alike() {
    let found: Vec<(String, usize, bool, bool)> =
        groups(&board()).iter().map(|g| (g.name.clone(), g.joints.len(), g.holes, g.hidden)).collect();
    let expected = [("A", 12, false, false), ("B", 12, false, true), ("anchors", 4, true, false)];
    assert_eq!(found, expected.map(|(name, count, holes, hidden)| (name.to_owned(), count, holes, hidden)));
}

#[test]
fn the_length_of_wire_brings_the_share_that_was_wanted() {
    let composition = fed("Sn42Bi58", 0.5, &["anchors"]);
    let (anchors, feed) = (group("anchors"), composition.feed.clone().expect("fed"));
    let amount = amount(&composition, &anchors).expect("fits");
    assert_eq!(amount.rounds, 1);
    let mass = amount.length_mm * feed.wire.mg_per_mm(&feed.metal.composition);
    let old = factory_mg(&composition, &anchors);
    assert!((mass / (mass + old) - 0.5).abs() < 1e-9, "{mass} mg on {old} mg");
}

#[test]
fn more_than_a_joint_holds_comes_in_rounds_and_more_than_that_not_at_all() {
    let rounds = |share: f64| amount(&fed("Sn42Bi58", share, &["anchors"]), &group("anchors")).map(|a| a.rounds);
    assert_eq!(rounds(0.4), Some(1));
    assert!(rounds(0.88).is_some_and(|n| n > 1), "{:?}", rounds(0.88));
    let table = feed_table(&fed("Sn42Bi58", 0.88, &["anchors"]), &[group("anchors")]);
    assert!(matches!(table[0].reason, FeedReason::InRounds { rounds: 2.., .. }), "{:?}", table[0].reason);
    let mut thick = fed("Sn42Bi58", 0.9, &["anchors"]);
    thick.feed.as_mut().expect("fed").wire.diameter_mm = 0.1;
    let huge = JointGroup { volume: 500.0, most: 9000.0, ..group("anchors") };
    assert_eq!(amount(&thick, &huge), None, "longer than a spool");
}

#[test]
fn a_feed_that_can_not_be_is_refused_by_name() {
    let found = |composition: &JointComposition, board: &Board| -> Vec<(String, Problem)> {
        composition.check(board).into_iter().map(|f| (f.place, f.problem)).collect()
    };
    let attic = ("rows".to_owned(), ValueProblem::NoSuchRow { row: "attic".to_owned() }.into());
    let mut thin = fed("Sn42Bi58", 0.9, &["anchors", "attic"]);
    thin.feed.as_mut().expect("fed").wire.diameter_mm = 0.1;
    assert_eq!(found(&thin, &board()), [attic]);
    thin.feed.as_mut().expect("fed").rows.pop();
    assert_eq!(found(&thin, &board()), Vec::new());
    let mut stout = board();
    for leg in stout.connector.joints.iter_mut().filter(|joint| joint.row == "anchors") {
        leg.shape = JointShape::Hole { drill: 15.0, pad: 20.0 };
    }
    let (alloy, row) = ("Sn42Bi58".to_owned(), "anchors".to_owned());
    let too_much = AlloyProblem::TooMuchFed { percent: 90.0, alloy, row }.into();
    assert_eq!(found(&thin, &stout), [("share".to_owned(), too_much)], "longer than a spool");
    thin.feed.as_mut().expect("fed").mixing_fraction = 1e300;
    assert!(matches!(found(&thin, &board())[0].1, Problem::Alloy(AlloyProblem::FeedShare { .. })));
}

#[test]
fn a_mix_melts_lower_and_holes_are_less_sure_than_pads() {
    let composition = fed("Sn42Bi58", 0.5, &["A", "anchors"]);
    let (pads, holes) =
        (composition.target(&group("A")).expect("computed"), composition.target(&group("anchors")).expect("computed"));
    let hidden = composition.target(&group("B")).expect("computed");
    assert_eq!(hidden.melted, Temperature::celsius(220.0));
    assert!(pads.melted < holes.melted && holes.melted < hidden.melted, "{pads:?} {holes:?}");
    assert!(holes.spread > pads.spread);
    // Perfectly mixed it would be the tabled 184 C.
    let mixed = composition.mix(&group("anchors"), 1.0);
    assert!((working_temperature(&mixed).expect("computed").in_celsius() - 184.0).abs() < 1.0);
}

#[test]
fn a_wanted_temperature_gives_an_amount_or_the_word_that_it_can_not_be_had() {
    let (factory, low) = (metal("SAC305"), metal("Sn42Bi58"));
    let share = share_for(&factory, &low, 0.8, Temperature::celsius(190.0)).expect("can be had");
    let mix = Composition::mixed(&[(factory, 1.0 - share), (low, share * 0.8)]).expect("has mass");
    let works = working_temperature(&mix).expect("computed") + band(&mix).liquidus;
    assert!((187.0..=190.0).contains(&works.in_celsius()), "{share}: {works:?}");
    assert_eq!(share_for(&factory, &low, 0.8, Temperature::celsius(240.0)), Some(0.0));
    assert_eq!(share_for(&factory, &metal("Sn63Pb37"), 0.8, Temperature::celsius(150.0)), None);
}

#[test]
fn every_flood_and_wick_leaves_less_of_what_was_fed() {
    let composition = fed("Sn42Bi58", 0.6, &["A", "anchors"]);
    let refit = composition.refit.composition;
    for name in ["A", "anchors"] {
        let group = group(name);
        let mut residue = Residue::from_group(&composition, &group);
        residue.fed(&metal("Sn42Bi58"), amount(&composition, &group).expect("fits").mass_mg);
        let mut before = residue.range(&refit, Element::Bi);
        for _ in 0..3 {
            residue.wicked();
            let (low, high) = residue.range(&refit, Element::Bi);
            assert!(low < high && high < before.1, "{name}: {low}-{high} after {before:?}");
            before = (low, high);
            residue.flooded(&refit);
        }
        let needed = cycles(&composition, &group).expect("gets out");
        assert!((1..=4).contains(&needed), "{name}: {needed}");
    }
    assert_eq!(cycles(&sac305(), &group("A")), Some(0), "nothing was fed");
}

#[test]
fn the_arithmetic_of_one_pass_is_that_of_the_table() {
    // A hole, part off: 10, 20, 40 % of the molten solder stay; the film on its walls is less than that.
    let composition = fed("Sn42Bi58", 0.5, &["anchors"]);
    let group = group("anchors");
    let (old, refit) = (factory_mg(&composition, &group), composition.refit.composition);
    let mut residue = Residue::from_group(&composition, &group);
    residue.fed(&metal("Sn42Bi58"), old);
    residue.wicked();
    let stays = |left: f64| 58.0 * 0.5 * (2.0 * old * left) / (2.0 * old * left + old);
    let (low, high) = residue.range(&refit, Element::Bi);
    assert!((low - stays(0.1)).abs() < 0.05 && (high - stays(0.4)).abs() < 0.05, "{low} {high}");
    assert!(!within_limits(&residue.flags(&metal("Sn63Pb37"))), "with lead so much bismuth is too much");
}

#[test]
fn lead_in_a_lead_free_product_is_said() {
    let leaded = |factory: &str| {
        let factory = Metal::parse("alloy", factory).expect("a metal");
        let refit = Metal::parse("refit", "Sn63Pb37").expect("a metal");
        leaded_into_lead_free(&JointComposition { refit, ..JointComposition::factory(factory) })
    };
    let brings = AlloyProblem::LeadIntoLeadFree { alloy: "Sn63Pb37".to_owned() };
    assert_eq!(leaded("SAC305").expect("found").problem, brings.into());
    assert_eq!(leaded("Sn60Pb40"), None);
}

fn ledger(composition: &JointComposition, acts: &[(LedgerAct, &str)]) -> Ledger {
    let entry = |(act, row): &(LedgerAct, &str)| Entry {
        act: *act,
        row: (*row).to_owned(),
        reason: "customer waits".to_owned(),
    };
    Ledger::after(composition, &groups(&board()), &acts.iter().map(entry).collect::<Vec<_>>())
}

#[test]
fn the_fit_is_closed_until_the_ledger_is_within_limits_or_overridden() {
    let composition = fed("Sn42Bi58", 0.6, &["A", "anchors"]);
    let composition = JointComposition { refit: Metal::parse("refit", "Sn63Pb37").expect("a metal"), ..composition };
    let at_once = ledger(&composition, &[]);
    assert!(!at_once.is_open(), "fed as planned, though nobody tapped");
    assert!(at_once.groups[0].holds.iter().any(|(element, _, high)| *element == Element::Bi && *high > 10.0));
    assert!(at_once.groups[1].clean, "the hidden row was not fed");
    assert!(!ledger(&composition, &[(LedgerAct::Fed, ""), (LedgerAct::Wicked, "")]).is_open());
    let pass = [(LedgerAct::Wicked, ""), (LedgerAct::Flooded, "")];
    let clean: Vec<(LedgerAct, &str)> =
        std::iter::once((LedgerAct::Fed, "")).chain(pass.into_iter().cycle().take(8)).collect();
    let cleaned = ledger(&composition, &clean);
    assert!(cleaned.is_open() && cleaned.reason.is_none(), "{cleaned:?}");
    assert_eq!(cleaned.groups[0].passes, 4);
    let dry = [(LedgerAct::Wicked, "A"); 6];
    assert!(!ledger(&composition, &dry).groups[0].clean, "braid alone does not thin the film that it leaves");
    let pads = [LedgerAct::Wicked, LedgerAct::Flooded, LedgerAct::Wicked, LedgerAct::Flooded, LedgerAct::Wicked]
        .map(|act| (act, "A"));
    let only_pads = ledger(&composition, &pads);
    assert!(only_pads.groups[0].clean && !only_pads.groups[2].clean && !only_pads.is_open());
    let forced = ledger(&composition, &[(LedgerAct::Overridden, "")]);
    assert!(forced.is_open() && forced.reason.as_deref() == Some("customer waits"));
    assert!(ledger(&sac305(), &[]).is_open(), "nothing fed, nothing to clean out");
}
