//! What a metal melts at: the public door to the computation. What can't be computed is `None`, never a wrong number.

use super::band::{MeltBand, band};
use super::equilibrium::Equilibrium;
use super::linear::Vector;
use super::liquidus::first_solid;
use super::path::{Path, PathPoint, SCHEIL_STEP, lever, scheil, settled};
use super::system::System;
use crate::materials::{Alloy, Composition};
use crate::units::{Temperature, ZERO_CELSIUS_IN_KELVIN};

/// "Melted" for the working temperature: 98 mole percent. The strict liquidus is often set by a trace of Cu6Sn5 or Ag3Sn.
const WORKING: f64 = 0.98;
/// Halvings after which that is read off a straight line: 3 K / 2^4 is 0.2 K.
const HALVINGS: usize = 4;

/// Where the last melt freezes when nothing that has frozen takes part any more: the lowest temperature at which a
/// quickly cooled joint can begin to melt again.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ScheilEnd {
    /// Where.
    pub at: Temperature,
    /// How much liquid there is just above it, mole per mole, 0-1.
    pub moles: f64,
    /// The same by mass.
    pub mass: f64,
}

/// How a metal melts.
#[derive(Debug, Clone)]
pub struct MeltCurve {
    /// What it is made of.
    pub composition: Composition,
    /// Where the first solid forms on cooling, strictly.
    pub liquidus: Option<Temperature>,
    /// Which solid that is: a lattice (`BCT` is tin) or a compound.
    pub first_solid: Option<&'static str>,
    /// Where 98 % (mole) is melted: the working temperature.
    pub t98: Option<Temperature>,
    /// Where the last of it freezes in balance.
    pub solidus: Option<Temperature>,
    /// Where the last of it freezes when cooled quickly.
    pub scheil_end: Option<ScheilEnd>,
    /// How sure the figures are.
    pub band: MeltBand,
    /// The row of the alloy table that it is, within 0.5 wt% of every element.
    pub published: Option<&'static Alloy>,
    lever: Option<Path>,
    scheil: Option<Path>,
}

fn celsius(kelvin: f64) -> Temperature {
    Temperature::celsius(kelvin - ZERO_CELSIUS_IN_KELVIN)
}

/// The whole curve of a metal.
///
/// ```
/// use mend_core::materials::Metal;
/// use mend_core::solder::melt_curve;
/// let curve = melt_curve(&Metal::parse("alloy", "Sn63Pb37").expect("in the table").composition);
/// let liquidus = curve.liquidus.expect("computed").in_celsius();
/// assert!((liquidus - 183.0).abs() < 3.0);
/// ```
pub fn melt_curve(composition: &Composition) -> MeltCurve {
    let (mut system, x) = System::from_composition(composition);
    let first = first_solid(&mut system, &x);
    let lever = first.map(|(kelvin, _)| lever(&mut system, &x, kelvin));
    let scheil = first.map(|(kelvin, _)| scheil(&mut system, &x, kelvin, SCHEIL_STEP));
    let last = |path: &Option<Path>| path.as_ref().filter(|p| p.ended).and_then(|p| p.points.last().copied());
    let scheil_end = last(&scheil).map(|p| ScheilEnd { at: celsius(p.kelvin), moles: p.moles, mass: p.mass });
    MeltCurve {
        composition: *composition,
        liquidus: first.map(|(kelvin, _)| celsius(kelvin)),
        first_solid: first.map(|(_, phase)| system.name(phase)),
        t98: lever.as_ref().and_then(|path| working(&mut system, &x, path)).map(celsius),
        solidus: last(&lever).map(|p| celsius(p.kelvin)),
        scheil_end,
        band: band(composition),
        published: Alloy::near(composition),
        lever,
        scheil,
    }
}

/// The strict liquidus alone.
///
/// ```
/// use mend_core::materials::Metal;
/// use mend_core::solder::liquidus;
/// let tin = Metal::parse("alloy", "Sn=100").expect("an element").composition;
/// assert!((liquidus(&tin).expect("computed").in_celsius() - 231.9).abs() < 0.5);
/// ```
pub fn liquidus(composition: &Composition) -> Option<Temperature> {
    let (mut system, x) = System::from_composition(composition);
    first_solid(&mut system, &x).map(|(kelvin, _)| celsius(kelvin))
}

/// The working temperature alone: what a search over amounts asks for.
///
/// ```
/// use mend_core::materials::Metal;
/// use mend_core::solder::{liquidus, working_temperature};
/// let mix = Metal::parse("alloy", "SAC305=60,Sn42Bi58=40").expect("a mix").composition;
/// assert!(working_temperature(&mix) <= liquidus(&mix), "98 % is liquid before the last crystal is");
/// ```
pub fn working_temperature(composition: &Composition) -> Option<Temperature> {
    let (mut system, x) = System::from_composition(composition);
    let (kelvin, _) = first_solid(&mut system, &x)?;
    let path = lever(&mut system, &x, kelvin);
    working(&mut system, &x, &path).map(celsius)
}

/// Halves the step of the lever path in which 98 % is passed, then draws a line.
fn working(system: &mut System, x: &Vector, path: &Path) -> Option<f64> {
    let (mut warm, mut cold) = path.step_through(WORKING)?;
    let mut state = Equilibrium::liquid(x);
    for _ in 0..HALVINGS {
        let middle = (warm.kelvin + cold.kelvin) / 2.0;
        state = settled(system, x, &state, middle)?;
        let moles = state.liquid_portion().map_or(0.0, |liquid| liquid.amount);
        let half = PathPoint { kelvin: middle, moles, ..warm };
        *(if moles >= WORKING { &mut warm } else { &mut cold }) = half;
    }
    let part = (warm.moles - WORKING) / (warm.moles - cold.moles);
    Some(if part.is_finite() { warm.kelvin + part * (cold.kelvin - warm.kelvin) } else { warm.kelvin })
}

impl MeltCurve {
    /// From where on so much of it is liquid in balance (lever rule), mole per mole, on a straight line within a step.
    pub fn liquid_from(&self, fraction: f64) -> Option<Temperature> {
        let (warm, cold) = self.lever.as_ref()?.step_through(fraction)?;
        let part = (warm.moles - fraction) / (warm.moles - cold.moles);
        Some(celsius(if part.is_finite() { warm.kelvin + part * (cold.kelvin - warm.kelvin) } else { warm.kelvin }))
    }

    /// Liquid at a temperature in balance (lever rule), mole per mole, 0-1.
    pub fn lever_at(&self, at: Temperature) -> Option<f64> {
        self.lever.as_ref()?.at(at.in_kelvin(), |p| p.moles)
    }

    /// Liquid at a temperature when cooled quickly (Scheil), mole per mole, 0-1.
    pub fn scheil_at(&self, at: Temperature) -> Option<f64> {
        self.scheil.as_ref()?.at(at.in_kelvin(), |p| p.moles)
    }

    /// The same two by mass.
    pub fn mass_at(&self, at: Temperature) -> Option<(f64, f64)> {
        let at = at.in_kelvin();
        Some((self.lever.as_ref()?.at(at, |p| p.mass)?, self.scheil.as_ref()?.at(at, |p| p.mass)?))
    }
}
