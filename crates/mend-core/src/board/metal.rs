//! How much solder a joint holds, from its geometry. All of it is engineering estimate but for the lengths themselves: a
//! factory joint is within x0.5-2 of this. (Flat figures by kind, 0.04 to 6 mm³, stood here before: right for the stout
//! legs of a power jack, up to ten times too much for the small legs of a port.)

use std::f64::consts::{FRAC_PI_4, PI};

use super::{Joint, JointShape, Role};
use crate::units::Length;

/// Solder on a pad, spread to a film, mm (E, x0.5-2: 0.74 mg on 1 mm²).
const PAD_FILM: f64 = 0.1;
/// Height to which a fillet climbs on a pin, mm (E: the thickness of its sheet).
const PIN_SHEET: f64 = 0.15;
/// A concave fillet of equal legs h fills (1 - pi/4) h² of its corner (a quarter circle touching both sides).
const CONCAVE: f64 = 1.0 - FRAC_PI_4;
/// Bead that a row of pads holds while it is flooded, mm: pins bridged, not yet running off (E).
const FLOOD_BEAD: f64 = 0.6;

/// Share of a hole's section that its leg fills (E): a shell leg is bent sheet, a pin is square in its hole.
const fn leg_share(role: Role) -> f64 {
    match role {
        Role::Anchor => 0.3,
        _ => 0.4,
    }
}

impl Joint {
    /// Solder as the factory left it in a board of this thickness, mm³: on a pad a film and the fillets round its pin; in
    /// a hole what the leg leaves free, and a concave fillet on either face.
    pub fn solder_volume(&self, thickness: Length) -> f64 {
        match self.shape {
            JointShape::Pad { width, depth } => {
                let round_the_pin = 2.0 * width.min(depth) + width.max(depth);
                width * depth * PAD_FILM + CONCAVE * PIN_SHEET * PIN_SHEET * round_the_pin
            }
            JointShape::Hole { drill, pad } => {
                let leg = leg_share(self.role).sqrt() * drill / 2.0;
                let climb = (pad / 2.0 - leg).max(0.0);
                // Revolved about the leg; the section's centre lies 0.22 h from it.
                let fillet = CONCAVE * climb * climb * 2.0 * PI * (leg + 0.22 * climb);
                self.free_barrel(drill, thickness) + 2.0 * fillet
            }
        }
    }

    /// The most it holds while the part is still in, mm³: a bead over a pad, a hemisphere on either face of a hole.
    pub fn most_solder(&self, thickness: Length) -> f64 {
        let most = match self.shape {
            JointShape::Pad { width, depth } => width * depth * FLOOD_BEAD,
            JointShape::Hole { drill, pad } => self.free_barrel(drill, thickness) + 2.0 * PI / 12.0 * pad.powi(3),
        };
        most.max(self.solder_volume(thickness))
    }

    /// Area that solder wets once the part is off, mm²: the pad, or barrel and both lands.
    pub fn wetted_area(&self, thickness: Length) -> f64 {
        match self.shape {
            JointShape::Pad { width, depth } => width * depth,
            JointShape::Hole { drill, pad } => {
                PI * drill * thickness.in_mm() + 2.0 * FRAC_PI_4 * (pad * pad - drill * drill)
            }
        }
    }

    fn free_barrel(&self, drill: f64, thickness: Length) -> f64 {
        FRAC_PI_4 * drill * drill * (1.0 - leg_share(self.role)) * thickness.in_mm()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::Point;

    fn joint(shape: JointShape, role: Role) -> Joint {
        let at = Point { x: 0.0, y: 0.0 };
        Joint { name: "x".to_owned(), row: "x".to_owned(), at, role, shape, hidden: false }
    }

    #[test]
    fn volumes_are_those_of_the_geometry() {
        let board = Length::mm(1.0);
        // By hand: 0.3 x 1.0 x 0.1 + 0.2146 x 0.0225 x 1.6 = 0.0377 mm³.
        let pad = joint(JointShape::Pad { width: 0.3, depth: 1.0 }, Role::Signal);
        assert!((pad.solder_volume(board) - 0.0377).abs() < 1e-4, "{}", pad.solder_volume(board));
        // Barrel 0.7854 x 0.64 x 0.7 = 0.352; leg radius 0.219, climb 0.431, fillet 0.0785 twice.
        let hole = joint(JointShape::Hole { drill: 0.8, pad: 1.3 }, Role::Anchor);
        assert!((hole.solder_volume(board) - 0.509).abs() < 2e-3, "{}", hole.solder_volume(board));
        assert!(hole.solder_volume(Length::mm(2.0)) > 1.6 * hole.solder_volume(board));
        for joint in [&pad, &hole] {
            assert!(joint.most_solder(board) > 2.0 * joint.solder_volume(board));
        }
    }
}
