//! How the nozzle moves over the part.

use serde::{Deserialize, Serialize};

use crate::board::Rect;

/// Radius of the small circle, mm (E: a wrist at rest).
const CIRCLE_MM: f64 = 4.0;

/// How the nozzle moves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Motion {
    /// Held over one place.
    Still,
    /// A small circle about it, several times a second.
    Circle,
    /// To and fro along the part's long side.
    AlongRow,
    /// Swept over the whole part, several times a second.
    Sweeping,
}

impl Motion {
    /// All of them, from the stillest.
    pub const ALL: [Self; 4] = [Self::Still, Self::Circle, Self::AlongRow, Self::Sweeping];

    /// Its name in running text.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Still => "still",
            Self::Circle => "small circle",
            Self::AlongRow => "along the row",
            Self::Sweeping => "sweeping",
        }
    }

    /// Places the nozzle visits, as offsets from where it is aimed in mm: one, twelve on a circle, five along the long side
    /// of the body, or 5 x 3 over it (heating.md, equation 8). Each for the same share of the time.
    pub fn path(self, body: &Rect) -> Vec<(f64, f64)> {
        const ALONG: [f64; 5] = [-0.5, -0.25, 0.0, 0.25, 0.5];
        let over = |across: &[f64]| -> Vec<(f64, f64)> {
            let long_in_x = body.width >= body.depth;
            let place = |a: f64, b: f64| match long_in_x {
                true => (a * body.width, b * body.depth),
                false => (b * body.width, a * body.depth),
            };
            across.iter().flat_map(|b| ALONG.iter().map(move |a| place(*a, *b))).collect()
        };
        match self {
            Self::Still => vec![(0.0, 0.0)],
            Self::Circle => {
                let angle = |k: i32| f64::from(k) * std::f64::consts::TAU / 12.0;
                (0..12).map(|k| (CIRCLE_MM * angle(k).cos(), CIRCLE_MM * angle(k).sin())).collect()
            }
            Self::AlongRow => over(&[0.0]),
            Self::Sweeping => over(&[-0.5, 0.0, 0.5]),
        }
    }
}
