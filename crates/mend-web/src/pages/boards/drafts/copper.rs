//! The stack-up: what was seen of it, what that comes to, and how sure that is.

use askama::Template;
use mend_core::board::board_signs::{Feels, Light, Vias};
use mend_core::board::draft::{Draft, Target};
use mend_core::board::stack_guess::StackGuess;
use mend_core::board::{Crowding, StackUp, StiffenerMaterial};

use super::field::{FieldView, Fields, short};
use crate::pages::word;

/// Odds of a number of layers, as a bar.
pub(crate) struct Bar {
    pub(crate) layers: u32,
    pub(crate) percent: String,
    /// Of the longest bar, 0-100.
    pub(crate) length: u32,
}

/// The panel.
#[derive(Template)]
#[template(path = "boards/drafts/panel_copper.html")]
pub(crate) struct CopperPanel {
    thickness: Vec<FieldView>,
    seen: Vec<FieldView>,
    known: Vec<FieldView>,
    typed: Vec<FieldView>,
    bars: Vec<Bar>,
    conducts: String,
    sure: String,
    at_odds: bool,
    guessed: bool,
}

fn choices<T: serde::Serialize>(all: &[(T, &str)]) -> Vec<(String, String)> {
    let none = (String::new(), "not looked".to_owned());
    std::iter::once(none).chain(all.iter().map(|(value, label)| (word(value), (*label).to_owned()))).collect()
}

fn chosen<T: serde::Serialize>(value: Option<&T>) -> String {
    value.map(word).unwrap_or_default()
}

impl CopperPanel {
    /// `known`: names and weights per area, g/mm², of the library's boards.
    pub(super) fn from_draft(draft: &Draft, known: &[(String, f64)]) -> Self {
        let stack = &draft.stack;
        let guess = draft.guess();
        let spread = stack.conduction_spread();
        let (low, high) = (stack.in_plane() * (-1.2816 * spread).exp(), stack.in_plane() * (1.2816 * spread).exp());
        let (low, high) = guess.as_ref().map_or((low, high), |guess| guess.in_plane);
        Self {
            thickness: shape(stack),
            seen: seen(draft),
            known: beside(draft, known),
            typed: typed(draft),
            bars: guess.as_ref().map(bars).unwrap_or_default(),
            conducts: format!("{low:.0}–{high:.0} W/mK along"),
            sure: format!("eight in ten; spread {spread:.2} goes into every band of the plan"),
            at_odds: guess.as_ref().is_some_and(|guess| guess.at_odds),
            guessed: guess.is_some(),
        }
    }
}

/// Its thickness, what small parts stand on it, and what is glued under the part.
fn shape(stack: &StackUp) -> Vec<FieldView> {
    let crowding = Crowding::ALL.map(|crowding| (word(&crowding), crowding.name().to_owned()));
    let none = (String::new(), "none".to_owned());
    let materials = StiffenerMaterial::ALL.map(|material| (word(&material), material.name().to_owned()));
    let stiffener = stack.stiffener;
    let fields = Fields::for_target(Target::Stack, "stack")
        .field("thickness", "Thickness, by caliper")
        .number(Some(stack.thickness.in_mm()), "mm")
        .field("crowding", "Small parts on it")
        .choice(&word(&stack.crowding), crowding.into())
        .field("stiffener", "Stiffener under the part")
        .choice(
            &chosen(stiffener.as_ref().map(|stiffener| &stiffener.material)),
            std::iter::once(none).chain(materials).collect(),
        );
    match stiffener {
        Some(stiffener) => {
            fields.field("stiffener_mm", "Its thickness").number(Some(stiffener.thickness.in_mm()), "mm").all
        }
        None => fields.all,
    }
}

fn seen(draft: &Draft) -> Vec<FieldView> {
    let looked = &draft.looked;
    let light = [
        (Light::Between, "shines between the traces"),
        (Light::Clearances, "only in rings round holes"),
        (Light::Nowhere, "nowhere"),
    ];
    let vias =
        [(Vias::Open, "open holes"), (Vias::Covered, "covered with mask"), (Vias::Filled, "filled flat, in pads")];
    let area = draft.outline.area();
    let area =
        if area > 0.0 { format!("empty: {area:.0} mm² of the outline") } else { "of what was weighed".to_owned() };
    Fields::for_target(Target::Looked, "looked")
        .field("light", "Lamp behind it")
        .choice(&chosen(looked.light.as_ref()), choices(&light))
        .field("vias", "Holes near fine parts")
        .choice(&chosen(looked.vias.as_ref()), choices(&vias))
        .field("edge_lines", "Copper lines at the rim")
        .number(looked.edge_lines.map(f64::from), "")
        .field("grams", "Weight")
        .number(looked.grams, "g")
        .field("area", "Its area")
        .number(looked.area_mm2, "mm²")
        .hint(&area)
        .field("bare", "Bare: no parts on it")
        .tick(looked.bare)
        .all
}

fn beside(draft: &Draft, known: &[(String, f64)]) -> Vec<FieldView> {
    let looked = &draft.looked;
    let value = |(name, weight): &(String, f64)| format!("{weight:.6} {name}");
    let none = (String::new(), "none".to_owned());
    let boards = std::iter::once(none).chain(known.iter().map(|board| (value(board), board.0.clone())));
    let feels =
        [(Feels::Lighter, "clearly lighter"), (Feels::Same, "about the same"), (Feels::Heavier, "clearly heavier")];
    let chosen_board = looked.known.as_ref().map(value).unwrap_or_default();
    Fields::for_target(Target::Looked, "looked")
        .field("known", "Beside a board you know")
        .choice(&chosen_board, boards.collect())
        .field("feels", "For its size it feels")
        .choice(&chosen(looked.feels.as_ref()), choices(&feels))
        .all
}

fn typed(draft: &Draft) -> Vec<FieldView> {
    let stack = &draft.stack;
    Fields::for_target(Target::Stack, "stack")
        .field("layers", "Copper layers")
        .number(Some(f64::from(stack.layers)), "")
        .field("planes", "of them planes")
        .number(Some(f64::from(stack.planes)), "")
        .field("foil", "Foil")
        .number(Some(stack.foil_um), "µm")
        .field("plane_coverage", "Copper of a plane")
        .number(Some(100.0 * stack.plane_coverage), "%")
        .field("signal_coverage", "Copper of a signal layer")
        .number(Some(100.0 * stack.signal_coverage), "%")
        .field("vias", "Holes near the port")
        .number(stack.vias_per_mm2, "/mm²")
        .all
}

fn bars(guess: &StackGuess) -> Vec<Bar> {
    let longest = guess.layers.iter().map(|(_, odds)| *odds).fold(0.01, f64::max);
    let bar = |(layers, odds): &(u32, f64)| Bar {
        layers: *layers,
        percent: short((100.0 * odds).round()),
        length: (100.0 * odds / longest).round() as u32,
    };
    guess.layers.iter().map(bar).collect()
}
