//! What becomes of a joint in an attempt.

use crate::solder::Residue;

/// Liquid for so long a land is wetted, s (E, 0.5-2).
const WETS_S: f64 = 1.0;
/// Liquid under fresh braid for so long a pass is done, s (E, 1-3).
const PASS_S: f64 = 1.5;

/// What became of a joint so far.
#[derive(Debug, Clone, PartialEq)]
pub struct JointFate {
    /// Liquid at the moment, so far that it lets go.
    pub free: bool,
    /// When it first was, s.
    pub freed_s: Option<f64>,
    /// Its land or barrel came off the board.
    pub torn: bool,
    /// Passes of braid.
    pub passes: u32,
    pub(super) liquid_s: f64,
    under_braid_s: f64,
    pub(super) residue: Residue,
}

impl JointFate {
    pub(super) fn new(residue: Residue) -> Self {
        Self { free: false, freed_s: None, torn: false, passes: 0, liquid_s: 0.0, under_braid_s: 0.0, residue }
    }

    /// Has the new part's pin been wetted?
    pub fn is_wetted(&self) -> bool {
        self.liquid_s >= WETS_S
    }

    /// A step on.
    pub(super) fn goes_on(&mut self, free: bool, at_s: f64, step_s: f64) {
        self.free = free;
        if free {
            self.freed_s.get_or_insert(at_s);
            self.liquid_s += step_s;
        }
    }

    /// A step under a tip with braid: one pass, until the braid is fresh again.
    pub(super) fn braided(&mut self, step_s: f64) {
        if !self.free {
            return;
        }
        let before = self.under_braid_s;
        self.under_braid_s += step_s;
        if before < PASS_S && self.under_braid_s >= PASS_S {
            self.passes += 1;
            self.residue.wicked();
        }
    }

    /// The braid is taken up: the next piece is fresh.
    pub(super) fn fresh_braid(&mut self) {
        self.under_braid_s = 0.0;
    }
}
