//! Cooling a liquid step by step: by the lever rule (solid and liquid stay in balance) and by Scheil (what has frozen
//! is out of the game). Reality lies between.

use super::equilibrium::Equilibrium;
use super::linear::Vector;
use super::system::{LIQUID, System};
use crate::materials::Element;

/// Longest step of the lever path, K. Every one of its points is exact.
const LEVER_STEP: f64 = 3.0;
/// Longest step of the Scheil path, K. It is an integration: its step is an error (its end lies within 0.2 K of
/// what steps of 0.1 K give).
pub(super) const SCHEIL_STEP: f64 = 1.5;
/// Shortest step, K, where the curve is steep.
const SHORTEST_STEP: f64 = 0.04;
/// A step over which more than this goes from liquid to solid is refused and taken again shorter.
const STEEP: f64 = 0.06;
/// The same for the Scheil path's tail: at least this share of the liquid is left after a step.
const LEAST_KEPT: f64 = 0.65;
/// Halvings in which the end of a path is found: 3 K / 2^8 is 12 mK.
const HALVINGS: usize = 8;
/// Below this much liquid the Scheil path ends.
const LAST_LIQUID: f64 = 1e-5;
/// No solder is followed below this, K.
const COLDEST: f64 = 270.0;

/// A point of a path.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct PathPoint {
    pub(super) kelvin: f64,
    /// Liquid, mole per mole.
    pub(super) moles: f64,
    /// Liquid, gram per gram.
    pub(super) mass: f64,
}

/// A path from the liquidus down. The last point is where the last melt freezes, with what there was of it just
/// above; no end where it could not be computed.
#[derive(Debug, Clone)]
pub(super) struct Path {
    pub(super) points: Vec<PathPoint>,
    pub(super) ended: bool,
}

fn mean_molar_mass(system: &System, x: &Vector) -> f64 {
    system.present.iter().zip(x).map(|(e, share): (&Element, &f64)| share * e.molar_mass()).sum()
}

/// Mole and mass share of liquid in a state; none where all is solid.
fn liquid_share(system: &System, state: &Equilibrium) -> Option<(f64, f64)> {
    let liquid = state.liquid_portion()?;
    let weight = |phase: usize, y: &Vector| mean_molar_mass(system, &system.spread(phase, y));
    let all: f64 = state.phases().iter().map(|p| p.amount * weight(p.phase, &p.y)).sum();
    Some((liquid.amount, liquid.amount * weight(LIQUID, &liquid.y) / all))
}

/// The state at a temperature, starting from a state nearby; none where it does not settle.
pub(super) fn settled(system: &mut System, x: &Vector, from: &Equilibrium, kelvin: f64) -> Option<Equilibrium> {
    let mut state = *from;
    system.set(kelvin);
    state.settle(system, x).then_some(state)
}

/// Where a path has come to: its last state and the one before.
struct Trail {
    state: Equilibrium,
    kelvin: f64,
    before: Option<(Equilibrium, f64)>,
}

impl Trail {
    fn from(x: &Vector, liquidus: f64) -> Self {
        Self { state: Equilibrium::liquid(x), kelvin: liquidus, before: None }
    }

    /// The state `step` K further down.
    fn down(&self, system: &mut System, x: &Vector, step: f64) -> Option<Equilibrium> {
        let carried = self.before.as_ref().map(|(old, at)| self.state.carried_on(old, step / (at - self.kelvin)));
        let to = self.kelvin - step;
        carried.and_then(|from| settled(system, x, &from, to)).or_else(|| settled(system, x, &self.state, to))
    }

    fn goes_to(&mut self, next: Equilibrium, step: f64) {
        self.before = Some((self.state, self.kelvin));
        (self.state, self.kelvin) = (next, self.kelvin - step);
    }
}

/// The lever path.
pub(super) fn lever(system: &mut System, x: &Vector, liquidus: f64) -> Path {
    let mut path = Path::from(liquidus);
    let mut trail = Trail::from(x, liquidus);
    let (mut left, mut step) = (1.0, LEVER_STEP);
    while trail.kelvin - step > COLDEST {
        let Some(next) = trail.down(system, x, step) else {
            // Nearer to the last state it may settle.
            step /= 2.0;
            if step > SHORTEST_STEP {
                continue;
            }
            return path;
        };
        let share = liquid_share(system, &next);
        let drop = left - share.map_or(0.0, |(moles, _)| moles);
        if drop > STEEP && step > SHORTEST_STEP {
            step /= 2.0;
            continue;
        }
        let Some((moles, mass)) = share else {
            let step = LastStep { state: trail.state, warm: trail.kelvin, cold: trail.kelvin - step };
            path.ended = last_of_lever(system, x, step).map(|end| path.points.push(end)).is_some();
            return path;
        };
        trail.goes_to(next, step);
        left = moles;
        path.points.push(PathPoint { kelvin: trail.kelvin, moles, mass });
        step = fitting(step, LEVER_STEP, drop / STEEP);
    }
    path
}

/// The next step: twice as long after one that was less than a third as steep as it may be.
fn fitting(step: f64, longest: f64, steepness: f64) -> f64 {
    if steepness < 1.0 / 3.0 { (step * 2.0).min(longest) } else { step }
}

/// The step in which the liquid went: the state at its warm end, and both ends, K.
struct LastStep {
    state: Equilibrium,
    warm: f64,
    cold: f64,
}

/// Halves it.
fn last_of_lever(system: &mut System, x: &Vector, step: LastStep) -> Option<PathPoint> {
    let LastStep { mut state, mut warm, mut cold } = step;
    system.set(warm);
    let (mut moles, mut mass) = liquid_share(system, &state)?;
    for _ in 0..HALVINGS {
        let middle = (warm + cold) / 2.0;
        let next = settled(system, x, &state, middle)?;
        match liquid_share(system, &next) {
            Some(share) => ((moles, mass), state, warm) = (share, next, middle),
            None => cold = middle,
        }
    }
    Some(PathPoint { kelvin: warm, moles, mass })
}

/// The Scheil path, by steps no longer than `longest` K.
pub(super) fn scheil(system: &mut System, x: &Vector, liquidus: f64, longest: f64) -> Path {
    let whole = mean_molar_mass(system, x);
    let mut path = Path::from(liquidus);
    let mut trail = Trail::from(x, liquidus);
    let (mut liquid, mut left, mut step) = (*x, 1.0, longest);
    while trail.kelvin - step > COLDEST {
        let Some(next) = trail.down(system, &liquid, step) else {
            step /= 2.0;
            if step > SHORTEST_STEP {
                continue;
            }
            return path;
        };
        let kept = next.liquid_portion().map_or(0.0, |p| p.amount.min(1.0));
        let drop = left * (1.0 - kept);
        // Where the liquid goes within the step, halve towards it as far as the lever path does.
        let shortest = if kept == 0.0 { longest / f64::from(1 << HALVINGS) } else { SHORTEST_STEP };
        let steepness = (drop / STEEP).max((1.0 - kept) / (1.0 - LEAST_KEPT));
        if steepness > 1.0 && step > shortest {
            step /= 2.0;
            continue;
        }
        let Some(portion) = next.liquid_portion().copied() else {
            path.ended = true;
            return path;
        };
        let before = left;
        (left, liquid) = (left * kept, portion.y);
        trail.goes_to(next, step);
        let mass = left * mean_molar_mass(system, &liquid) / whole;
        if left < LAST_LIQUID {
            // Freezing out exponentially: where the last of it goes lies within the step.
            let back = step * (LAST_LIQUID / left).ln() / (before / left).ln();
            path.points.push(PathPoint {
                kelvin: trail.kelvin + back,
                moles: LAST_LIQUID,
                mass: mass * LAST_LIQUID / left,
            });
            path.ended = true;
            return path;
        }
        path.points.push(PathPoint { kelvin: trail.kelvin, moles: left, mass });
        step = fitting(step, longest, steepness);
    }
    path
}

impl Path {
    fn from(liquidus: f64) -> Self {
        Self { points: vec![PathPoint { kelvin: liquidus, moles: 1.0, mass: 1.0 }], ended: false }
    }

    /// Liquid at a temperature in K, by what `share` reads of a point: straight between the points, nothing below the end.
    pub(super) fn at(&self, kelvin: f64, share: impl Fn(&PathPoint) -> f64) -> Option<f64> {
        let below = self.points.partition_point(|p| p.kelvin >= kelvin);
        let Some(above) = below.checked_sub(1).map(|k| self.points[k]) else { return Some(1.0) };
        match self.points.get(below) {
            Some(next) => {
                let part = (above.kelvin - kelvin) / (above.kelvin - next.kelvin);
                Some(share(&above) + part * (share(next) - share(&above)))
            }
            None if kelvin >= above.kelvin => Some(share(&above)),
            // Beyond the end all is solid, if the end is known.
            None => self.ended.then_some(0.0),
        }
    }

    /// Between which two points, the warmer first, the liquid falls below a share by mole.
    pub(super) fn step_through(&self, moles: f64) -> Option<(PathPoint, PathPoint)> {
        match self.points.iter().position(|p| p.moles < moles) {
            Some(k) => Some((self.points[k.checked_sub(1)?], self.points[k])),
            // It goes all at once, at the end.
            None => self.points.last().filter(|_| self.ended).map(|p| (*p, *p)),
        }
    }
}
