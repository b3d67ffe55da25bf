//! What somebody saw of a board's copper, field by field as it is entered.

use serde::{Deserialize, Serialize};

use crate::board::board_signs::{Beside, BoardSigns, BoardWeight, Feels, Light, Vias};

/// What was seen; empty where nobody looked.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields, default)]
pub struct Looked {
    /// Against a lamp.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub light: Option<Light>,
    /// Holes in pads.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub vias: Option<Vias>,
    /// Copper lines at the rim.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub edge_lines: Option<u32>,
    /// Weight, g.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub grams: Option<f64>,
    /// Area of what was weighed, mm², where it is not that of the outline.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub area_mm2: Option<f64>,
    /// Nothing on it but mask and solder?
    pub bare: bool,
    /// Name and weight per area, g/mm², of a board that one knows.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub known: Option<(String, f64)>,
    /// How this one feels beside it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub feels: Option<Feels>,
}

impl Looked {
    /// For the guess. Half an observation is none.
    pub fn seen(&self, outline_mm2: f64) -> BoardSigns {
        let area_mm2 = self.area_mm2.unwrap_or(outline_mm2);
        let weighed = self.grams.filter(|_| area_mm2 > 0.0);
        let beside = self.known.as_ref().zip(self.feels);
        BoardSigns {
            light: self.light,
            vias: self.vias,
            edge_lines: self.edge_lines,
            weighed: weighed.map(|grams| BoardWeight { grams, area_mm2, bare: self.bare }),
            beside: beside.map(|((_, known), feels)| Beside { known: *known, feels }),
        }
    }

    /// Did anybody look?
    pub fn is_used(&self) -> bool {
        self.seen(1.0) != BoardSigns::default()
    }
}
