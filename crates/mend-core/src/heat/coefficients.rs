//! Rates of exchange of every cell: with its neighbours in the board, with the room at the rim, with the air on both faces.
//! Computes the coefficients of the heat equation on the grid; what is done with them is the [`super::field`]'s.

use super::mesh::{Mesh, Slab};
use super::real::Real;
use super::surface_air::SurfaceAir;

/// Loss of the rim to the room, W/m²K (T: natural convection and radiation of a narrow edge).
pub const RIM_LOSS: f64 = 10.0;

/// Values worked on at once: one or two registers of f32 on the processors at hand. Rows are filled up to whole packs.
pub(super) const PACK: usize = 8;

/// Rates of exchange, 1/s, per column or per surface cell; of a batch of `RUNS` runs those of a column side by side.
#[derive(Debug, Clone)]
pub struct Coefficients<R, const RUNS: usize = 1> {
    pub(super) nx: usize,
    pub(super) ny: usize,
    /// Cells of a row, filled up to whole packs.
    pub(super) row: usize,
    pub(super) layers: usize,
    pub(super) west: Vec<R>,
    pub(super) east: Vec<R>,
    pub(super) near: Vec<R>,
    pub(super) far: Vec<R>,
    /// Sum of the four and the loss at the rim.
    pub(super) diagonal: Vec<R>,
    /// Through the thickness, for one row: the same for every column of a run.
    pub(super) through: Vec<R>,
    /// Top and bottom.
    pub(super) faces: [FaceRates<R>; 2],
    pub(super) ambient_k: R,
}

/// What the air does to one face: `gain - loss T - radiation ((room + T)^4 - room^4)`, K/s.
#[derive(Debug, Clone)]
pub(super) struct FaceRates<R> {
    pub(super) gain: Vec<R>,
    pub(super) loss: Vec<R>,
    pub(super) radiation: Vec<R>,
}

impl<R: Real> Coefficients<R> {
    /// Of one run in a mesh's own material.
    pub fn new(mesh: &Mesh, rim: f64, ambient_k: f64) -> Self {
        Self::batch(mesh, &[mesh.slab], rim, ambient_k)
    }
}

/// One run of a batch: its place in it, and its material on the grid.
#[derive(Debug, Clone, Copy)]
pub struct RunSlab<'a> {
    /// The grid.
    pub mesh: &'a Mesh,
    /// Its material.
    pub slab: &'a Slab,
    /// Its place in the batch.
    pub run: usize,
}

impl<R: Real, const RUNS: usize> Coefficients<R, RUNS> {
    /// Conduction within the board, each run's of its own material; faces insulated until [`Self::set_faces`]. `rim` is the
    /// loss there, W/m²K.
    pub fn batch(mesh: &Mesh, slabs: &[Slab; RUNS], rim: f64, ambient_k: f64) -> Self {
        let (nx, ny) = (mesh.x.len(), mesh.y.len());
        let dz = mesh.layer_thickness();
        let row = nx.next_multiple_of(PACK / RUNS);
        let columns = || vec![R::zero(); row * ny * RUNS];
        let through = |slab: &Slab| R::from_f64(slab.through / (slab.capacity * dz * dz));
        let none = || FaceRates { gain: columns(), loss: columns(), radiation: columns() };
        let mut made = Self {
            nx,
            ny,
            row,
            layers: mesh.layers,
            west: columns(),
            east: columns(),
            near: columns(),
            far: columns(),
            diagonal: columns(),
            through: (0..row * RUNS).map(|k| through(&slabs[k % RUNS])).collect(),
            faces: [none(), none()],
            ambient_k: R::from_f64(ambient_k),
        };
        for (run, slab) in slabs.iter().enumerate() {
            for (i, j) in (0..ny).flat_map(|j| (0..nx).map(move |i| (i, j))) {
                made.fill_column(RunSlab { mesh, slab, run }, (i, j), rim);
            }
        }
        made
    }

    fn fill_column(&mut self, of: RunSlab<'_>, column: (usize, usize), rim: f64) {
        let (RunSlab { mesh, slab, run }, (i, j)) = (of, column);
        if !mesh.inside[mesh.column(i, j)] {
            return;
        }
        let at = self.column(i, j) + run;
        let (wx, wy) = (mesh.x.width(i) * 1e-3, mesh.y.width(j) * 1e-3);
        let board = |a: usize, b: usize| a < self.nx && b < self.ny && mesh.inside[mesh.column(a, b)];
        // Rate into this cell: k / (C width distance) to a neighbour cell, h / (C width) where the board ends.
        let rate = |neighbour: bool, width: f64, distance: f64| {
            if neighbour {
                (slab.in_plane / (slab.capacity * width * distance), 0.0)
            } else {
                (0.0, rim / (slab.capacity * width))
            }
        };
        let gap_x = |a: usize| (mesh.x.middle(a) - mesh.x.middle(i)).abs() * 1e-3;
        let gap_y = |b: usize| (mesh.y.middle(b) - mesh.y.middle(j)).abs() * 1e-3;
        let (iw, jn) = (i.wrapping_sub(1), j.wrapping_sub(1));
        let sides = [
            if board(iw, j) { rate(true, wx, gap_x(iw)) } else { rate(false, wx, 1.0) },
            if board(i + 1, j) { rate(true, wx, gap_x(i + 1)) } else { rate(false, wx, 1.0) },
            if board(i, jn) { rate(true, wy, gap_y(jn)) } else { rate(false, wy, 1.0) },
            if board(i, j + 1) { rate(true, wy, gap_y(j + 1)) } else { rate(false, wy, 1.0) },
        ];
        self.west[at] = R::from_f64(sides[0].0);
        self.east[at] = R::from_f64(sides[1].0);
        self.near[at] = R::from_f64(sides[2].0);
        self.far[at] = R::from_f64(sides[3].0);
        self.diagonal[at] = R::from_f64(sides.iter().map(|(k, h)| k + h).sum());
    }

    /// Puts a run's air on both faces: top, then bottom, by column.
    pub fn set_faces(&mut self, of: RunSlab<'_>, air: [&[SurfaceAir]; 2]) {
        let RunSlab { mesh, slab, run } = of;
        let dz = mesh.layer_thickness();
        let per_kelvin = 1.0 / (slab.capacity * dz);
        let (nx, row) = (self.nx, self.row);
        // A board of one layer has both faces' air on the upper.
        let one_layer = self.layers == 1;
        for (k, air) in air.into_iter().enumerate() {
            let face = &mut self.faces[if one_layer { 0 } else { k }];
            let before = |rate: R| if one_layer && k == 1 { rate } else { R::zero() };
            for (column, surface) in air.iter().enumerate().filter(|(column, _)| mesh.inside[*column]) {
                let at = (column / nx * row + column % nx) * RUNS + run;
                // Half a cell lies between the surface and the cell's middle: u = 1 / (1 + h dz / 2 kz).
                let half_cell = 1.0 / (1.0 + surface.loss * dz / (2.0 * slab.through));
                face.gain[at] = before(face.gain[at]) + R::from_f64(surface.gain * half_cell * per_kelvin);
                face.loss[at] = before(face.loss[at])
                    + R::from_f64((surface.loss * half_cell + surface.linear_radiation) * per_kelvin);
                face.radiation[at] =
                    before(face.radiation[at]) + R::from_f64(surface.emissivity * super::STEFAN_BOLTZMANN * per_kelvin);
            }
        }
    }

    /// Values in an array of the field, spare cells included.
    pub fn values(&self) -> usize {
        (self.row + 2) * (self.ny + 2) * self.layers * RUNS
    }

    /// Index of the first run's value of a cell in an array of the field.
    pub fn cell(&self, column: (usize, usize), layer: usize) -> usize {
        let (i, j) = column;
        (((j + 1) * self.layers + layer) * (self.row + 2) + i + 1) * RUNS
    }

    /// Index of the first run's value of a column in an array of rates.
    pub(super) fn column(&self, i: usize, j: usize) -> usize {
        (j * self.row + i) * RUNS
    }

    /// Fastest rate of a run within a column, 1/s, node links left out: Gershgorin's bound, radiation taken at 700 K.
    pub fn fastest(&self, i: usize, j: usize, run: usize) -> f64 {
        let at = self.column(i, j) + run;
        let sides = self.diagonal[at].wide() * 2.0 + self.through[run].wide() * 4.0;
        let face = |f: &FaceRates<R>| f.loss[at].wide() + 4.0 * 700.0_f64.powi(3) * f.radiation[at].wide();
        sides + face(&self.faces[0]) + face(&self.faces[1])
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::axis::Axis;

    const SLAB: Slab = Slab { thickness: 1.6e-3, in_plane: 20.0, through: 0.4, capacity: 2.0e6 };

    fn plate(cell_mm: f64) -> Mesh {
        Mesh::plate(Axis::uniform(5, cell_mm), Axis::uniform(4, cell_mm), 3, SLAB)
    }

    #[test]
    fn heat_that_leaves_a_cell_arrives_in_its_neighbour() {
        let made = Coefficients::<f64>::new(&plate(1.0), 0.0, 296.0);
        for j in 0..4 {
            for i in 0..4 {
                let (here, there) = (j * made.row + i, j * made.row + i + 1);
                assert!((made.east[here] - made.west[there]).abs() < 1e-12, "cells of one size exchange at one rate");
            }
        }
        assert_eq!((made.west[0], made.east[4]), (0.0, 0.0), "nothing stands beside the board");
    }

    #[test]
    fn only_the_rim_loses_to_the_room() {
        let insulated = Coefficients::<f64>::new(&plate(1.0), 0.0, 296.0);
        let rim = Coefficients::<f64>::new(&plate(1.0), RIM_LOSS, 296.0);
        let lost = |i: usize, j: usize| rim.diagonal[j * rim.row + i] - insulated.diagonal[j * rim.row + i];
        let one_side = RIM_LOSS / (SLAB.capacity * 1e-3);
        assert!((lost(2, 0) - one_side).abs() < 1e-9, "a side, 1/s");
        assert!((lost(0, 0) - 2.0 * one_side).abs() < 1e-9, "a corner has two");
        assert_eq!(lost(2, 2), 0.0);
    }

    #[test]
    fn every_cell_has_a_place_of_its_own_among_spare_ones() {
        let made = Coefficients::<f32>::new(&plate(1.0), 0.0, 296.0);
        let mut places: Vec<usize> = Vec::new();
        for (i, j, layer) in (0..5).flat_map(|i| (0..4).flat_map(move |j| (0..3).map(move |layer| (i, j, layer)))) {
            places.push(made.cell((i, j), layer));
        }
        assert!(places.iter().all(|place| *place < made.values()));
        places.sort_unstable();
        places.dedup();
        assert_eq!(places.len(), 5 * 4 * 3);
    }

    #[test]
    fn finer_cells_and_stronger_air_exchange_faster() {
        let coarse = Coefficients::<f64>::new(&plate(2.0), RIM_LOSS, 296.0);
        let mut fine = Coefficients::<f64>::new(&plate(1.0), RIM_LOSS, 296.0);
        let still = fine.fastest(2, 2, 0);
        assert!(still > coarse.fastest(2, 2, 0));
        let air = vec![SurfaceAir { loss: 200.0, gain: 0.0, emissivity: 0.9, linear_radiation: 0.0 }; 20];
        fine.set_faces(RunSlab { mesh: &plate(1.0), slab: &SLAB, run: 0 }, [&air, &air]);
        assert!(fine.fastest(2, 2, 0) > still);
    }
}
