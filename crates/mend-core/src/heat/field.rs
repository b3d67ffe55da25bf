//! The board's temperature field and the sweep over it: the one loop in which the time goes.
//!
//! Cells lie in rows along x, filled up to a whole number of packs and with one spare cell at either end; the rows of all
//! layers at one y lie together, so that a cell's six neighbours are near it in memory; there is a spare row of each layer
//! at either side. Spare cells have no conductance and stay at zero, so the loop needs no special case at the rim. It works
//! down the layers in packs of sixteen columns: their coefficients are loaded once for all layers, and each layer's values
//! are the next one's neighbour above. Loads into local arrays first, arithmetic next, one store last. (Written over
//! slices it met fourteen pointers that might alias, was not vectorised, and ran at a seventh of the speed.)
//! Excess over ambient, in K. f32 in use, f64 in the energy check.

use num_traits::Float;

use super::mesh::Mesh;
use super::rkl2::Weights;

/// Loss of the rim to the room, W/m²K (T: natural convection and radiation of a narrow edge).
pub const RIM_LOSS: f64 = 10.0;

/// The number in which the field is kept. Each kind has its own compiled sweep, chosen for the processor at run time.
pub trait Real: Float + Send + Sync + std::fmt::Debug + 'static {
    /// From f64.
    fn of(value: f64) -> Self;
    /// To f64.
    fn wide(self) -> f64;
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

/// Cells worked on at once: one or two registers of f32 on the processors at hand.
const PACK: usize = 16;

/// Rates of exchange, 1/s, per column or per surface cell.
#[derive(Debug, Clone)]
pub struct Coefficients<R> {
    nx: usize,
    ny: usize,
    /// Cells of a row, filled up to whole packs.
    row: usize,
    layers: usize,
    west: Vec<R>,
    east: Vec<R>,
    near: Vec<R>,
    far: Vec<R>,
    /// Sum of the four and the loss at the rim.
    diagonal: Vec<R>,
    through: R,
    /// Top and bottom.
    faces: [FaceRates<R>; 2],
    ambient_k: R,
}

/// What the air does to one face: `gain - loss T - radiation ((room + T)^4 - room^4)`, K/s.
#[derive(Debug, Clone)]
struct FaceRates<R> {
    gain: Vec<R>,
    loss: Vec<R>,
    radiation: Vec<R>,
}

/// One surface cell's exchange with the air, SI.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct SurfaceAir {
    /// h, W/m²K.
    pub loss: f64,
    /// h x gas excess, W/m².
    pub gain: f64,
    /// Emissivity; 0 where radiation is already in `loss`.
    pub emissivity: f64,
    /// Linearised radiation, W/m²K, without the half-cell factor.
    pub linear_radiation: f64,
}

impl SurfaceAir {
    /// All of it times `share`: what is left where something stands on the surface.
    pub fn scaled(self, share: f64) -> Self {
        Self {
            loss: self.loss * share,
            gain: self.gain * share,
            emissivity: self.emissivity * share,
            linear_radiation: self.linear_radiation * share,
        }
    }
}

impl<R: Real> Coefficients<R> {
    /// Conduction within the board; faces insulated until [`Self::set_faces`]. `rim` is the loss there, W/m²K.
    pub fn new(mesh: &Mesh, rim: f64, ambient_k: f64) -> Self {
        let (nx, ny) = (mesh.x.len(), mesh.y.len());
        let dz = mesh.layer_thickness();
        let row = nx.next_multiple_of(PACK);
        let columns = || vec![R::zero(); row * ny];
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
            through: R::of(mesh.slab.through / (mesh.slab.capacity * dz * dz)),
            faces: [none(), none()],
            ambient_k: R::of(ambient_k),
        };
        for (i, j) in (0..ny).flat_map(|j| (0..nx).map(move |i| (i, j))) {
            made.fill_column(mesh, (i, j), rim);
        }
        made
    }

    fn fill_column(&mut self, mesh: &Mesh, (i, j): (usize, usize), rim: f64) {
        if !mesh.inside[mesh.column(i, j)] {
            return;
        }
        let at = j * self.row + i;
        let (wx, wy) = (mesh.x.width(i) * 1e-3, mesh.y.width(j) * 1e-3);
        let board = |a: usize, b: usize| a < self.nx && b < self.ny && mesh.inside[mesh.column(a, b)];
        // Rate into this cell: k / (C width distance) to a neighbour cell, h / (C width) where the board ends.
        let rate = |neighbour: bool, width: f64, distance: f64| {
            if neighbour {
                (mesh.slab.in_plane / (mesh.slab.capacity * width * distance), 0.0)
            } else {
                (0.0, rim / (mesh.slab.capacity * width))
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
        self.west[at] = R::of(sides[0].0);
        self.east[at] = R::of(sides[1].0);
        self.near[at] = R::of(sides[2].0);
        self.far[at] = R::of(sides[3].0);
        self.diagonal[at] = R::of(sides.iter().map(|(k, h)| k + h).sum());
    }

    /// Puts the air on both faces: top, then bottom, by column.
    pub fn set_faces(&mut self, mesh: &Mesh, air: [&[SurfaceAir]; 2]) {
        let dz = mesh.layer_thickness();
        let per_kelvin = 1.0 / (mesh.slab.capacity * dz);
        for (face, air) in self.faces.iter_mut().zip(air) {
            for (column, surface) in air.iter().enumerate().filter(|(column, _)| mesh.inside[*column]) {
                let at = column / self.nx * self.row + column % self.nx;
                // Half a cell lies between the surface and the cell's middle: u = 1 / (1 + h dz / 2 kz).
                let half_cell = 1.0 / (1.0 + surface.loss * dz / (2.0 * mesh.slab.through));
                face.gain[at] = R::of(surface.gain * half_cell * per_kelvin);
                face.loss[at] = R::of((surface.loss * half_cell + surface.linear_radiation) * per_kelvin);
                face.radiation[at] = R::of(surface.emissivity * super::STEFAN_BOLTZMANN * per_kelvin);
            }
        }
    }

    /// Cells in an array of the field, spare ones included.
    pub fn cells(&self) -> usize {
        (self.row + 2) * (self.ny + 2) * self.layers
    }

    /// Index of a cell in an array of the field.
    pub fn cell(&self, (i, j): (usize, usize), layer: usize) -> usize {
        ((j + 1) * self.layers + layer) * (self.row + 2) + i + 1
    }

    /// Fastest rate within a column, 1/s, node links left out: Gershgorin's bound, radiation taken at 700 K.
    pub fn fastest(&self, (i, j): (usize, usize)) -> f64 {
        let at = j * self.row + i;
        let sides = self.diagonal[at].wide() * 2.0 + self.through.wide() * 4.0;
        let face = |f: &FaceRates<R>| f.loss[at].wide() + 4.0 * 700.0_f64.powi(3) * f.radiation[at].wide();
        sides + face(&self.faces[0]) + face(&self.faces[1])
    }
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
    let (now, before, start) = (R::of(w.now), R::of(w.before), R::of(w.start));
    let (rate, first) = (R::of(w.rate), R::of(w.first));
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

impl Real for f32 {
    fn of(value: f64) -> Self {
        value as Self
    }
    fn wide(self) -> f64 {
        f64::from(self)
    }
    fn sweep_first(c: &Coefficients<Self>, start: &[Self], first: &mut [Self]) {
        compiled::first_f32(c, start, first);
    }
    fn sweep_next(c: &Coefficients<Self>, weights: Weights, arrays: Arrays<'_, Self>) {
        compiled::next_f32(c, weights, arrays);
    }
}

impl Real for f64 {
    fn of(value: f64) -> Self {
        value
    }
    fn wide(self) -> f64 {
        self
    }
    fn sweep_first(c: &Coefficients<Self>, start: &[Self], first: &mut [Self]) {
        first_stage(c, start, first);
    }
    fn sweep_next(c: &Coefficients<Self>, weights: Weights, arrays: Arrays<'_, Self>) {
        next_stage(c, weights, arrays);
    }
}
