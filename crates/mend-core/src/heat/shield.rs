//! What is laid over components, and how much of the jet comes through it. No measured data stand behind these (heating.md,
//! section 5): order of magnitude only, so the samples spread their resistance widely.
//!
//! A shield on the face that the air meets delays what it covers; on a face that no air meets it only keeps heat in.

use serde::{Deserialize, Serialize};

use crate::board::{Face, Point, Rect};

/// Still air, W/mK (T, at about 150 °C; heating.md takes it for the tent's gap).
const AIR_CONDUCTIVITY: f64 = 0.034;
/// Dry contact of a block, W/m²K (E, 500-2000; with grease 3000-10000).
const BLOCK_CONTACT: f64 = 1000.0;
/// Copper of a block, J/m³K (T).
const BLOCK_CAPACITY: f64 = 3.45e6;

/// Steel jaws clamped on laminate, W/m²K (E, 300-1000).
const JAW_CONTACT: f64 = 500.0;
/// 20 mm of steel behind the contact, J/m²K (E).
const JAW_CAPACITY: f64 = 0.020 * 3.9e6;
/// A finger on laminate, W/m²K (E, 100-300).
const FINGER_CONTACT: f64 = 150.0;

/// What it is made of.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", tag = "kind")]
pub enum ShieldKind {
    /// Polyimide tape, in layers, pressed down.
    Polyimide {
        /// Layers, 1-6.
        layers: u32,
    },
    /// Adhesive aluminium tape, pressed down: conducts along itself.
    AluminiumTape,
    /// Aluminium foil standing off what it covers.
    FoilTent {
        /// Air between foil and what it covers, mm, 0.5-10.
        gap_mm: f64,
    },
    /// A copper block laid on as a heat sink.
    MetalBlock {
        /// Its height, mm, 1-30.
        height_mm: f64,
    },
    /// The jaw of a holder, clamped on: it draws heat off its place.
    HolderJaw,
    /// A finger that holds the board down.
    Finger,
}

/// A shield over an area of a face.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(try_from = "ShieldFile", into = "ShieldFile")]
pub struct Shield {
    /// What it is made of.
    pub kind: ShieldKind,
    /// The face it lies on.
    pub face: Face,
    /// Its middle, mm.
    pub at_mm: [f64; 2],
    /// Along x, mm.
    pub width_mm: f64,
    /// Along y, mm.
    pub depth_mm: f64,
}

/// As it is written: what the kind wants stands beside the rest. Spelt out, not flattened: a reader that flattens can't refuse
/// a field that it does not know.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ShieldFile {
    kind: ShieldFileKind,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    layers: Option<u32>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    gap_mm: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    height_mm: Option<f64>,
    face: Face,
    at_mm: [f64; 2],
    width_mm: f64,
    depth_mm: f64,
}

#[derive(Clone, Copy, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
enum ShieldFileKind {
    Polyimide,
    AluminiumTape,
    FoilTent,
    MetalBlock,
    HolderJaw,
    Finger,
}

impl TryFrom<ShieldFile> for Shield {
    type Error = &'static str;

    fn try_from(written: ShieldFile) -> Result<Self, Self::Error> {
        let ShieldFile { kind, layers, gap_mm, height_mm, face, at_mm, width_mm, depth_mm } = written;
        let kind = match (kind, layers, gap_mm, height_mm) {
            (ShieldFileKind::Polyimide, Some(layers), None, None) => ShieldKind::Polyimide { layers },
            (ShieldFileKind::AluminiumTape, None, None, None) => ShieldKind::AluminiumTape,
            (ShieldFileKind::FoilTent, None, Some(gap_mm), None) => ShieldKind::FoilTent { gap_mm },
            (ShieldFileKind::MetalBlock, None, None, Some(height_mm)) => ShieldKind::MetalBlock { height_mm },
            (ShieldFileKind::HolderJaw, None, None, None) => ShieldKind::HolderJaw,
            (ShieldFileKind::Finger, None, None, None) => ShieldKind::Finger,
            (ShieldFileKind::HolderJaw | ShieldFileKind::Finger, ..) => {
                return Err("a holder's jaw and a finger have neither layers nor gap_mm nor height_mm");
            }
            (ShieldFileKind::Polyimide, ..) => return Err("polyimide has layers, and neither gap_mm nor height_mm"),
            (ShieldFileKind::AluminiumTape, ..) => {
                return Err("aluminium tape has neither layers nor gap_mm nor height_mm");
            }
            (ShieldFileKind::FoilTent, ..) => return Err("a foil tent has gap_mm, and neither layers nor height_mm"),
            (ShieldFileKind::MetalBlock, ..) => {
                return Err("a metal block has height_mm, and neither layers nor gap_mm");
            }
        };
        Ok(Self { kind, face, at_mm, width_mm, depth_mm })
    }
}

impl From<Shield> for ShieldFile {
    fn from(shield: Shield) -> Self {
        let Shield { kind, face, at_mm, width_mm, depth_mm } = shield;
        let (kind, layers, gap_mm, height_mm) = match kind {
            ShieldKind::Polyimide { layers } => (ShieldFileKind::Polyimide, Some(layers), None, None),
            ShieldKind::AluminiumTape => (ShieldFileKind::AluminiumTape, None, None, None),
            ShieldKind::FoilTent { gap_mm } => (ShieldFileKind::FoilTent, None, Some(gap_mm), None),
            ShieldKind::MetalBlock { height_mm } => (ShieldFileKind::MetalBlock, None, None, Some(height_mm)),
            ShieldKind::HolderJaw => (ShieldFileKind::HolderJaw, None, None, None),
            ShieldKind::Finger => (ShieldFileKind::Finger, None, None, None),
        };
        Self { kind, layers, gap_mm, height_mm, face, at_mm, width_mm, depth_mm }
    }
}

impl Shield {
    /// What it covers.
    pub fn area(&self) -> Rect {
        let [x, y] = self.at_mm;
        Rect { centre: Point { x, y }, width: self.width_mm, depth: self.depth_mm }
    }

    /// Share of a body on a face that it covers, 0-1.
    pub fn covers(&self, face: Face, body: &Rect) -> f64 {
        if face == self.face { self.area().shared(body) / body.area() } else { 0.0 }
    }

    /// Heat capacity of what draws heat off, J/K, and its contact with what it lies on, W/K; tapes and tents have neither. A finger
    /// stays as warm as it is.
    pub fn block(&self) -> Option<(f64, f64)> {
        let area = self.area().area() * 1e-6;
        match self.kind {
            ShieldKind::MetalBlock { height_mm } => {
                Some((BLOCK_CAPACITY * area * height_mm * 1e-3, BLOCK_CONTACT * area))
            }
            ShieldKind::HolderJaw => Some((JAW_CAPACITY * area, JAW_CONTACT * area)),
            ShieldKind::Finger => Some((f64::INFINITY, FINGER_CONTACT * area)),
            _ => None,
        }
    }
}

impl ShieldKind {
    /// What it does to the air. `resistance` scales what it resists with (1 as by the book).
    pub fn screen(self, resistance: f64) -> Screen {
        let screen = |deflect: f64, resists: f64, leak: f64, emissivity: f64| Screen {
            deflect,
            resistance: resists * resistance,
            leak,
            emissivity,
        };
        match self {
            // Film and adhesive alone are 4e-4; what helps is trapped air and deflection (E: R 4e-4 to 5e-3, f 0.5-1).
            Self::Polyimide { layers } => screen(0.85, 1.0e-3 * f64::from(layers) + 1.0e-3, 0.0, 1.0),
            // E: R 3e-4 to 4e-3.
            Self::AluminiumTape => screen(0.85, 1.2e-3, 0.0, 0.12),
            // T for the gap, E for the leak (0.03-0.3).
            Self::FoilTent { gap_mm } => screen(1.0, gap_mm * 1e-3 / AIR_CONDUCTIVITY, 0.08, 0.08),
            // Nothing but contact.
            Self::MetalBlock { .. } | Self::HolderJaw | Self::Finger => screen(0.0, f64::INFINITY, 0.0, 0.0),
        }
    }

    /// How far heat spreads along it before it goes down, mm; none but in metal tape. A sheet of k t over a resistance R to
    /// what it lies on is a fin of length sqrt(k t R): 0.012 W/K (50 µm of aluminium, T) and 1.2e-3 give 3.8 mm.
    pub fn spreads_mm(self) -> Option<f64> {
        matches!(self, Self::AluminiumTape).then(|| (0.012_f64 * 1.2e-3).sqrt() * 1e3)
    }
}

/// What comes through: h' = f h / (1 + f h R) + leak h, the same for h x gas, emissivity by a factor (heating.md, equation 14).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Screen {
    /// Share of the jet that still reaches it, f.
    pub deflect: f64,
    /// R, m²K/W.
    pub resistance: f64,
    /// Share that gets in by the edges.
    pub leak: f64,
    /// On the emissivity.
    pub emissivity: f64,
}

impl Screen {
    /// (h, h x gas) below it of a jet's `(h, q)`, in air that `both` joins to the quiet convection.
    pub fn below(&self, h: f64, q: f64, both: impl Fn(f64) -> f64) -> (f64, f64) {
        if self.resistance.is_infinite() {
            return (0.0, 0.0);
        }
        let outside = both(self.deflect * h);
        let series = 1.0 / (1.0 + outside * self.resistance);
        (outside * series + self.leak * h, self.deflect * q * series + self.leak * q)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Section 5 of heating.md: what is left of h.
    #[test]
    fn what_comes_through_is_that_of_the_table() {
        let tent = |gap_mm| ShieldKind::FoilTent { gap_mm };
        let tape = |layers| ShieldKind::Polyimide { layers };
        let table = [
            (60.0, [0.77, 0.71, 0.80, 0.44, 0.24]),
            (120.0, [0.71, 0.60, 0.76, 0.30, 0.17]),
            (250.0, [0.60, 0.46, 0.68, 0.20, 0.12]),
        ];
        for (h, left) in table {
            let kinds = [tape(1), tape(3), ShieldKind::AluminiumTape, tent(1.0), tent(3.0)];
            for (kind, left) in kinds.iter().zip(left) {
                let (below, q) = kind.screen(1.0).below(h, h * 300.0, |h| h);
                assert!((below / h - left).abs() < 0.006, "{kind:?} at {h}: {}", below / h);
                assert!((q / (300.0 * below) - 1.0).abs() < 1e-9, "the gas stays as hot");
            }
        }
    }
}
