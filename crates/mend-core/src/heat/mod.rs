//! How a board heats under a tool, and when its joints melt.
//!
//! The board is a graded grid of cells, the bodies and joints on it are lumped nodes holding enthalpy, the tool a pair
//! of (h, h x gas temperature) per surface cell. Everything is excess over ambient in the state, °C at the doors.
//! Basis marks at the numbers: T textbook or published correlation, D material-family data, E engineering estimate,
//! tuned: chosen so that known practice comes out right. Say a band, never a number: see [`parameters`].
//!
//! - [`jet`]: what leaves the nozzle and arrives at the board; [`blowing`]: over the places it visits; [`draught`]:
//!   what it pushes, and what hangs; [`tool`], [`motion`], [`preheater`], [`iron`], [`iron_heater`], [`shield`]: what a person sets;
//!   [`covered_joint`]: what no shield may lie on; [`recipe`]: all of it in order
//! - [`axis`], [`mesh`]: the grid; [`real`]: its numbers; [`surface_air`], [`coefficients`]: what every cell exchanges;
//!   [`field`]: the sweep over all; [`rkl2`]: the time stepping
//! - [`nodes`]: joints and bodies; [`network`]: builds them from a board; [`under`]: the cells under something; [`shielding`], [`boundary`]: what the air
//!   does to all
//! - [`lumped_nodes`], [`stepping`], [`simulation`]: one step of everything, of one run or of several in a batch; [`run_view`]: one of them to
//!   be read; [`rig`]: a case set up; [`traces`], [`thermocouple`]: what is watched; [`run`]: heat until release, then cool;
//!   [`uncertainty`], [`known`], [`latin_hypercube`], [`parameters`], [`ensemble`]: what is guessed, what has been learnt of it, samples of it and a run for each; [`replay`]: a run to look at; [`unit_run`]: one run for all
//!   set temperatures
//! - [`bridge`]: what joins the joints for one tip; [`bridge_wire`]: which span an iron keeps molten
//!
//! Does not compute: flow of the air round tall parts (a plane jet and its mixing length stand for it), melting fronts inside a
//! joint, warping, moisture, or chemistry of flux. Layers of copper are smeared over the board's plane.

pub mod at_work;
mod attach;
pub mod axis;
pub mod blowing;
pub mod boundary;
pub mod bridge;
pub mod bridge_wire;
pub mod case;
pub mod coefficients;
mod course;
pub mod covered_joint;
pub mod display;
pub mod draught;
pub mod ensemble;
pub mod field;
pub mod hand_rig;
pub mod iron;
pub mod iron_heater;
pub mod jet;
pub mod known;
pub mod latin_hypercube;
pub mod lumped_nodes;
pub mod mesh;
pub mod motion;
pub mod network;
pub mod nodes;
pub mod nozzle_air;
pub mod parameters;
pub mod preheater;
pub mod purpose;
pub mod real;
pub mod recipe;
pub mod replay;
pub mod rig;
pub mod rkl2;
pub mod run;
pub mod run_stage;
pub mod run_view;
pub mod shield;
pub mod shielding;
pub mod simulation;
pub(crate) mod spread;
pub mod station;
pub mod stepping;
pub mod surface_air;
pub mod thermocouple;
pub mod tip_patch;
pub mod tool;
pub mod traces;
pub mod uncertainty;
pub mod under;
pub mod unit_run;
pub mod wire_path;

/// Stefan-Boltzmann constant, W/m²K⁴ (CODATA, exact enough).
pub const STEFAN_BOLTZMANN: f64 = 5.670e-8;
