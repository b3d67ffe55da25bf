//! The search: candidates a second on all cores, thoroughly from both faces; and all families side by side.
#![allow(clippy::print_stdout, clippy::unwrap_used, clippy::expect_used)]

#[path = "../tests/common/mod.rs"]
mod common;

use std::time::Instant;

use mend_core::board::KeepIntact;
use mend_core::heat::known::Knowledge;
use mend_core::heat::purpose::Purpose;
use mend_core::materials::Metal;
use mend_core::method::MethodFamily;
use mend_core::method::equipment::{Equipment, SkillLevel, Sucker};
use mend_core::method::subject::Subject;
use mend_core::method::usual::{TAPE, TENT};
use mend_core::planning::compare::compare;
use mend_core::planning::search::request::{Effort, SearchRequest};
use mend_core::planning::search::search;
use mend_core::units::{Length, Temperature};

fn main() {
    let (board, composition, station) = (common::board(), common::sac305(), common::station());
    let equipment = Equipment {
        level: SkillLevel::Practised,
        tips: vec![Length::mm(2.0), Length::mm(4.0)],
        preheater: true,
        sucker: Sucker::Vacuum,
        wire: true,
        shields: vec![TAPE, TENT],
        alloys: ["SAC305", "Sn63Pb37", "Sn42Bi58"].map(|name| Metal::parse("alloy", name).unwrap()).into(),
    };
    let (ambient, watch) = (Temperature::celsius(23.0), &common::WANTED);
    let subject = Subject {
        board: &board,
        composition: &composition,
        station: &station,
        equipment: &equipment,
        keep_intact: KeepIntact::Board,
        known: &Knowledge::NOTHING,
        purpose: Purpose::Remove,
    };
    let sought = SearchRequest { subject: &subject, ambient, effort: Effort::Thorough, watch };
    for family in [MethodFamily::FromBelow, MethodFamily::FromAbove] {
        let from = Instant::now();
        let found = search(&sought, family.method()).expect("can be searched");
        let seconds = from.elapsed().as_secs_f64();
        let rate = found.candidates as f64 / seconds;
        println!("search/{:<12} {seconds:>6.2} s, {} candidates, {rate:.0} a second", family.key(), found.candidates);
    }
    let from = Instant::now();
    let lanes = compare(&subject, ambient, watch).expect("can be compared").lanes.len();
    println!("search/compare      {:>6.2} s, {lanes} families", from.elapsed().as_secs_f64());
}
