//! The board's temperature field and the sweep over it: the one loop in which the time goes.
//!
//! Cells lie in rows along x, filled up to a whole number of packs and with one spare cell at either end; the rows of all
//! layers at one y lie together, so that a cell's six neighbours are near it in memory; there is a spare row of each layer
//! at either side. Spare cells have no conductance and stay at zero, so the loop needs no special case at the rim. Of a batch of
//! runs the values of one cell lie side by side: the same loads and the same arithmetic, only the neighbours are further off.
//!
//! A row is a plain loop over slices that are cut to one length beforehand, so that nothing is checked inside it and it becomes
//! vectors of whatever the processor has. What is written comes in as an argument of its own: as part of a struct it might have
//! been one of the fifteen things that are read, and the loop stayed scalar, at a seventh of the speed.
//! Excess over ambient, in K. f32 in use, f64 in the energy check.

// Plain index loops become vectors; iterators and closures here did not.
#![allow(clippy::needless_range_loop)]

use super::coefficients::Coefficients;
use super::real::Real;
use super::rkl2::Weights;

/// What a later stage reads.
#[derive(Debug, Clone, Copy)]
pub struct Earlier<'a, R> {
    /// The stage before.
    pub now: &'a [R],
    /// The state at the start of the step.
    pub start: &'a [R],
    /// The rate at the start.
    pub first: &'a [R],
}

/// A row of one layer: its state, its neighbours' and the rates of exchange with them.
struct Row<'a, R> {
    here: &'a [R],
    west: &'a [R],
    east: &'a [R],
    near: &'a [R],
    far: &'a [R],
    up: &'a [R],
    down: &'a [R],
    to_west: &'a [R],
    to_east: &'a [R],
    to_near: &'a [R],
    to_far: &'a [R],
    diagonal: &'a [R],
    through: &'a [R],
}

/// The air over a row at a face.
struct FaceRow<'a, R> {
    gain: &'a [R],
    loss: &'a [R],
    radiation: &'a [R],
    ambient_k: R,
    /// Ambient temperature to the fourth.
    ambient_4: R,
}

/// Where a row is: its first value, its place among the columns, how many values it has.
#[derive(Clone, Copy)]
struct RowSpot {
    cell: usize,
    column: usize,
    count: usize,
    layer: usize,
}

impl<R: Real, const RUNS: usize> Coefficients<R, RUNS> {
    #[inline(always)]
    fn spot(&self, j: usize, layer: usize) -> RowSpot {
        let (cell, column) = (self.cell((0, j), layer), self.column(0, j));
        RowSpot { cell, column, count: self.row * RUNS, layer }
    }

    #[inline(always)]
    fn row_of<'a>(&'a self, state: &'a [R], spot: RowSpot) -> Row<'a, R> {
        let RowSpot { cell, column, count, layer } = spot;
        let (below, across) = ((self.row + 2) * RUNS, (self.row + 2) * RUNS * self.layers);
        // At a face the missing neighbour is the cell itself: no difference, no flow.
        let up = if layer == 0 { cell } else { cell - below };
        let down = if layer + 1 == self.layers { cell } else { cell + below };
        Row {
            here: &state[cell..][..count],
            west: &state[cell - RUNS..][..count],
            east: &state[cell + RUNS..][..count],
            near: &state[cell - across..][..count],
            far: &state[cell + across..][..count],
            up: &state[up..][..count],
            down: &state[down..][..count],
            to_west: &self.west[column..][..count],
            to_east: &self.east[column..][..count],
            to_near: &self.near[column..][..count],
            to_far: &self.far[column..][..count],
            diagonal: &self.diagonal[column..][..count],
            through: &self.through[..count],
        }
    }

    /// The air over a row; none within the board. (A board of one layer has both faces' air on the upper.)
    #[inline(always)]
    fn face_of(&self, spot: RowSpot) -> Option<FaceRow<'_, R>> {
        let RowSpot { column, count, layer, .. } = spot;
        let face = match layer {
            0 => &self.faces[0],
            _ if layer + 1 == self.layers => &self.faces[1],
            _ => return None,
        };
        let ambient_2 = self.ambient_k * self.ambient_k;
        Some(FaceRow {
            gain: &face.gain[column..][..count],
            loss: &face.loss[column..][..count],
            radiation: &face.radiation[column..][..count],
            ambient_k: self.ambient_k,
            ambient_4: ambient_2 * ambient_2,
        })
    }
}

/// `a b + c`, in one operation where the processor has it.
#[inline(always)]
fn times_plus<R: Real, const FUSED: bool>(a: R, b: R, c: R) -> R {
    if FUSED { a.mul_add(b, c) } else { a * b + c }
}

impl<R: Real> Row<'_, R> {
    /// Rate within the board, K/s.
    #[inline(always)]
    fn rate<const FUSED: bool>(&self, i: usize) -> R {
        let t = self.here[i];
        let x = times_plus::<R, FUSED>(self.to_west[i], self.west[i], self.to_east[i] * self.east[i]);
        let y = times_plus::<R, FUSED>(self.to_near[i], self.near[i], self.to_far[i] * self.far[i]);
        let z = self.through[i] * ((self.up[i] - t) + (self.down[i] - t));
        x + y + times_plus::<R, FUSED>(-self.diagonal[i], t, z)
    }
}

impl<R: Real> FaceRow<'_, R> {
    /// Exchange with the air at a cell of temperature `t`, K/s.
    #[inline(always)]
    fn rate<const FUSED: bool>(&self, i: usize, t: R) -> R {
        let kelvin = t + self.ambient_k;
        let k2 = kelvin * kelvin;
        let shone = times_plus::<R, FUSED>(k2, k2, -self.ambient_4);
        let carried = times_plus::<R, FUSED>(-self.loss[i], t, self.gain[i]);
        times_plus::<R, FUSED>(-self.radiation[i], shone, carried)
    }
}

// The loops stand here as loops: a closure is compiled apart, for the plain processor, and loses half the speed.

/// Rates of the whole field, K/s.
#[inline(always)]
pub(super) fn first_rates<R: Real, const RUNS: usize, const FUSED: bool>(
    c: &Coefficients<R, RUNS>,
    start: &[R],
    first: &mut [R],
) {
    for j in 0..c.ny {
        for layer in 0..c.layers {
            let spot = c.spot(j, layer);
            let row = c.row_of(start, spot);
            let first = &mut first[spot.cell..][..spot.count];
            match c.face_of(spot) {
                Some(face) => {
                    for i in 0..spot.count {
                        first[i] = row.rate::<FUSED>(i) + face.rate::<FUSED>(i, row.here[i]);
                    }
                }
                None => {
                    for i in 0..spot.count {
                        first[i] = row.rate::<FUSED>(i);
                    }
                }
            }
        }
    }
}

/// The weights of a stage as the field's numbers, and the rows that it reads besides the present one.
struct StageRow<'a, R> {
    start: &'a [R],
    first: &'a [R],
    now_weight: R,
    before_weight: R,
    start_weight: R,
    rate_weight: R,
    first_weight: R,
}

impl<'a, R: Real> StageRow<'a, R> {
    #[inline(always)]
    fn new(w: Weights, earlier: Earlier<'a, R>, spot: RowSpot) -> Self {
        Self {
            start: &earlier.start[spot.cell..][..spot.count],
            first: &earlier.first[spot.cell..][..spot.count],
            now_weight: R::from_f64(w.now),
            before_weight: R::from_f64(w.before),
            start_weight: R::from_f64(w.start),
            rate_weight: R::from_f64(w.rate),
            first_weight: R::from_f64(w.first),
        }
    }

    /// The two fields before, weighed.
    #[inline(always)]
    fn states<const FUSED: bool>(&self, now: R, before: R) -> R {
        times_plus::<R, FUSED>(self.now_weight, now, self.before_weight * before)
    }

    #[inline(always)]
    fn next<const FUSED: bool>(&self, i: usize, states: R, rate: R) -> R {
        let rates = times_plus::<R, FUSED>(self.rate_weight, rate, self.first_weight * self.first[i]);
        times_plus::<R, FUSED>(self.start_weight, self.start[i], states) + rates
    }
}

/// The field of a later stage, in place of the stage before last.
#[inline(always)]
pub(super) fn next_field<R: Real, const RUNS: usize, const FUSED: bool>(
    c: &Coefficients<R, RUNS>,
    w: Weights,
    earlier: Earlier<'_, R>,
    next: &mut [R],
) {
    for j in 0..c.ny {
        for layer in 0..c.layers {
            let spot = c.spot(j, layer);
            let (row, stage) = (c.row_of(earlier.now, spot), StageRow::new(w, earlier, spot));
            let next = &mut next[spot.cell..][..spot.count];
            match c.face_of(spot) {
                Some(face) => {
                    for i in 0..spot.count {
                        let rate = row.rate::<FUSED>(i) + face.rate::<FUSED>(i, row.here[i]);
                        next[i] = stage.next::<FUSED>(i, stage.states::<FUSED>(row.here[i], next[i]), rate);
                    }
                }
                None => {
                    for i in 0..spot.count {
                        let states = stage.states::<FUSED>(row.here[i], next[i]);
                        next[i] = stage.next::<FUSED>(i, states, row.rate::<FUSED>(i));
                    }
                }
            }
        }
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
    fn rates<R: Real>(warm: (usize, usize), layer: usize) -> (Coefficients<R>, Vec<R>) {
        let made = Coefficients::<R>::new(&plate(), 0.0, 296.0);
        let mut start = vec![R::zero(); made.values()];
        start[made.cell(warm, layer)] = R::from_f64(100.0);
        let mut first = vec![R::zero(); made.values()];
        first_rates::<_, 1, false>(&made, &start, &mut first);
        (made, first)
    }

    #[test]
    fn an_insulated_plate_of_one_temperature_stays_as_it_is() {
        let made = Coefficients::<f64>::new(&plate(), 0.0, 296.0);
        let mut start = vec![0.0; made.values()];
        for (i, j, layer) in (0..20).flat_map(|i| (0..7).flat_map(move |j| (0..3).map(move |layer| (i, j, layer)))) {
            start[made.cell((i, j), layer)] = 50.0;
        }
        let mut first = vec![0.0; made.values()];
        first_rates::<_, 1, false>(&made, &start, &mut first);
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
