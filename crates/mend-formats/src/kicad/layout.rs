//! A whole board file.

use mend_core::board::{Outline, Point, StackUp};
use mend_core::finding::Finding;
use mend_core::units::Length;

use super::footprint::{Footprint, of_list};
use super::notes::ImportNotes;
use super::sexpr::{Sexpr, read};
use super::{RULE, WORD, copper, outline};
use crate::reading::shown;

/// More footprints than any board that the shop takes has.
const MOST_FOOTPRINTS: usize = 6000;
/// From this share of copper on a layer is a plane (E: planes near a port 0.6-0.9, signal layers 0.2-0.5).
const PLANE: f64 = 0.6;
/// Finished outer foil where the file names none, µm (E).
const USUAL_FOIL_UM: f64 = 35.0;

/// A board as its file describes it. Its rim's lower left corner is the origin, where it has a rim.
#[derive(Debug, Clone, PartialEq)]
pub struct Layout {
    /// The rim, where it closes.
    pub outline: Option<Outline>,
    /// Everything that stands on it, in the file's order.
    pub footprints: Vec<Footprint>,
    /// What was taken for what, and what was left out.
    pub notes: ImportNotes,
    file: Sexpr,
    /// What was taken off every place of the file.
    origin: Point,
}

/// Reads a board file.
pub fn layout(bytes: &[u8]) -> Result<Layout, Vec<Finding>> {
    let file = read(bytes)?;
    if file.head() != "kicad_pcb" {
        let message = format!("begins with “{}”, not with a board", shown(file.head(), WORD));
        return Err(vec![Finding::written(RULE, "file", message).hint("choose a .kicad_pcb file")]);
    }
    let mut notes = ImportNotes::default();
    let rim = outline::outline(&file, &mut notes);
    let lists = file.parts().iter().filter(|part| matches!(part.head(), "footprint" | "module"));
    if lists.clone().count() > MOST_FOOTPRINTS {
        let message = format!("{} footprints", lists.count());
        return Err(vec![
            Finding::written(RULE, "file", message).hint("up to 6000: cut the layout down to the port's side"),
        ]);
    }
    let mut footprints: Vec<Footprint> = lists.map(|list| of_list(list, &mut notes)).collect();
    let drawing = |part: &&Sexpr| part.head().starts_with("gr_") && part.layers().contains(&"Edge.Cuts");
    for part in file.parts().iter().filter(|part| !drawing(part)) {
        if !KNOWN.contains(&part.head()) && !part.head().is_empty() {
            notes.leave_out(part.head());
        }
    }
    let origin = rim.as_ref().map_or(Point { x: 0.0, y: 0.0 }, lower_left);
    footprints.iter_mut().for_each(|f| shift(f, origin));
    let outline = rim.map(|rim| Outline { corners: rim.corners.iter().map(|p| less(*p, origin)).collect() });
    Ok(Layout { outline, footprints, notes, file, origin })
}

/// What is read, or says nothing of the board itself.
const KNOWN: [&str; 17] = [
    "version",
    "generator",
    "generator_version",
    "general",
    "paper",
    "page",
    "title_block",
    "layers",
    "setup",
    "net",
    "net_class",
    "footprint",
    "module",
    "zone",
    "segment",
    "via",
    "property",
];

fn lower_left(outline: &Outline) -> Point {
    let bounds = outline.bounds();
    Point { x: bounds.left(), y: bounds.near() }
}

fn less(p: Point, by: Point) -> Point {
    Point { x: p.x - by.x, y: p.y - by.y }
}

fn shift(footprint: &mut Footprint, by: Point) {
    footprint.pads.iter_mut().for_each(|pad| pad.at = less(pad.at, by));
    if let Some(body) = &mut footprint.body {
        body.centre = less(body.centre, by);
    }
}

impl Layout {
    /// The names of its copper layers, from the top.
    fn copper_layers(&self) -> Vec<String> {
        let listed = self.file.find("layers").map(Sexpr::parts).unwrap_or_default();
        let name = |layer: &Sexpr| {
            layer.parts().get(1).and_then(Sexpr::text).filter(|n| n.ends_with(".Cu")).map(str::to_owned)
        };
        let names: Vec<String> = listed.iter().filter_map(name).collect();
        if names.is_empty() { vec!["F.Cu".to_owned(), "B.Cu".to_owned()] } else { names }
    }

    /// Thickness and copper near a place, with what was taken for what.
    pub(super) fn stack_near(&self, at: Point, notes: &mut ImportNotes) -> StackUp {
        let thickness =
            self.file.find("general").and_then(|g| g.value("thickness")).filter(|t| (0.2..=5.0).contains(t));
        if thickness.is_none() {
            notes.take("thickness not in the file: 1.6 mm taken");
        }
        let layers = self.copper_layers();
        let usual = StackUp::usual(Length::mm(thickness.unwrap_or(1.6)));
        let stack = StackUp { layers: layers.len().clamp(1, 32) as u32, foil_um: self.foil(notes), ..usual };
        let Some(outline) = &self.outline else {
            notes.take("no rim: copper near the part not counted, usual shares taken");
            return StackUp { planes: stack.layers / 2, ..stack };
        };
        // The file's own places: nothing of it was shifted.
        let own = |p: &Point| Point { x: p.x + self.origin.x, y: p.y + self.origin.y };
        let rim = Outline { corners: outline.corners.iter().map(own).collect() };
        let near = copper::near(&self.file, &layers, &rim, own(&at));
        let mean = |cover: Vec<f64>, none: f64| {
            let share = cover.iter().sum::<f64>() / cover.len().max(1) as f64;
            if cover.is_empty() { none } else { (share * 1000.0).round() / 1000.0 }
        };
        let (planes, signals): (Vec<f64>, Vec<f64>) = near.cover.iter().partition(|share| **share >= PLANE);
        notes.take(&format!(
            "{} of {} layers covered to 60 % and more near the part: taken as planes",
            planes.len(),
            layers.len()
        ));
        StackUp {
            planes: planes.len() as u32,
            plane_coverage: mean(planes, 0.8),
            signal_coverage: mean(signals, 0.3),
            vias_per_mm2: Some((near.vias_per_mm2.min(4.0) * 1000.0).round() / 1000.0),
            ..stack
        }
    }

    /// Mean of the copper layers' thickness in the file's own stack-up, µm.
    fn foil(&self, notes: &mut ImportNotes) -> f64 {
        let stackup = self.file.find("setup").and_then(|setup| setup.find("stackup"));
        let copper = stackup
            .into_iter()
            .flat_map(|s| s.all("layer"))
            .filter(|l| l.find("type").and_then(|t| t.word(0)) == Some("copper"));
        let foils: Vec<f64> =
            copper.filter_map(|l| l.value("thickness")).filter(|t| (0.005..=0.21).contains(t)).collect();
        if foils.is_empty() {
            notes.take("foil not in the file: 35 µm taken");
            return USUAL_FOIL_UM;
        }
        (1e4 * foils.iter().sum::<f64>() / foils.len() as f64).round() / 10.0
    }
}
