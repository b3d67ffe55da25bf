//! The board's temperature field and the sweep over it: the one loop in which the time goes.
//!
//! Cells lie in rows along x, filled up to a whole number of packs and with one spare cell at either end; the rows of all
//! layers at one y lie together, so that a cell's six neighbours are near it in memory; there is a spare row of each layer
//! at either side. Spare cells have no conductance and stay at zero, so the loop needs no special case at the rim. It works
//! down the layers in packs of sixteen columns: their coefficients are loaded once for all layers, and each layer's values
//! are the next one's neighbour above. Loads into local arrays first, arithmetic next, one store last. (Written over
//! slices it met fourteen pointers that might alias, was not vectorised, and ran at a seventh of the speed.)
//! Excess over ambient, in K. f32 in use, f64 in the energy check.

use super::coefficients::{Coefficients, FaceRates, PACK};
use super::real::Real;
use super::rkl2::Weights;

/// A number that has its own compiled sweep, chosen for the processor at run time.
pub trait Sweep: Real {
    /// The first stage: `first` becomes the rate at the start, `next` the first stage.
    fn sweep_first(coefficients: &Coefficients<Self>, start: &[Self], first: &mut [Self]);
    /// A later stage, in place of the stage before last.
    fn sweep_next(coefficients: &Coefficients<Self>, weights: Weights, arrays: Arrays<'_, Self>);
}

/// What a later stage reads and writes.
#[derive(Debug)]
pub struct Arrays<'a, R> {
    /// The stage before.
    pub now: &'a [R],
    /// The one before that; becomes the new one.
    pub next: &'a mut [R],
    /// The state at the start of the step.
    pub start: &'a [R],
    /// The rate at the start.
    pub first: &'a [R],
}

type Pack<R> = [R; PACK];

#[inline(always)]
fn load<R: Real>(from: &[R], at: usize) -> Pack<R> {
    let mut pack = [R::zero(); PACK];
    pack.copy_from_slice(&from[at..at + PACK]);
    pack
}

/// Where a pack is swept: its first cell, the layer, and what is above and below.
struct SweepSpot<'a, R> {
    cell: usize,
    layer: usize,
    slice: &'a Slice<R>,
}

/// Sixteen columns of board beside each other: their coefficients, held while the sweep goes down the layers.
struct ColumnPack<R> {
    west: Pack<R>,
    east: Pack<R>,
    near: Pack<R>,
    far: Pack<R>,
    diagonal: Pack<R>,
    /// Place among the columns.
    column: usize,
}

/// The values of one layer of a pack of columns, and of the layers above and below.
struct Slice<R> {
    up: Pack<R>,
    here: Pack<R>,
    down: Pack<R>,
}

impl<R: Real> Coefficients<R> {
    #[inline(always)]
    fn columns(&self, column: usize) -> ColumnPack<R> {
        ColumnPack {
            west: load(&self.west, column),
            east: load(&self.east, column),
            near: load(&self.near, column),
            far: load(&self.far, column),
            diagonal: load(&self.diagonal, column),
            column,
        }
    }

    /// Rates of the pack at `cell` of `layer`, K/s.
    #[inline(always)]
    fn rates(&self, state: &[R], columns: &ColumnPack<R>, spot: &SweepSpot<'_, R>) -> Pack<R> {
        let SweepSpot { cell, layer, slice } = *spot;
        let across = (self.row + 2) * self.layers;
        let (west, east) = (load(state, cell - 1), load(state, cell + 1));
        let (near, far) = (load(state, cell - across), load(state, cell + across));
        let (t, up, down) = (&slice.here, &slice.up, &slice.down);
        let c = columns;
        let mut rate = [R::zero(); PACK];
        for l in 0..PACK {
            rate[l] = c.west[l] * west[l] + c.east[l] * east[l] + c.near[l] * near[l] + c.far[l] * far[l]
                - c.diagonal[l] * t[l]
                + self.through * ((up[l] - t[l]) + (down[l] - t[l]));
        }
        if layer == 0 {
            self.add_face(&self.faces[0], (c.column, t), &mut rate);
        }
        if layer + 1 == self.layers {
            self.add_face(&self.faces[1], (c.column, t), &mut rate);
        }
        rate
    }

    /// Exchange with the air at a face, K/s.
    #[inline(always)]
    fn add_face(&self, face: &FaceRates<R>, (column, t): (usize, &Pack<R>), rate: &mut Pack<R>) {
        let (gain, loss, radiation) =
            (load(&face.gain, column), load(&face.loss, column), load(&face.radiation, column));
        let room2 = self.ambient_k * self.ambient_k;
        let room4 = room2 * room2;
        for l in 0..PACK {
            let k = t[l] + self.ambient_k;
            let k2 = k * k;
            rate[l] = rate[l] + gain[l] - loss[l] * t[l] - radiation[l] * (k2 * k2 - room4);
        }
    }
}

// The loops stand here twice, and as loops: a closure is compiled apart, for the plain processor, and loses half the speed.

#[inline(always)]
fn first_stage<R: Real>(c: &Coefficients<R>, start: &[R], first: &mut [R]) {
    for j in 0..c.ny {
        for i in (0..c.row).step_by(PACK) {
            let columns = c.columns(j * c.row + i);
            // At a face the missing neighbour is the cell itself: no difference, no flow.
            let mut here = load(start, c.cell((i, j), 0));
            let mut up = here;
            for layer in 0..c.layers {
                let cell = c.cell((i, j), layer);
                let down = if layer + 1 == c.layers { here } else { load(start, cell + c.row + 2) };
                let slice = Slice { up, here, down };
                first[cell..cell + PACK].copy_from_slice(&c.rates(
                    start,
                    &columns,
                    &SweepSpot { cell, layer, slice: &slice },
                ));
                (up, here) = (here, down);
            }
        }
    }
}

#[inline(always)]
fn next_stage<R: Real>(c: &Coefficients<R>, w: Weights, arrays: Arrays<'_, R>) {
    let (now, before, start) = (R::from_f64(w.now), R::from_f64(w.before), R::from_f64(w.start));
    let (rate, first) = (R::from_f64(w.rate), R::from_f64(w.first));
    for j in 0..c.ny {
        for i in (0..c.row).step_by(PACK) {
            let columns = c.columns(j * c.row + i);
            let mut here = load(arrays.now, c.cell((i, j), 0));
            let mut up = here;
            for layer in 0..c.layers {
                let cell = c.cell((i, j), layer);
                let down = if layer + 1 == c.layers { here } else { load(arrays.now, cell + c.row + 2) };
                let slice = Slice { up, here, down };
                let l = c.rates(arrays.now, &columns, &SweepSpot { cell, layer, slice: &slice });
                let (y0, l0) = (load(arrays.start, cell), load(arrays.first, cell));
                let mut next = load(arrays.next, cell);
                for k in 0..PACK {
                    next[k] = now * here[k] + before * next[k] + start * y0[k] + rate * l[k] + first * l0[k];
                }
                arrays.next[cell..cell + PACK].copy_from_slice(&next);
                (up, here) = (here, down);
            }
        }
    }
}

/// Compiled once per kind of processor; the one place where the core leaves safe Rust, inside the macro.
mod compiled {
    #![allow(unsafe_code)]
    use super::{Arrays, Coefficients, Weights, first_stage, next_stage};
    use multiversion::multiversion;

    #[multiversion(targets("x86_64+avx512f+avx512vl+avx2+fma", "x86_64+avx2+fma", "aarch64+neon"))]
    pub(super) fn first_f32(c: &Coefficients<f32>, start: &[f32], first: &mut [f32]) {
        first_stage(c, start, first);
    }

    #[multiversion(targets("x86_64+avx512f+avx512vl+avx2+fma", "x86_64+avx2+fma", "aarch64+neon"))]
    pub(super) fn next_f32(c: &Coefficients<f32>, w: Weights, arrays: Arrays<'_, f32>) {
        next_stage(c, w, arrays);
    }
}

impl Sweep for f32 {
    fn sweep_first(c: &Coefficients<Self>, start: &[Self], first: &mut [Self]) {
        compiled::first_f32(c, start, first);
    }
    fn sweep_next(c: &Coefficients<Self>, weights: Weights, arrays: Arrays<'_, Self>) {
        compiled::next_f32(c, weights, arrays);
    }
}

impl Sweep for f64 {
    fn sweep_first(c: &Coefficients<Self>, start: &[Self], first: &mut [Self]) {
        first_stage(c, start, first);
    }
    fn sweep_next(c: &Coefficients<Self>, weights: Weights, arrays: Arrays<'_, Self>) {
        next_stage(c, weights, arrays);
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::axis::Axis;
    use crate::heat::mesh::{Mesh, Slab};

    fn plate() -> Mesh {
        let slab = Slab { thickness: 1.6e-3, in_plane: 20.0, through: 0.4, capacity: 2.0e6 };
        Mesh::plate(Axis::uniform(20, 1.0), Axis::uniform(7, 1.0), 3, slab)
    }

    /// Rates of a field with one warm cell, K/s.
    fn rates<R: Sweep>(warm: (usize, usize), layer: usize) -> (Coefficients<R>, Vec<R>) {
        let made = Coefficients::<R>::new(&plate(), 0.0, 296.0);
        let mut start = vec![R::zero(); made.cells()];
        start[made.cell(warm, layer)] = R::from_f64(100.0);
        let mut first = vec![R::zero(); made.cells()];
        R::sweep_first(&made, &start, &mut first);
        (made, first)
    }

    #[test]
    fn an_insulated_plate_of_one_temperature_stays_as_it_is() {
        let made = Coefficients::<f64>::new(&plate(), 0.0, 296.0);
        let mut start = vec![0.0; made.cells()];
        for (i, j, layer) in (0..20).flat_map(|i| (0..7).flat_map(move |j| (0..3).map(move |layer| (i, j, layer)))) {
            start[made.cell((i, j), layer)] = 50.0;
        }
        let mut first = vec![0.0; made.cells()];
        f64::sweep_first(&made, &start, &mut first);
        let all = (0..20).flat_map(|i| (0..7).flat_map(move |j| (0..3).map(move |layer| (i, j, layer))));
        assert!(all.into_iter().all(|(i, j, layer)| first[made.cell((i, j), layer)].abs() < 1e-9));
    }

    #[test]
    fn a_warm_cell_gives_exactly_what_its_neighbours_take() {
        let (made, first) = rates::<f64>((9, 3), 1);
        let mut all = (0..20).flat_map(|i| (0..7).flat_map(move |j| (0..3).map(move |layer| (i, j, layer))));
        let sum: f64 = all.by_ref().map(|(i, j, layer)| first[made.cell((i, j), layer)]).sum();
        assert!(sum.abs() < 1e-9, "{sum}");
        assert!(first[made.cell((9, 3), 1)] < 0.0 && first[made.cell((10, 3), 1)] > 0.0);
        assert!(first[made.cell((9, 3), 0)] > 0.0, "through the board as well");
    }

    #[test]
    fn both_kinds_of_numbers_say_the_same() {
        let ((made, wide), (_, narrow)) = (rates::<f64>((0, 0), 0), rates::<f32>((0, 0), 0));
        for at in [(0, 0), (1, 0), (0, 1)].map(|column| made.cell(column, 0)) {
            assert!((wide[at] - f64::from(narrow[at])).abs() < 1e-4 * wide[at].abs().max(1.0), "{at}");
        }
    }
}
