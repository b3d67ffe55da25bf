//! What a mix of solders melts at, how much to feed, and when a joint is clean.
//!
//! A metal of up to eight elements is a liquid, seven solid solutions and a handful of line compounds; which of them are
//! there at a temperature follows from their Gibbs energies. Temperatures are K inside and [`crate::units::Temperature`]
//! at the door, amounts moles unless a name says mass.
//!
//! - [`melt_curve()`]: the public door; [`MeltBand`]: how sure it is
//! - [`JointComposition`]: what the joints hold and are fed; [`feed_table`]: how much; [`Residue`]: what wicking
//!   leaves; [`flags()`]: what is wrong with a finished joint
//! - `parameters`, `liquid_table`, `solid_table`, `compound`: the numbers; `phase`: the energy of a solution;
//!   `response`: its curvature
//! - `system`: all phases of one metal; `liquidus`, `equilibrium`, `path`: the three solvers; `linear`: small systems
//!
//! Does not compute: how fast solder mixes or wets, intermetallic layers that grow in service, fatigue, or elements beyond the
//! eight. Both ways of freezing are limits; a real joint lies between them.

mod amount;
mod band;
mod braid;
mod composition_check;
mod composition_entry;
mod compound;
mod equilibrium;
mod factory_guess;
mod feed;
mod finished_joint;
mod flags;
mod for_fit;
mod interaction;
mod joint_composition;
mod linear;
mod liquid_table;
mod liquidus;
mod melt_curve;
mod melt_target;
pub mod notes;
mod parameters;
mod path;
mod phase;
mod phase_name;
mod residue;
mod response;
#[cfg(test)]
mod self_check;
mod solid_table;
mod system;
mod wire;

pub use amount::{Amount, amount, factory_mg};
pub use band::{MeltBand, band};
pub use braid::Left;
pub use composition_entry::{CompositionEntry, FeedEntry};
pub use factory_guess::{Guess, MakersMark, factory_guess};
pub use feed::{FeedReason, GroupFeed, MixesIn, feed_table, share_for};
pub use finished_joint::FinishedJoints;
pub use flags::{LEAD_TRACE, flags, within_limits};
pub use joint_composition::{Feed, JointComposition, MOST_MIXING_FRACTION, Mixing};
pub use melt_curve::{MeltCurve, ScheilEnd, liquidus, melt_curve, working_temperature};
pub use melt_target::{LiquidPath, MeltTarget, Melts};
pub use residue::{Residue, cycles, leaded_into_lead_free};
pub use wire::Wire;
