//! The process window on paper: set temperature across, flow upwards, each cell what comes of that setting.

use std::collections::BTreeMap;

use askama::Template;
use mend_core::board::Board;
use mend_core::heat::station::Station;
use mend_core::heat::tool::HotAir;
use mend_core::planning::process_window::ProcessWindow;
use mend_core::planning::recheck::Recheck;
use mend_core::planning::window_point::{WindowCell, WindowPoint};
use mend_core::units::{Flow, Scale, Temperature};

use super::axis::{round_numbers, with_unit};
use super::contour::{ScalarField, path};
use super::labels::{Anchor, Extent, Labels, Wanted};
use super::n;
use crate::words::damaged;

const LEFT: f64 = 64.0;
const TOP: f64 = 14.0;
const WIDTH: f64 = 900.0;
const HEIGHT: f64 = 330.0;
/// Release is shaded in steps of so many seconds, the last step open.
const SHADE_S: f64 = 20.0;
const SHADES: usize = 5;
/// Width of the ring round the setting.
const REGION: f64 = 66.0;
/// Height of its words.
const LETTERS: f64 = 15.0;
/// Height of a recheck's mark.
const CHECK: f64 = 18.0;
/// Room that a word takes at the right end.
const LONGEST_WORD: f64 = 200.0;

/// A cell.
pub(crate) struct Cell {
    pub(crate) class: String,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) set: usize,
    pub(crate) flow: usize,
}

/// A word at an edge.
pub(crate) struct Word {
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) text: String,
    pub(crate) anchor: &'static str,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/window_map.svg", escape = "html")]
pub(crate) struct WindowMap {
    pub(crate) description: String,
    pub(crate) cells: Vec<Cell>,
    pub(crate) cell_width: String,
    pub(crate) cell_height: String,
    pub(crate) set_ticks: Vec<(String, String)>,
    pub(crate) flow_ticks: Vec<(String, String)>,
    pub(crate) words: Vec<Word>,
    /// Lines of equal release time, each with its label and where it stands.
    pub(crate) contours: Vec<(String, Word)>,
    /// Settings that were run again on the fine grid.
    pub(crate) checks: Vec<Word>,
    /// Where the setting is, and how far up and down the real station may be.
    pub(crate) here: (String, String),
    pub(crate) region: (String, String, String),
    /// As the form takes them.
    pub(crate) sets: String,
    pub(crate) flows: String,
    pub(crate) at: (usize, usize),
    /// The way that settings took, as points.
    pub(crate) way: String,
}

struct WindowPaper<'a> {
    map: &'a ProcessWindow,
    scale: Scale,
}

impl WindowPaper<'_> {
    fn cell(&self) -> (f64, f64) {
        ((WIDTH - LEFT) / self.map.sets.len() as f64, (HEIGHT - TOP) / self.map.flows.len() as f64)
    }

    /// Middle of a setting, not off the paper.
    fn place(&self, set: Temperature, flow: Flow) -> (f64, f64) {
        let (w, h) = self.cell();
        let along = |value: f64, first: f64, last: f64| ((value - first) / (last - first)).clamp(0.0, 1.0);
        let (sets, flows) = (&self.map.sets, &self.map.flows);
        let x = along(set.in_celsius(), sets[0].in_celsius(), sets[sets.len() - 1].in_celsius());
        let lpm = |flow: Flow| flow.in_litres_per_minute();
        let y = along(lpm(flow), lpm(flows[0]), lpm(flows[flows.len() - 1]));
        (LEFT + w / 2.0 + x * (WIDTH - LEFT - w), HEIGHT - h / 2.0 - y * (HEIGHT - TOP - h))
    }

    fn corner(&self, set: usize, flow: usize) -> (f64, f64) {
        let (w, h) = self.cell();
        (LEFT + w * set as f64, HEIGHT - h * (flow + 1) as f64)
    }
}

fn class(candidate: &WindowPoint) -> String {
    match (candidate.outcome(), candidate.release_s) {
        (WindowCell::Works, Some(release)) => format!("w{}", ((release / SHADE_S) as usize).min(SHADES - 1)),
        (WindowCell::Hurts, _) => "hurts".to_owned(),
        _ => "cool".to_owned(),
    }
}

/// Whose window is drawn.
pub(crate) struct WindowOf<'a> {
    pub(crate) board: &'a Board,
    pub(crate) station: &'a Station,
    pub(crate) air: &'a HotAir,
    /// Settings that were tried one after the other; empty: only the one.
    pub(crate) tried: &'a [(Temperature, Flow)],
}

/// Draws the window of a job, with its setting in it.
pub(crate) fn window_map(map: &ProcessWindow, rechecked: &[Recheck], of: &WindowOf<'_>, scale: Scale) -> WindowMap {
    let WindowOf { board, station, air, tried } = *of;
    let paper = WindowPaper { map, scale };
    let (w, h) = paper.cell();
    let all = (0..map.flows.len()).flat_map(|flow| (0..map.sets.len()).map(move |set| (set, flow)));
    let cell = |(set, flow): (usize, usize)| {
        let (x, y) = paper.corner(set, flow);
        Cell { class: class(map.at(flow, set)), x: n(x), y: n(y), set, flow }
    };
    let here = paper.place(air.set, air.flow);
    let (weak, strong) = station.real_flow(air.flow);
    let ends = [strong, weak].map(|flow| paper.place(air.set, flow).1);
    let nearest = |values: &[f64], value: f64| {
        let off = |k: &usize| (values[*k] - value).abs();
        (0..values.len()).min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or(0)
    };
    let celsius: Vec<f64> = map.sets.iter().map(|t| t.in_celsius()).collect();
    let flows: Vec<f64> = map.flows.iter().map(|f| f.in_litres_per_minute()).collect();
    let set = nearest(&celsius, air.set.in_celsius());
    let flow = nearest(&flows, air.flow.in_litres_per_minute());
    let joined = |values: Vec<String>| values.join(" ");
    let mut labels = Labels::within(Extent { left: LEFT, top: TOP, right: WIDTH, bottom: HEIGHT });
    let checks = checks(&paper, rechecked, &mut labels);
    let words = words(&paper, board, &mut labels);
    let contours = contours(&paper, &mut labels);
    let way = tried.iter().map(|(set, flow)| paper.place(*set, *flow));
    let way: Vec<String> = way.map(|(x, y)| format!("{},{}", n(x), n(y))).collect();
    WindowMap {
        description: description(map, set, flow, !tried.is_empty()),
        way: way.join(" "),
        cells: all.map(cell).collect(),
        cell_width: n(w + 0.4),
        cell_height: n(h + 0.4),
        set_ticks: set_ticks(&paper),
        flow_ticks: flow_ticks(&paper),
        words,
        contours,
        checks,
        here: (n(here.0), n(here.1)),
        region: (n(here.0 - REGION / 2.0), n(ends[0]), n(ends[1] - ends[0])),
        sets: joined(map.sets.iter().map(|t| format!("{:.0}", scale.of(*t))).collect()),
        flows: joined(flows.iter().map(|f| format!("{f:.1}")).collect()),
        at: (set, flow),
    }
}

fn description(map: &ProcessWindow, set: usize, flow: usize, tried: bool) -> String {
    let works = map.candidates.iter().filter(|c| c.outcome() == WindowCell::Works).count();
    let here = match map.at(flow, set).outcome() {
        WindowCell::Works => "works",
        WindowCell::Hurts => "damages something first",
        WindowCell::TooCool => "does not melt everything",
    };
    let all = map.candidates.len();
    let keys = if tried { "" } else { " Arrow keys move the setting." };
    format!("Process window: {works} of {all} settings work; this one {here}.{keys}")
}

fn set_ticks(paper: &WindowPaper<'_>) -> Vec<(String, String)> {
    let (sets, scale) = (&paper.map.sets, paper.scale);
    let ends = [sets[0], sets[sets.len() - 1]].map(|set| scale.of(set));
    let place = |at: f64| paper.place(scale.read(at), paper.map.flows[0]).0;
    let at = round_numbers(ends, &[10.0, 20.0, 50.0, 100.0]);
    let mut ticks: Vec<(String, String)> = at.into_iter().map(|at| (n(place(at)), format!("{at:.0}"))).collect();
    with_unit(&mut ticks, scale.symbol(), WIDTH + 8.0);
    ticks
}

fn flow_ticks(paper: &WindowPaper<'_>) -> Vec<(String, String)> {
    let flows = &paper.map.flows;
    let ends = [flows[0], flows[flows.len() - 1]].map(Flow::in_litres_per_minute);
    let place = |at: f64| paper.place(paper.map.sets[0], Flow::litres_per_minute(at)).1;
    round_numbers(ends, &[5.0, 10.0, 20.0, 50.0]).into_iter().map(|at| (n(place(at)), format!("{at:.0}"))).collect()
}

/// Release times that are drawn, s: closer together where they lie apart.
const CONTOURS: [f64; 6] = [20.0, 40.0, 60.0, 80.0, 120.0, 180.0];

/// Lines of equal release time over what works.
fn contours(paper: &WindowPaper<'_>, labels: &mut Labels) -> Vec<(String, Word)> {
    let map = paper.map;
    let release = |c: &WindowPoint| c.release_s.filter(|_| c.outcome() == WindowCell::Works).map(|t| t as f32);
    let values: Vec<Option<f32>> = map.candidates.iter().map(release).collect();
    let field = ScalarField { values: &values, columns: map.sets.len() };
    let (w, h) = paper.cell();
    let place = |x: f64, y: f64| (LEFT + w * (x + 0.5), HEIGHT - h * (y + 0.5));
    let lines = CONTOURS.into_iter().enumerate().filter_map(|(k, at)| {
        let pieces = field.pieces(at as f32, place);
        // Labels stand along a diagonal: each a little further along its line than the one before.
        let [label, _] = *pieces.get(pieces.len() * (2 + k) / 9)?;
        Some((at, path(&pieces), label))
    });
    // Where two lines run close together the later one goes without its label.
    let labelled = |(at, path, place): (f64, String, (f64, f64))| {
        let text = format!("{at:.0} s");
        let wanted = Wanted { text: &text, at: place, high: LETTERS, anchor: Anchor::Middle, gives_way: 0 };
        let placed = labels.place(wanted);
        let (x, y) = placed.unwrap_or(place);
        let text = if placed.is_some() { text } else { String::new() };
        (path, Word { x: n(x), y: n(y), text, anchor: Anchor::Middle.svg() })
    };
    lines.map(labelled).collect()
}

/// Marks stay where they are: words give way to them.
fn checks(paper: &WindowPaper<'_>, rechecked: &[Recheck], labels: &mut Labels) -> Vec<Word> {
    let (w, h) = paper.cell();
    let mut check = |r: &Recheck| {
        let (x, y) = paper.corner(r.at.1, r.at.0);
        let text = if r.outcome == paper.map.at(r.at.0, r.at.1).outcome() { "✓" } else { "✕" };
        let (x, y) = (x + w / 2.0, y + h / 2.0);
        labels.keep_free(x, y, CHECK);
        Word { x: n(x), y: n(y), text: text.to_owned(), anchor: "middle" }
    };
    rechecked.iter().map(&mut check).collect()
}

/// At each edge of the window what binds there, once each, where most of that edge is.
fn words(paper: &WindowPaper<'_>, board: &Board, labels: &mut Labels) -> Vec<Word> {
    let map = paper.map;
    let mut edges: BTreeMap<(bool, String), Vec<(f64, f64)>> = BTreeMap::new();
    for flow in 0..map.flows.len() {
        for set in 1..map.sets.len() {
            let (before, after) = (map.at(flow, set - 1), map.at(flow, set));
            let at = paper.corner(set, flow);
            match (before.outcome(), after.outcome()) {
                (WindowCell::Works | WindowCell::TooCool, WindowCell::Hurts) => {
                    let name = after.damage.map(|(_, k)| damaged(&map.damaged[k])).unwrap_or_default();
                    edges.entry((true, name)).or_default().push(at);
                }
                (WindowCell::TooCool, WindowCell::Works) => {
                    let row = board.connector.joints.get(before.last_joint).map(|j| j.row.clone()).unwrap_or_default();
                    edges.entry((false, row)).or_default().push(at);
                }
                _ => {}
            }
        }
    }
    /// An edge shorter than this is not named, cells.
    const SHORTEST: usize = 4;
    let long = edges.into_iter().filter(|(_, places)| places.len() >= SHORTEST);
    let word = |((hurts, name), places): ((bool, String), Vec<(f64, f64)>)| {
        let (x, y) = places[places.len() / 2];
        let (text, x, anchor) = match (hurts, x > WIDTH - LONGEST_WORD) {
            (false, _) => (format!("{name}: not molten"), x - 10.0, Anchor::End),
            (true, false) => (format!("{name} first"), x + 10.0, Anchor::Start),
            (true, true) => (format!("{name} first"), WIDTH - 8.0, Anchor::End),
        };
        let (x, y) = labels.place(Wanted { text: &text, at: (x, y), high: LETTERS, anchor, gives_way: 4 })?;
        Some(Word { x: n(x), y: n(y), text, anchor: anchor.svg() })
    };
    long.filter_map(word).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{gull, planned, power_board};
    use mend_core::planning::damaged::Damaged;

    /// Six by three settings: release falls to the right, the strongest flow hurts at the right end.
    fn map() -> ProcessWindow {
        let candidate = |k: usize| {
            let (set, flow) = (k % 6, k / 6);
            let release_s = (set > 0).then_some(110.0 - 20.0 * set as f64);
            let damage = (set == 5 && flow == 2).then_some((5.0, 0));
            WindowPoint { release_s, damage, last_joint: 0 }
        };
        ProcessWindow {
            sets: (0..6).map(|k| Temperature::celsius(300.0 + 20.0 * k as f64)).collect(),
            flows: (0..3).map(|k| Flow::litres_per_minute(40.0 + 20.0 * k as f64)).collect(),
            candidates: (0..18).map(candidate).collect(),
            damaged: vec![Damaged::Component { name: "fuse".to_owned() }],
        }
    }

    fn drawn(rechecked: &[Recheck]) -> WindowMap {
        let air = planned().0.settings.air.expect("the demo heats with air");
        let air = HotAir { set: Temperature::celsius(340.0), flow: Flow::litres_per_minute(60.0), ..air };
        window_map(
            &map(),
            rechecked,
            &WindowOf { board: &power_board(), station: &gull(), air: &air, tried: &[] },
            Scale::Celsius,
        )
    }

    #[test]
    fn cells_are_shaded_by_release_and_hatched_where_something_is_hurt() {
        let map = drawn(&[]);
        let classes = |class: &str| map.cells.iter().filter(|c| c.class == class).count();
        assert_eq!((classes("cool"), classes("hurts"), classes("w4")), (3, 1, 3));
        assert_eq!(map.at, (2, 1));
        assert!(map.description.contains("14 of 18 settings work; this one works"), "{}", map.description);
    }

    #[test]
    fn lines_of_equal_release_carry_their_seconds() {
        let labels: Vec<String> = drawn(&[]).contours.iter().map(|(_, word)| word.text.clone()).collect();
        assert_eq!(labels, ["20 s", "40 s", "60 s", "80 s"]);
        assert!(drawn(&[]).contours.iter().all(|(path, _)| path.starts_with('M')));
    }

    #[test]
    fn a_recheck_is_ticked_where_it_agrees_and_crossed_where_not() {
        let check = |at, outcome| Recheck { at, outcome, release_s: None };
        let checks = [check((1, 2), WindowCell::Works), check((1, 3), WindowCell::Hurts)];
        let marks: Vec<String> = drawn(&checks).checks.iter().map(|word| word.text.clone()).collect();
        assert_eq!(marks, ["✓", "✕"]);
    }
}
