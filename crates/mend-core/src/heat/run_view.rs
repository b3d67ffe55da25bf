//! One of the runs that are computed in a batch, as it stands.

use super::coefficients::Coefficients;
use super::mesh::{Mesh, Slab};
use super::nodes::Node;
use super::stepping::{State, Sweep};

/// A run of a simulation, to be read. Temperatures are excess over ambient, K.
#[derive(Debug, Clone, Copy)]
pub struct RunView<'a, R, const RUNS: usize = 1> {
    pub(super) mesh: &'a Mesh,
    pub(super) slab: &'a Slab,
    pub(super) coefficients: &'a Coefficients<R, RUNS>,
    pub(super) nodes: &'a [Node],
    pub(super) state: &'a State<R, RUNS>,
    pub(super) run: usize,
}

impl<R: Sweep<RUNS>, const RUNS: usize> RunView<'_, R, RUNS> {
    /// Temperature of a node.
    pub fn node(&self, k: usize) -> f64 {
        let (node, h) = (&self.nodes[k], self.node_enthalpy(k));
        if node.capacity.is_infinite() { h } else { node.temperature(h) }
    }

    /// Enthalpy of a node over ambient, J.
    pub fn node_enthalpy(&self, k: usize) -> f64 {
        self.state.enthalpy[k][self.run]
    }

    /// Enthalpy from which a node lets go, J.
    pub fn free_from(&self, k: usize) -> f64 {
        self.nodes[k].free_from()
    }

    /// Is a node all solid?
    pub fn is_solid(&self, k: usize) -> bool {
        self.node_enthalpy(k) <= self.nodes[k].solid_to()
    }

    /// Temperature of a cell.
    pub fn cell(&self, column: (usize, usize), layer: usize) -> f64 {
        self.state.now[self.coefficients.cell(column, layer) + self.run].wide()
    }

    /// One layer as columns.
    pub fn layer(&self, layer: usize) -> Vec<f32> {
        self.columns().map(|at| self.cell(at, layer) as f32).collect()
    }

    /// Hottest cell of the two faces.
    pub fn hottest_face(&self) -> f64 {
        let Self { mesh, coefficients, state, .. } = self;
        let mut hottest = R::zero();
        for (j, layer) in (0..mesh.y.len()).flat_map(|j| [(j, 0), (j, mesh.layers - 1)]) {
            let at = coefficients.cell((0, j), layer);
            // Cell by cell: stepping from a run's value to its next took three times as long.
            for cell in state.now[at..at + mesh.x.len() * RUNS].as_chunks::<RUNS>().0 {
                hottest = if cell[self.run] > hottest { cell[self.run] } else { hottest };
            }
        }
        hottest.wide()
    }

    /// Heat held by board and nodes over ambient, J.
    pub fn heat(&self) -> f64 {
        let (mesh, slab) = (self.mesh, self.slab);
        let column = |at: (usize, usize)| {
            let sum: f64 = (0..mesh.layers).map(|layer| self.cell(at, layer)).sum();
            sum * slab.capacity * mesh.area(at.0, at.1) * mesh.layer_thickness()
        };
        let board: f64 = self.columns().map(column).sum();
        board + self.state.enthalpy.iter().map(|h| h[self.run]).sum::<f64>()
    }

    fn columns(&self) -> impl Iterator<Item = (usize, usize)> + use<R, RUNS> {
        let (nx, ny) = (self.mesh.x.len(), self.mesh.y.len());
        (0..ny).flat_map(move |j| (0..nx).map(move |i| (i, j)))
    }
}
