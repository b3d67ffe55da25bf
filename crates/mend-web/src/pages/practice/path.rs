//! The process window of what was tried, with the way that the settings took in it.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use mend_core::board::KeepIntact;
use mend_core::heat::known::Knowledge;
use mend_core::heat::motion::Motion;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::tool::HotAir;
use mend_core::planning::order::Order;
use mend_core::planning::process_window::{ProcessWindow, process_window};
use mend_core::practice::attempt::Attempt;
use mend_core::practice::hands::Hands;
use mend_core::practice::scene::PracticeScene;
use mend_core::units::{Flow, Length, Temperature};
use mend_core::watch::Watch;

use super::attempt_at;
use crate::App;
use crate::computing::{Failed, Key, Progress, Rechecked, Viewer};
use crate::draw::window_map::{WindowMap, WindowOf, window_map};
use crate::practice::{KeptAttempt, replayed};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// The window, and how the nozzle was held in it.
pub(super) struct TriedWindow {
    pub(super) map: WindowMap,
    pub(super) nozzle: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "practice/window.html")]
pub(crate) struct TriedWindowPart {
    id: i64,
    part: Progress<TriedWindow>,
}

/// The air as it was held last; none: none blew.
pub(super) fn air_of(attempt: &Attempt) -> Option<HotAir> {
    let blew = |hands: &&Hands| hands.blows;
    let hands = attempt.held.iter().rev().find(blew)?;
    let [x, y] = [hands.aim.x, hands.aim.y];
    let middle = attempt.scene.board.connector.body.centre;
    Some(HotAir {
        set: Temperature::celsius(hands.set_c),
        flow: Flow::litres_per_minute(hands.flow),
        nozzle: Length::mm(hands.nozzle_mm),
        distance: Length::mm(hands.distance_mm),
        face: hands.face,
        motion: Motion::Still,
        aim: [x - middle.x, y - middle.y],
        approach: None,
        tilt: None,
    })
}

pub(crate) async fn poll(
    State(app): State<App>,
    visitor: Visitor,
    path: Path<String>,
) -> Result<TriedWindowPart, Refusal> {
    let row = attempt_at(&app, &path).await?;
    let (id, kept) = (row.id, KeptAttempt::load(&app, &row).await?);
    let work = move |watch: &Watch| {
        let attempt = kept.replayed().ok_or(Failed::Broken("its metal can't be computed".to_owned()))?;
        let air = air_of(&attempt).ok_or(Failed::Broken("no air blew".to_owned()))?;
        window(&attempt.scene, &air, watch)
    };
    let stand = app.computing.compute(Viewer::Attempt(id), &Key::window(format!("attempt {id}")), work).await;
    let part = match stand.shown(|window| window)? {
        Progress::Ready(window) => {
            let attempt = replayed(&app, &row).await?;
            Progress::Ready(tried_window(&attempt, &window.map, visitor)?)
        }
        Progress::Computing(percent) => Progress::Computing(percent),
        Progress::Cancelled => Progress::Cancelled,
    };
    Ok(TriedWindowPart { id, part })
}

fn tried_window(attempt: &Attempt, map: &ProcessWindow, visitor: Visitor) -> Result<TriedWindow, Refusal> {
    let air = air_of(attempt).ok_or(Refusal::NotFound("window"))?;
    let (board, station, tried) = (&attempt.scene.board, &attempt.scene.station, tried(attempt));
    let of = WindowOf { board, station, air: &air, tried: &tried };
    let nozzle = format!("{:.0} mm nozzle, {:.0} mm away", air.nozzle.in_mm(), air.distance.in_mm());
    Ok(TriedWindow { map: window_map(map, &[], &of, visitor.scale), nozzle })
}

fn window(scene: &PracticeScene, air: &HotAir, watch: &Watch) -> Result<Rechecked, Failed> {
    let recipe = Recipe { shields: scene.shields.clone(), ..Recipe::from(*air) };
    let order = Order {
        board: &scene.board,
        composition: &scene.composition,
        station: &scene.station,
        recipe: &recipe,
        ambient: scene.ambient,
        known: &Knowledge::NOTHING,
        purpose: scene.goal.purpose(),
        keep_intact: if scene.keeps_part { KeepIntact::Both } else { KeepIntact::Board },
        watch,
    };
    Ok(Rechecked { map: process_window(&order)?, rechecked: Vec::new() })
}

/// Settings in the order in which they were tried, each once in a row.
fn tried(attempt: &Attempt) -> Vec<(Temperature, Flow)> {
    let blew = attempt.held.iter().filter(|hands| hands.blows);
    let mut tried: Vec<(f64, f64)> = blew.map(|hands| (hands.set_c, hands.flow)).collect();
    tried.dedup();
    tried.into_iter().map(|(set, flow)| (Temperature::celsius(set), Flow::litres_per_minute(flow))).collect()
}
