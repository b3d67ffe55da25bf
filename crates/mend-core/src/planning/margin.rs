//! Everything against its line: joints must get above theirs, all else must stay under its own.

use serde::{Deserialize, Serialize};

use super::band::Band;
use super::damaged::Damaged;
use crate::board::Face;
use crate::materials::BodyMaterial;

/// What a row of the margin strip is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum MarginKind {
    /// Joints that must melt.
    Joints,
    /// The part's own body.
    Body,
    /// A component's body.
    #[serde(alias = "neighbour")]
    Component,
    /// The laminate.
    Laminate,
}

/// How a row stands to its line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum LimitStatus {
    /// Beyond the wanted margin, spread included.
    Inside,
    /// On the right side, but nearer than wanted.
    Near,
    /// One sample in ten is on the wrong side.
    Past,
}

impl LimitStatus {
    fn from_headroom(headroom_k: f64, wanted_k: f64) -> Self {
        match headroom_k {
            k if k < 0.0 => Self::Past,
            k if k < wanted_k => Self::Near,
            _ => Self::Inside,
        }
    }
}

/// What a row is made of.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum MarginDetail {
    /// Joints.
    Joints {
        /// How many.
        joints: usize,
        /// Is any of them under the body?
        hidden: bool,
    },
    /// A component's body.
    Component {
        /// What it is made of.
        material: BodyMaterial,
        /// Where it stands.
        face: Face,
    },
    /// The part's body.
    Body {
        /// What it is made of.
        material: BodyMaterial,
    },
    /// As an older plan wrote it.
    Written(String),
    /// The laminate: its hottest place, on either face.
    HottestPlace,
}

/// One thing in a row: a single joint, or the component itself.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct MarginMark {
    /// `A1`, `latch`.
    pub name: String,
    /// Its temperature, °C: a joint's at the abort time, anything else's highest.
    pub temperature_c: Band,
}

/// A row: things that share a line.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Margin {
    /// What it is about.
    pub kind: MarginKind,
    /// The row of joints or the component, as the board names it; of the part's body the part's name, of the laminate none.
    pub name: String,
    /// What it is made of or how many there are.
    pub detail: MarginDetail,
    /// Everything in it.
    pub marks: Vec<MarginMark>,
    /// Melting line or limit, °C.
    pub line_c: f64,
    /// How far to either side the line itself may lie, K: eight in ten. Zero for a limit.
    pub line_spread_k: f64,
    /// The tightest margin with its spread, K: positive on the right side of the line.
    #[serde(alias = "margin_k")]
    pub headroom_k: f64,
    /// How it stands.
    #[serde(alias = "standing")]
    pub status: LimitStatus,
    /// Shown for knowledge only: an expendable part may deform.
    pub expendable: bool,
    /// For how long it is hot enough to count; none for joints and for what stands nothing even for a moment.
    #[serde(default)]
    pub hot: Option<HotFor>,
    /// Where it stood at the end of each stage before the last, as computed, °C; of a row of joints, its first.
    #[serde(default, alias = "passes_c", skip_serializing_if = "Vec::is_empty")]
    pub stages_c: Vec<f64>,
}

/// For how long something is hot.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct HotFor {
    /// s, as computed.
    pub s: f64,
    /// At this temperature or above, °C.
    pub above_c: f64,
}

/// What a row is about.
#[derive(Debug, Clone, PartialEq)]
pub struct RowHead {
    /// Joints, the part's body, a component or the laminate.
    pub kind: MarginKind,
    /// `row A`, `keyboard latch`.
    pub name: String,
    /// What it is made of or how many there are.
    pub detail: MarginDetail,
}

impl Margin {
    /// The row with its tightest margin computed, `wanted_k` as the margin below which it is near.
    pub fn from_marks(head: RowHead, marks: Vec<MarginMark>, line_c: f64, wanted_k: f64) -> Self {
        let RowHead { kind, name, detail } = head;
        let margin = |mark: &MarginMark| match kind {
            MarginKind::Joints => mark.temperature_c.low - line_c,
            _ => line_c - mark.temperature_c.high,
        };
        let headroom_k = marks.iter().map(margin).fold(f64::INFINITY, f64::min);
        let status = LimitStatus::from_headroom(headroom_k, wanted_k);
        let (line_spread_k, expendable, hot, stages_c) = (0.0, false, None, Vec::new());
        Self { kind, name, detail, marks, line_c, line_spread_k, headroom_k, status, expendable, hot, stages_c }
    }

    /// The same against a line that is itself a band: its half width, and the margin as the samples saw it.
    pub fn against_a_spread(self, line_spread_k: f64, headroom_k: f64, wanted_k: f64) -> Self {
        Self { line_spread_k, headroom_k, status: LimitStatus::from_headroom(headroom_k, wanted_k), ..self }
    }

    /// The same, for something that may be lost.
    pub fn expendable(self) -> Self {
        Self { expendable: true, ..self }
    }

    /// The same, with where it stood after the stages before the last.
    pub fn after(self, stages_c: Vec<f64>) -> Self {
        Self { stages_c, ..self }
    }

    /// What is damaged when it passes its limit.
    pub fn damaged(&self) -> Damaged {
        match self.kind {
            MarginKind::Body => Damaged::PartBody,
            MarginKind::Laminate => Damaged::Laminate,
            MarginKind::Component | MarginKind::Joints => Damaged::Component { name: self.name.clone() },
        }
    }

    /// The mark nearest to the line, on the wrong side first.
    pub fn tightest(&self) -> Option<&MarginMark> {
        let key = |m: &&MarginMark| match self.kind {
            MarginKind::Joints => m.temperature_c.low,
            _ => -m.temperature_c.high,
        };
        self.marks.iter().min_by(|a, b| key(a).total_cmp(&key(b)))
    }

    /// Lowest and highest of all bands in the row, °C.
    pub fn span(&self) -> (f64, f64) {
        self.marks.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), m| {
            (low.min(m.temperature_c.low), high.max(m.temperature_c.high))
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn row(kind: MarginKind, low: f64, high: f64, line: f64) -> Margin {
        let band = Band { low, mid: (low + high) / 2.0, high };
        let mark = MarginMark { name: "x".to_owned(), temperature_c: band };
        Margin::from_marks(
            RowHead { kind, name: "x".to_owned(), detail: MarginDetail::HottestPlace },
            vec![mark],
            line,
            15.0,
        )
    }

    #[test]
    fn a_margin_counts_from_the_bad_end_of_the_band() {
        assert_eq!(row(MarginKind::Joints, 230.0, 260.0, 220.0).headroom_k, 10.0);
        assert_eq!(row(MarginKind::Component, 190.0, 215.0, 235.0).headroom_k, 20.0);
        assert_eq!(row(MarginKind::Component, 190.0, 240.0, 235.0).status, LimitStatus::Past);
        assert_eq!(row(MarginKind::Component, 190.0, 225.0, 235.0).status, LimitStatus::Near);
        assert_eq!(row(MarginKind::Joints, 240.0, 260.0, 220.0).status, LimitStatus::Inside);
    }
}
