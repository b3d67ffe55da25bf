//! Rates of exchange of every cell: with its neighbours in the board, with the room at the rim, with the air on both faces.
//! Computes the coefficients of the heat equation on the grid; what is done with them is the [`super::field`]'s.

use super::mesh::Mesh;
use super::real::Real;
use super::surface_air::SurfaceAir;

/// Loss of the rim to the room, W/m²K (T: natural convection and radiation of a narrow edge).
pub const RIM_LOSS: f64 = 10.0;

/// Cells worked on at once: one or two registers of f32 on the processors at hand. Rows are filled up to whole packs.
pub(super) const PACK: usize = 16;

/// Rates of exchange, 1/s, per column or per surface cell.
#[derive(Debug, Clone)]
pub struct Coefficients<R> {
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
    pub(super) through: R,
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
            through: R::from_f64(mesh.slab.through / (mesh.slab.capacity * dz * dz)),
            faces: [none(), none()],
            ambient_k: R::from_f64(ambient_k),
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
        self.west[at] = R::from_f64(sides[0].0);
        self.east[at] = R::from_f64(sides[1].0);
        self.near[at] = R::from_f64(sides[2].0);
        self.far[at] = R::from_f64(sides[3].0);
        self.diagonal[at] = R::from_f64(sides.iter().map(|(k, h)| k + h).sum());
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
                face.gain[at] = R::from_f64(surface.gain * half_cell * per_kelvin);
                face.loss[at] = R::from_f64((surface.loss * half_cell + surface.linear_radiation) * per_kelvin);
                face.radiation[at] = R::from_f64(surface.emissivity * super::STEFAN_BOLTZMANN * per_kelvin);
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
