//! The search: candidates a second on all cores, thoroughly from both faces; and all families side by side.
#![allow(clippy::print_stdout, clippy::unwrap_used, clippy::expect_used)]

#[path = "../tests/common/mod.rs"]
mod common;

use std::time::Instant;

use mend_core::board::MustLive;
use mend_core::materials::Metal;
use mend_core::method::Family;
use mend_core::method::means::{Level, Means, Sucker};
use mend_core::method::subject::Subject;
use mend_core::method::usual::{TAPE, TENT};
use mend_core::planning::compare::compare;
use mend_core::planning::search::{Effort, Sought, search};
use mend_core::units::{Length, Temperature};

fn main() {
    let (board, charge, station) = (common::board(), common::sac305(), common::station());
    let means = Means {
        level: Level::Practised,
        tips: vec![Length::mm(2.0), Length::mm(4.0)],
        plate: true,
        sucker: Sucker::Vacuum,
        wire: true,
        shields: vec![TAPE, TENT],
        alloys: ["SAC305", "Sn63Pb37", "Sn42Bi58"].map(|name| Metal::read("alloy", name).unwrap()).into(),
    };
    let (room, watch) = (Temperature::celsius(23.0), &common::WANTED);
    let subject =
        Subject { board: &board, charge: &charge, station: &station, means: &means, must_live: MustLive::Board };
    let sought = Sought { subject: &subject, room, effort: Effort::Thorough, watch };
    for family in [Family::FromBelow, Family::FromAbove] {
        let from = Instant::now();
        let found = search(&sought, family.method()).expect("can be searched");
        let seconds = from.elapsed().as_secs_f64();
        let rate = found.candidates as f64 / seconds;
        println!("search/{:<12} {seconds:>6.2} s, {} candidates, {rate:.0} a second", family.key(), found.candidates);
    }
    let from = Instant::now();
    let lanes = compare((&subject, room), watch).expect("can be compared").lanes.len();
    println!("search/compare      {:>6.2} s, {lanes} families", from.elapsed().as_secs_f64());
}
