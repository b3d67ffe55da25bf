//! The page of an attempt: the board on a canvas, what is set beside it, and the cues in words.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::board::{JointShape, Rect};
use mend_core::heat::shield::Shield;
use mend_core::practice::goal::PracticeGoal;
use mend_core::practice::hands::{DISTANCES_MM, IRON_C, MOST_PULL_N};
use mend_core::practice::scene::PracticeScene;
use serde::Serialize;

use super::attempt_at;
use crate::App;
use crate::pages::Frame;
use crate::practice::seat::HeldNow;
use crate::practice::subject::scene;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::practice::{goal_words, subject_words};

/// A rectangle as the canvas wants it: middle, width, depth, mm.
#[derive(Serialize)]
struct Box4([f64; 4]);

impl From<&Rect> for Box4 {
    fn from(rect: &Rect) -> Self {
        Self([rect.centre.x, rect.centre.y, rect.width, rect.depth])
    }
}

/// A thing on the board.
#[derive(Serialize)]
struct DrawnThing {
    name: String,
    at: Box4,
    bottom: bool,
    round: bool,
}

impl DrawnThing {
    fn of_shield(shield: &Shield) -> Self {
        let bottom = shield.face == mend_core::board::Face::Bottom;
        Self { name: String::new(), at: (&shield.area()).into(), bottom, round: false }
    }
}

/// A joint.
#[derive(Serialize)]
struct DrawnJoint {
    name: String,
    at: Box4,
    hole: bool,
    hidden: bool,
}

/// What the canvas draws and the keys may set: nothing of what is true.
#[derive(Serialize)]
pub(super) struct DrawnScene {
    outline: Vec<[f64; 2]>,
    part: Option<DrawnThing>,
    joints: Vec<DrawnJoint>,
    components: Vec<DrawnThing>,
    shields: Vec<DrawnThing>,
    set_c: [f64; 2],
    flow: [f64; 2],
    nozzles: Vec<f64>,
    distance_mm: [f64; 2],
    iron_c: [f64; 2],
    most_pull_n: f64,
    /// Tweezers are of use.
    grips: bool,
    /// Braid and wire are.
    braids: bool,
}

impl DrawnScene {
    pub(super) fn new(scene: &PracticeScene) -> Self {
        let (board, station) = (&scene.board, &scene.station);
        let connector = &board.connector;
        let on_bottom = |face: mend_core::board::Face| face == mend_core::board::Face::Bottom;
        let thing = |name: &str, rect: &Rect, bottom: bool, round: bool| DrawnThing {
            name: name.to_owned(),
            at: rect.into(),
            bottom,
            round,
        };
        let joint = |joint: &mend_core::board::Joint| {
            let (width, depth) = match joint.shape {
                JointShape::Pad { width, depth } => (width, depth),
                JointShape::Hole { pad, .. } => (pad, pad),
            };
            let at = Box4([joint.at.x, joint.at.y, width, depth]);
            DrawnJoint { name: joint.name.clone(), at, hole: joint.shape.is_hole(), hidden: joint.hidden }
        };
        let celsius = |(low, high): (mend_core::units::Temperature, mend_core::units::Temperature)| {
            [low.in_celsius(), high.in_celsius()]
        };
        let part = thing(&connector.name, &connector.body, on_bottom(connector.face), false);
        Self {
            outline: board.outline.corners.iter().map(|corner| [corner.x, corner.y]).collect(),
            part: scene.goal.has_part().then_some(part),
            joints: connector.joints.iter().map(joint).collect(),
            components: board.components.iter().map(|n| thing(&n.name, &n.body, on_bottom(n.face), n.round)).collect(),
            shields: scene.shields.iter().map(DrawnThing::of_shield).collect(),
            set_c: celsius(station.set_range),
            flow: [station.flow_range.0.in_litres_per_minute(), station.flow_range.1.in_litres_per_minute()],
            nozzles: station.nozzles.iter().map(|nozzle| nozzle.in_mm()).collect(),
            distance_mm: DISTANCES_MM.into(),
            iron_c: IRON_C.into(),
            most_pull_n: MOST_PULL_N,
            grips: scene.goal.has_part(),
            braids: matches!(scene.goal, PracticeGoal::ClearHoles | PracticeGoal::CleanUp),
        }
    }
}

/// What is laid on, as a screen takes it.
#[derive(Serialize)]
pub(super) struct DrawnShields {
    shields: Vec<DrawnThing>,
}

impl DrawnShields {
    pub(super) fn new(shields: &[Shield]) -> Self {
        Self { shields: shields.iter().map(DrawnThing::of_shield).collect() }
    }
}

/// What hands hold, as a screen takes it.
#[derive(Serialize)]
pub(super) struct DrawnHands {
    aim: [f64; 2],
    distance_mm: f64,
    set_c: f64,
    flow: f64,
    nozzle_mm: f64,
    bottom: bool,
    blows: bool,
    grips: bool,
    pull_n: f64,
    iron_c: f64,
    braid: bool,
    shields: Vec<DrawnThing>,
    /// The last move that was taken.
    taken: u32,
}

impl DrawnHands {
    pub(super) fn new(HeldNow { hands, shields, taken }: HeldNow) -> Self {
        Self {
            shields: shields.iter().map(DrawnThing::of_shield).collect(),
            taken,
            aim: [hands.aim.x, hands.aim.y],
            distance_mm: hands.distance_mm,
            set_c: hands.set_c,
            flow: hands.flow,
            nozzle_mm: hands.nozzle_mm,
            bottom: hands.face == mend_core::board::Face::Bottom,
            blows: hands.blows,
            grips: hands.grips,
            pull_n: hands.pull_n,
            iron_c: hands.iron_c,
            braid: hands.braid,
        }
    }
}

#[derive(Template, WebTemplate)]
#[template(path = "practice/attempt.html")]
struct AttemptPage {
    frame: Frame,
    id: i64,
    title: String,
    goal: &'static str,
    scene: String,
    has_part: bool,
    braids: bool,
    by_iron: bool,
    /// Something stands beside the part: it may be taped.
    neighbours: bool,
    fahrenheit: bool,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: Path<String>) -> Result<Response, Refusal> {
    let row = attempt_at(&app, &path).await?;
    if row.ended_ms.is_some() {
        return Ok(Redirect::to(&format!("/practice/{}/debrief", row.id)).into_response());
    }
    // A browser can't tell why a WebSocket is refused: the page says it.
    app.practice.expect_room(row.id)?;
    let scene = scene(&app, &row).await?;
    let drawn = DrawnScene::new(&scene);
    let title = subject_words(&row.task, row.job, scene.goal);
    let page = AttemptPage {
        frame: Frame::new(title.clone(), visitor.scale, "practice", format!("/practice/{}", row.id)),
        id: row.id,
        title,
        goal: goal_words(scene.goal),
        has_part: scene.goal.has_part(),
        braids: drawn.braids,
        neighbours: !scene.board.components.is_empty(),
        by_iron: drawn.braids || scene.bridge.is_some(),
        scene: serde_json::to_string(&drawn)?,
        fahrenheit: visitor.is_fahrenheit(),
    };
    Ok(page.into_response())
}
