//! Methods on whole boards: every recipe can be planned on, the search keeps its promises, the comparison says why.
#![allow(clippy::expect_used)]

mod common;

use common::{WANTED, board, component, sac305, station};
use mend_core::board::{Board, Face, KeepIntact};
use mend_core::finding::Severity;
use mend_core::heat::known::Knowledge;
use mend_core::heat::mesh::Resolution;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::run::run_until;
use mend_core::heat::station::Station;
use mend_core::materials::{BodyMaterial, Metal};
use mend_core::method::equipment::{Equipment, SkillLevel, Sucker};
use mend_core::method::subject::Subject;
use mend_core::method::techniques::{HOLES, Techniques};
use mend_core::method::usual::{BLOCK, TAPE, TENT};
use mend_core::method::{MethodChoice, MethodFamily};
use mend_core::planning::bench_time::TimePiece;
use mend_core::planning::change::Change;
use mend_core::planning::compare::{Comparison, Recommendation, Use, compare};
use mend_core::planning::damaged::Damaged;
use mend_core::planning::difficulty::{Compared, Go, Hardship, difficulty};
use mend_core::planning::limits::{first_damage, in_time, limits};
use mend_core::planning::search::request::{Effort, SearchRequest};
use mend_core::planning::search::{SearchResult, search};
use mend_core::planning::sequence::line::{FitLine, HeatLine, Line};
use mend_core::planning::sequence::script::Script;
use mend_core::planning::sequence::sequence;
use mend_core::planning::sequence::step::{Duty, Step, StepKind};
use mend_core::planning::sequence::task::Task;
use mend_core::planning::what_if::changes;
use mend_core::solder::JointComposition;
use mend_core::units::{Length, Temperature};
use proptest::prelude::*;

const ROOM: Temperature = Temperature::celsius(23.0);

fn equipment() -> Equipment {
    Equipment {
        level: SkillLevel::Practised,
        tips: vec![Length::mm(2.0), Length::mm(4.0)],
        preheater: true,
        sucker: Sucker::Vacuum,
        wire: true,
        shields: vec![TENT],
        alloys: ["SAC305", "Sn63Pb37", "Sn42Bi58"].map(|name| Metal::parse("alloy", name).expect("known")).into(),
    }
}

/// The two-row port's board without its hidden row and its pins: four anchors in holes.
fn legs_only() -> Board {
    let mut anchors = board();
    anchors.connector.joints.retain(|joint| joint.shape.is_hole());
    anchors
}

/// A row of pads that a tip gets to, and nothing else.
fn row_only() -> Board {
    let mut row = board();
    row.connector.joints.retain(|joint| joint.row == "A");
    row
}

struct Case {
    board: Board,
    composition: JointComposition,
    station: Station,
    equipment: Equipment,
    keep_intact: KeepIntact,
}

impl Case {
    fn from_board(board: Board) -> Self {
        Self {
            board,
            composition: sac305(),
            station: station(),
            equipment: equipment(),
            keep_intact: KeepIntact::Board,
        }
    }

    fn subject(&self) -> Subject<'_> {
        let Self { board, composition, station, equipment, keep_intact } = self;
        let (keep_intact, known) = (*keep_intact, &Knowledge::NOTHING);
        Subject { board, composition, station, equipment, keep_intact, known, purpose: Purpose::Remove }
    }

    fn search(&self, family: MethodFamily) -> SearchResult {
        let subject = self.subject();
        let sought = SearchRequest { subject: &subject, ambient: ROOM, effort: Effort::Look, watch: &WANTED };
        search(&sought, family.method()).expect("can be searched")
    }

    fn compare(&self) -> Comparison {
        compare(&self.subject(), ROOM, &WANTED).expect("can be compared")
    }

    /// Does the nominal fine run of what was found melt everything before anything is damaged?
    fn holds(&self, searched: &SearchResult) -> bool {
        let Some(best) = &searched.best else { return true };
        let subject = self.subject();
        let sought = SearchRequest { subject: &subject, ambient: ROOM, effort: Effort::Look, watch: &WANTED };
        let order = sought.order(&best.composition, &best.recipe);
        let melting = best.composition.targets(&self.board).expect("melts");
        let case = order.case(&melting);
        let limits = limits(&order, &case);
        let nominal = ParameterSample::nominal();
        let run = run_until(&case, &nominal, Resolution::FINE, &|_| false);
        in_time(&run, first_damage(&limits, &run.traces).as_ref())
    }
}

#[test]
fn every_recipe_that_a_family_begins_from_can_be_planned_on() {
    let mut begun = Vec::new();
    for board in [board(), legs_only(), row_only()] {
        let mut case = Case::from_board(board);
        case.board.stack.planes = 6;
        case.board.stack.foil_um = 35.0;
        let subject = case.subject();
        let sought = SearchRequest { subject: &subject, ambient: ROOM, effort: Effort::Thorough, watch: &WANTED };
        for family in MethodFamily::ALL.into_iter().filter(|family| family.method().fit(&subject).applies()) {
            let starts = family.method().starts(&subject);
            begun.extend((!starts.is_empty()).then_some(family));
            for start in starts {
                let refusals = sought.order(&start.composition, &start.recipe).refusals();
                let blocking = refusals.iter().filter(|f| f.severity == Severity::Blocking);
                assert_eq!(blocking.count(), 0, "{family:?}: {refusals:?}");
            }
        }
    }
    let missing: Vec<MethodFamily> = MethodFamily::ALL.into_iter().filter(|family| !begun.contains(family)).collect();
    assert_eq!(missing, [MethodFamily::Blob], "its anchors stand too far apart here");
}

#[test]
fn a_search_says_the_same_every_time_and_what_one_thing_more_would_buy() {
    let case = Case::from_board(board());
    let (once, again) = (case.search(MethodFamily::FromAbove), case.search(MethodFamily::FromAbove));
    assert_eq!(once, again);
    let feeds = |what: &Change| matches!(what, Change::Feed { alloy, .. } if alloy == "Sn42Bi58");
    assert!(once.candidates > 200 && once.limited_by().is_some());
    assert!(once.buys.iter().any(|buy| feeds(&buy.what) && buy.headroom_k[1] > buy.headroom_k[0]), "{:?}", once.buys);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 5, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever stands near: what the search gives holds in its own fine run; and a nozzle or a kind of shield more in the
    /// shop never makes its best worse.
    #[test]
    fn the_search_never_gives_what_hurts_and_more_tools_never_make_it_worse(
        gap in 1.0..9.0f64,
        frail in prop::sample::select(vec![BodyMaterial::Pa66, BodyMaterial::ElectrolyticCan, BodyMaterial::PcAbs]),
        above in any::<bool>(),
    ) {
        let mut case = Case::from_board(board());
        case.board.components = vec![component("near", [30.0, 9.7 + gap, 8.0, 4.0], Face::Top, frail)];
        case.station.nozzles.truncate(2);
        let family = if above { MethodFamily::FromAbove } else { MethodFamily::FromBelow };
        let less = case.search(family);
        prop_assert!(case.holds(&less), "{:?}", less.best);
        case.station.nozzles.push(Length::mm(8.0));
        case.equipment.shields.push(TAPE);
        case.equipment.shields.push(BLOCK);
        let more = case.search(family);
        prop_assert!(case.holds(&more), "{:?}", more.best);
        if let Some(less) = &less.best {
            let more = more.best.as_ref().expect("what was found is still there");
            prop_assert!(more.score.order(&less.score).is_ge(), "{:?} after {:?}", more.score, less.score);
        }
    }
}

#[test]
fn a_comparison_recommends_one_with_its_reason_and_says_why_not_the_others() {
    let found = Case::from_board(board()).compare();
    let best = found.best().expect("something works on this board");
    let Recommendation::Best { best: why, next } = &found.reason else { panic!("{:?}", found.reason) };
    assert_eq!((why.family, why.works_in), (best.choice.family, best.plan.works_in()));
    assert!(next.as_ref().is_some_and(|next| next.family != why.family), "{next:?}");
    assert_eq!(found.lanes.len() + found.ruled_out.len(), MethodFamily::ALL.len());
    assert!(found.ruled_out.iter().all(|ruled| !ruled.fit.against.is_empty()));
    for lane in &found.lanes {
        let mid: f64 = lane.spent.iter().map(|spent| spent.seconds.mid).sum();
        assert!(
            (mid - lane.total_s.mid).abs() < 1e-6 && lane.total_s.low < lane.total_s.high,
            "{}",
            lane.choice.family.key()
        );
        let ordered = |band: &mend_core::planning::band::Band| band.low <= band.mid && band.mid <= band.high;
        assert!(
            lane.spent.iter().all(|spent| ordered(&spent.seconds)),
            "{}: {:?}",
            lane.choice.family.key(),
            lane.spent
        );
    }
    let low_melt = found.lane(MethodFamily::LowMeltAir).expect("there is such an alloy in stock");
    assert!(
        low_melt.passes.is_some_and(|passes| passes >= 1)
            && matches!(&low_melt.uses[0], Use::Alloy { name, .. } if name == "Sn42Bi58")
    );
    let swap = found.lane(MethodFamily::HotSwap).expect("practised hands");
    assert!(swap.spent.iter().all(|spent| !matches!(spent.piece, TimePiece::Wick | TimePiece::Holes)));
}

#[test]
fn a_component_whose_name_has_a_comma_is_shielded_like_any_other() {
    let named = |name: &str| {
        let mut board = board();
        let mut soft = component("x", [30.0, 11.0, 8.0, 3.0], Face::Top, BodyMaterial::PcAbs);
        soft.name = name.to_owned();
        board.components = vec![soft];
        Case::from_board(board).search(MethodFamily::FromAbove)
    };
    let (plain, comma) = (named("latch"), named("latch, left"));
    let shields =
        |found: &SearchResult| found.best.as_ref().or(found.nearest.as_ref()).map(|tried| tried.recipe.shields.len());
    assert_eq!(shields(&comma), shields(&plain));
    assert_eq!((comma.candidates, comma.buys.len()), (plain.candidates, plain.buys.len()));
}

#[test]
fn what_is_kept_intact_changes_limits_recommendation_and_steps() {
    // A latch close by that no air spares: on a customer's board it decides, on a donor's it does not.
    let mut case = Case::from_board(board());
    case.equipment.shields.clear();
    case.board.components = vec![component("latch", [30.0, 10.5, 12.0, 3.0], Face::Top, BodyMaterial::PcAbs)];
    let customer = case.compare();
    case.keep_intact = KeepIntact::Part;
    let donor = case.compare();
    let chance = |found: &Comparison| found.lane(MethodFamily::FromAbove).map_or(0.0, |lane| lane.plan.chance);
    assert!(chance(&donor) > chance(&customer), "{} and {}", chance(&donor), chance(&customer));
    let best = donor.best().expect("a donor's board bears anything");
    assert_eq!(best.tightest.as_ref().map(|tight| &tight.of), Some(&Damaged::PartBody));
    let script = Script {
        choice: Some(&best.choice),
        keep_intact: KeepIntact::Part,
        ..Script::plain(&case.board, &best.plan, &best.composition)
    };
    let steps = sequence(&script);
    assert!(steps.iter().all(|step| step.duty != Duty::Fit), "nothing is fitted to a donor's board");
    assert_eq!(steps.last().and_then(Step::task), Some(&Task::BagPart));
}

#[test]
fn the_steps_follow_the_family_and_the_schools() {
    let case = Case::from_board(legs_only());
    let found = case.compare();
    let steps_of = |family: MethodFamily, techniques: Techniques| {
        let lane = found.lane(family).expect("applies to four anchors");
        let choice = MethodChoice { family, techniques };
        let script = Script { choice: Some(&choice), ..Script::plain(&case.board, &lane.plan, &lane.composition) };
        (sequence(&script), lane.plan.recipe.seconds_before())
    };
    let (emptied, preheat) = steps_of(MethodFamily::Pump, Techniques::default());
    let heat = emptied.iter().find(|step| matches!(step.task(), Some(Task::EmptyHoles { .. }))).expect("its own step");
    let StepKind::Heat { release, abort_s } = &heat.kind else { panic!("{:?}", heat.kind) };
    let joints = ["leg 1", "leg 2", "leg 3", "leg 4"].map(str::to_owned).to_vec();
    assert!(heat.lines().contains(&Line::Heat(HeatLine::OneAfterOther { joints })), "{heat:?}");
    let all = preheat as f64;
    assert!(*abort_s >= all && release.mid_s.is_none_or(|mid| mid >= all) && all > 10.0, "the time of all of them");
    let wired = steps_of(MethodFamily::BridgeWire, Techniques::default()).0;
    let tasks: Vec<&Task> = wired.iter().filter_map(Step::task).collect();
    let place = |is: fn(&Task) -> bool| tasks.iter().position(|task| is(task)).expect("a step of its own");
    assert!(place(|t| *t == Task::LayWire) < place(|t| matches!(t, Task::Heat { .. })), "{tasks:?}");
    assert!(place(|t| *t == Task::ClearHoles) < place(|t| *t == Task::Fit), "{tasks:?}");
    let dropped = steps_of(MethodFamily::BridgeWire, Techniques::default().with(&HOLES, "drop-in")).0;
    assert!(dropped.iter().any(|step| step.task() == Some(&Task::LeaveHolesFilled)));
    assert!(dropped.iter().all(|step| !step.lines().contains(&Line::Fit(FitLine::DryFit))));
}

#[test]
fn difficulty_counts_hands_hidden_rows_and_what_binds() {
    let mut case = Case::from_board(board());
    let reading = difficulty(&case.subject(), Compared::NotYet, 0);
    assert!(reading.reasons.contains(&Hardship::HiddenJoints { joints: 12 }), "{:?}", reading.reasons);
    case.equipment.level = SkillLevel::Learning;
    assert_eq!(difficulty(&case.subject(), Compared::NotYet, 0).go, Go::No, "not by these hands");
    case.equipment.level = SkillLevel::Practised;
    assert_eq!(difficulty(&case.subject(), Compared::NoneWorks, 0).go, Go::No, "no way opens");
    let row = Case::from_board(row_only());
    assert_eq!(difficulty(&row.subject(), Compared::NotYet, 0).go, Go::Go);
}

#[test]
fn what_if_offers_one_change_at_a_time() {
    let case = Case::from_board(board());
    let found = case.search(MethodFamily::FromAbove);
    let tried = found.best.or(found.nearest).expect("something");
    let subject = case.subject();
    let sought = SearchRequest { subject: &subject, ambient: ROOM, effort: Effort::Look, watch: &WANTED };
    let order = sought.order(&tried.composition, &tried.recipe);
    let offered = changes(&subject, &order);
    let offers = |is: fn(&Change) -> bool| offered.iter().any(|offer| is(&offer.what));
    assert!(offers(|c| *c == Change::Nozzle { mm: 22.0 }) && offers(|c| matches!(c, Change::FromBelow { .. })));
    assert!(offers(|c| matches!(c, Change::Preheater { set_c, .. } if *set_c == 180.0)));
    assert!(offers(|c| matches!(c, Change::Feed { alloy, .. } if alloy == "Sn63Pb37")));
    for change in &offered {
        assert!(change.recipe != tried.recipe || change.composition != tried.composition, "{:?}", change.what);
    }
}

#[test]
fn a_tip_that_goes_round_alone_leaves_joints_that_freeze() {
    let anchors = |pitch: f64, planes: u32| {
        let mut board = legs_only();
        // Pegs do not bend: it comes off all at once.
        board.connector.pegs = 1;
        for (k, joint) in board.connector.joints.iter_mut().enumerate() {
            (joint.at.x, joint.at.y) = (24.0 + pitch * k as f64, 4.0);
        }
        board.stack.planes = planes;
        Case::from_board(board)
    };
    let (case, far) = (anchors(2.0, 1), anchors(12.0, 6));
    let near = case.search(MethodFamily::IronOnly).best.expect("anchors close together are held liquid");
    assert!(near.score.release_s.is_some_and(|t| t < 60.0), "{:?}", near.score);
    let apart = far.search(MethodFamily::IronOnly);
    assert!(apart.best.is_none(), "one sets while the next melts: {:?}", apart.best);
    let mut without = far;
    without.board.connector.pegs = 0;
    let levered = without.search(MethodFamily::IronOnly).best.expect("end by end it comes off");
    assert!(levered.recipe.levered);
}
