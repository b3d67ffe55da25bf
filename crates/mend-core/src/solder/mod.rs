//! What a mix of solders melts at, how much to feed, and when a joint is clean.
//!
//! A metal of up to eight elements is a liquid, seven solid solutions and a handful of line compounds; which of them are
//! there at a temperature follows from their Gibbs energies. Temperatures are K inside and [`crate::units::Temperature`]
//! at the door, amounts moles unless a name says mass.
//!
//! - [`melt_curve()`]: the public door; [`MeltBand`]: how sure it is
//! - `parameters`, `liquid_table`, `solid_table`, `compound`: the numbers; `phase`: the energy of a solution; `response`: its curvature
//! - `system`: all phases of one metal; `liquidus`, `equilibrium`, `path`: the three solvers; `linear`: small systems

mod band;
mod compound;
mod equilibrium;
mod linear;
mod liquid_table;
mod liquidus;
mod melt_curve;
mod notes;
mod parameters;
mod path;
mod phase;
mod response;
#[cfg(test)]
mod self_check;
mod solid_table;
mod system;

pub use band::{MeltBand, band};
pub use melt_curve::{MeltCurve, ScheilEnd, liquidus, melt_curve, working_temperature};
