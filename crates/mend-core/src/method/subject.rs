//! What is to be done with what: the board, what its joints hold, the station, what the shop has, what is kept intact.

use super::equipment::Equipment;
use super::reason::Obstacle;
use crate::board::{Board, Component, Joint, KeepIntact, Rect};
use crate::heat::iron::{TOO_WIDE, pitch_at};
use crate::heat::known::Knowledge;
use crate::heat::purpose::Purpose;
use crate::heat::station::Station;
use crate::solder::JointComposition;
use crate::units::{Length, Temperature};

/// A board that carries away this much is heavy, W/K (E: six layers of 35 µm at 1.6 mm carry 0.026, ten with four planes 0.06).
const HEAVY: f64 = 0.045;
/// A body with a limit below this is shy of heat, °C (E: below it lead-free reflow is no option).
const SHY: Temperature = Temperature::celsius(265.0);
/// Things within this of the part are under the same jet, mm (E).
const NEAR_MM: f64 = 10.0;
/// A barrel of an iron melts what stands this close to the joints, mm (E).
const BARREL_MM: f64 = 3.0;

/// What is asked.
#[derive(Debug, Clone, Copy)]
pub struct Subject<'a> {
    /// The board with its part.
    pub board: &'a Board,
    /// What the joints hold, as the alloy stop has it.
    pub composition: &'a JointComposition,
    /// The hot-air station.
    pub station: &'a Station,
    /// What the shop has and can.
    pub equipment: &'a Equipment,
    /// What must come through alive.
    pub keep_intact: KeepIntact,
    /// What has been learnt of station, board, hand and place.
    pub known: &'a Knowledge,
    /// What the heat is for.
    pub purpose: Purpose,
}

impl<'a> Subject<'a> {
    /// Every joint of the part.
    pub fn joints(&self) -> &'a [Joint] {
        &self.board.connector.joints
    }

    /// Joints that neither tip nor eye gets to.
    pub fn hidden(&self) -> usize {
        self.joints().iter().filter(|joint| joint.hidden).count()
    }

    /// Joints in plated holes.
    pub fn holes(&self) -> usize {
        self.board.connector.holes()
    }

    /// Does the board carry heat away fast?
    pub fn is_heavy(&self) -> bool {
        self.board.carries_away() >= HEAVY
    }

    /// Is the part's own body shy of heat?
    pub fn is_shy(&self) -> bool {
        self.board.connector.material.limit() < SHY
    }

    /// Components shy of heat within reach of a jet on this part, on one face, nearest first.
    pub fn shy_near(&self, face: crate::board::Face) -> Vec<(&'a Component, f64)> {
        let shy = self.board.components.iter().filter(|n| n.face == face && n.limit() < SHY);
        let mut near: Vec<(&Component, f64)> = shy.map(|n| (n, apart(&self.board.connector.body, &n.body))).collect();
        near.retain(|(_, mm)| *mm <= NEAR_MM);
        near.sort_by(|a, b| a.1.total_cmp(&b.1));
        near
    }

    /// A component on the part's face that the barrel of an iron would touch.
    pub fn under_the_barrel(&self) -> Option<&'a Component> {
        let near = |n: &&Component| {
            self.joints().iter().any(|joint| !joint.hidden && apart(&joint.covers(), &n.body) < BARREL_MM)
        };
        self.board.components.iter().filter(|n| n.face == self.board.connector.face && n.limit() < SHY).find(near)
    }

    /// The least pitch of what a tip gets to, mm; none of a single joint.
    pub fn pitch_mm(&self) -> Option<f64> {
        let reached = self.joints().iter().filter(|joint| !joint.hidden);
        reached.filter_map(|joint| pitch_at(joint, self.board)).min_by(f64::total_cmp)
    }

    /// Tips that touch one joint alone.
    pub fn fine_tips(&self) -> Vec<Length> {
        let widest = self.pitch_mm().map_or(f64::INFINITY, |pitch| TOO_WIDE * pitch);
        self.equipment.tips.iter().copied().filter(|tip| tip.in_mm() <= widest).collect()
    }

    /// Why joint by joint is no way, where tips are too wide for it.
    pub fn tips_too_wide(&self) -> Option<Obstacle> {
        let too_wide = !self.equipment.tips.is_empty() && self.fine_tips().is_empty();
        self.pitch_mm().filter(|_| too_wide).map(|pitch_mm| Obstacle::TipsTooWide { pitch_mm })
    }

    /// Rows with a joint that a tip gets to.
    pub fn reachable_rows(&self) -> Vec<String> {
        let mut rows: Vec<String> = Vec::new();
        for joint in self.joints().iter().filter(|joint| !joint.hidden) {
            if !rows.contains(&joint.row) {
                rows.push(joint.row.clone());
            }
        }
        rows
    }
}

/// Gap between two rectangles, mm; 0 where they overlap.
pub(crate) fn apart(a: &Rect, b: &Rect) -> f64 {
    let dx = (a.centre.x - b.centre.x).abs() - (a.width + b.width) / 2.0;
    let dy = (a.centre.y - b.centre.y).abs() - (a.depth + b.depth) / 2.0;
    dx.max(0.0).hypot(dy.max(0.0))
}
