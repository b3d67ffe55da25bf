//! One step of everything: the board's field and the nodes on it, together, by RKL2. Of one run, or of several in a batch that
//! share grid and steps and differ in figures.

use super::boundary::BoundaryConditions;
use super::coefficients::Coefficients;
use super::coefficients::RunSlab;
use super::lumped_nodes::LumpedNodes;
use super::mesh::{Mesh, Slab};
use super::nodes::{CellLink, Nodes};
use super::rkl2::{self, Weights};
use super::run_view::RunView;
use super::stepping::{State, Sweep};

/// A board under a tool, in time. All temperatures are excess over ambient, K.
#[derive(Debug, Clone)]
pub struct Simulation<R, const RUNS: usize = 1> {
    mesh: Mesh,
    slabs: [Slab; RUNS],
    coefficients: Coefficients<R, RUNS>,
    nodes: [Nodes; RUNS],
    step: f64,
    weights: Vec<Weights>,
    pub(super) state: State<R, RUNS>,
}

/// A room: what the rim loses to it, W/m²K, and its temperature, K.
pub type Room = (f64, f64);

impl<R: Sweep> Simulation<R> {
    /// One run at rest at ambient temperature, insulated but for its rim, stepping by `step` s.
    pub fn new(mesh: Mesh, nodes: Nodes, room: Room, step: f64) -> Self {
        let slab = mesh.slab;
        Self::batch(BatchBoard { mesh, slabs: [slab] }, [nodes], room, step)
    }

    /// Changes what the air does. The stage count follows.
    pub fn set_air(&mut self, air: &BoundaryConditions) {
        self.set_airs(std::array::from_ref(air));
    }

    /// Temperature of a node, K over ambient.
    pub fn node(&self, k: usize) -> f64 {
        self.of(0).node(k)
    }

    /// Enthalpy of a node over ambient, J.
    pub fn node_enthalpy(&self, k: usize) -> f64 {
        self.of(0).node_enthalpy(k)
    }

    /// Temperature of a cell, K over ambient.
    pub fn cell(&self, column: (usize, usize), layer: usize) -> f64 {
        self.of(0).cell(column, layer)
    }

    /// Hottest cell of the two faces, K over ambient.
    pub fn hottest_face(&self) -> f64 {
        self.of(0).hottest_face()
    }

    /// One layer as columns, K over ambient.
    pub fn layer(&self, layer: usize) -> Vec<f32> {
        self.of(0).layer(layer)
    }

    /// Heat held by board and nodes over ambient, J.
    pub fn heat(&self) -> f64 {
        self.of(0).heat()
    }

    /// The lumps.
    pub fn nodes(&self) -> &Nodes {
        &self.nodes[0]
    }

    /// Sets a cell, K over ambient.
    pub fn set_cell(&mut self, column: (usize, usize), layer: usize, value: f64) {
        let at = self.coefficients.cell(column, layer);
        self.state.now[at] = R::from_f64(value);
    }

    /// Takes over the temperatures of another on the same grid, whatever its lumps hold at them.
    pub fn adopt(&mut self, other: &Self) {
        self.state.now.copy_from_slice(&other.state.now);
        for (k, node) in self.nodes[0].nodes.iter().enumerate() {
            self.state.enthalpy[k] = [other.node(k) * node.capacity];
        }
    }
}

/// The board of a batch: one grid, each run's own material.
#[derive(Debug, Clone)]
pub struct BatchBoard<const RUNS: usize> {
    /// The grid.
    pub mesh: Mesh,
    /// Each run's material.
    pub slabs: [Slab; RUNS],
}

impl<R: Sweep<RUNS>, const RUNS: usize> Simulation<R, RUNS> {
    /// A batch of runs, each with its own material and lumps, at rest at ambient temperature.
    pub fn batch(board: BatchBoard<RUNS>, nodes: [Nodes; RUNS], room: Room, step: f64) -> Self {
        let BatchBoard { mesh, slabs } = board;
        let coefficients = Coefficients::batch(&mesh, &slabs, room.0, room.1);
        let dz = mesh.layer_thickness();
        let place = |link: &CellLink| {
            let volume = mesh.area(link.column.0, link.column.1) * dz;
            (coefficients.cell(link.column, link.layer), slabs.map(|slab| 1.0 / (slab.capacity * volume)))
        };
        let lumps = LumpedNodes::new(&nodes, place);
        let state = State::at_rest(lumps, coefficients.values(), nodes[0].nodes.len());
        let mut made = Self { mesh, slabs, coefficients, nodes, step, weights: Vec::new(), state };
        made.choose_stages();
        made
    }

    /// Changes what the air does in each run. The stage count follows: all take as many as the stiffest.
    pub fn set_airs(&mut self, airs: &[BoundaryConditions; RUNS]) {
        for (run, air) in airs.iter().enumerate() {
            let slab = &self.slabs[run];
            self.coefficients.set_faces(RunSlab { mesh: &self.mesh, slab, run }, [&air.faces[0], &air.faces[1]]);
            self.state.lumps.set_air(run, &air.nodes);
        }
        self.state.lumps.join(&self.nodes[0], &airs[0].tips);
        self.choose_stages();
    }

    /// Gershgorin's bound over cells and nodes of every run, then the stages that cover the step.
    fn choose_stages(&mut self) {
        let fastest = (0..RUNS).map(|run| self.fastest(run)).fold(0.0, f64::max);
        self.weights = rkl2::weights(rkl2::stages(self.step, fastest), self.step);
    }

    fn fastest(&self, run: usize) -> f64 {
        let mut into_cells = vec![0.0; self.coefficients.values() / RUNS];
        let lumps = self.state.lumps.fastest(run, &self.nodes[run], &mut into_cells);
        let nx = self.mesh.x.len();
        let inside = (0..self.mesh.inside.len()).filter(|c| self.mesh.inside[*c]);
        // Through the thickness, the cell with the strongest link counts.
        let strongest = |i, j| {
            let cell = |layer| self.coefficients.cell((i, j), layer) / RUNS;
            (0..self.mesh.layers).map(|layer| into_cells[cell(layer)]).fold(0.0, f64::max)
        };
        let board = inside.map(|c| {
            let (i, j) = (c % nx, c / nx);
            self.coefficients.fastest(i, j, run) + strongest(i, j)
        });
        board.fold(lumps, f64::max)
    }

    /// Stages of one step.
    pub fn stages(&self) -> usize {
        self.weights.len()
    }

    /// Goes one step on.
    pub fn advance(&mut self) {
        self.state.first_stage(&self.coefficients, self.weights[0]);
        for w in &self.weights[1..] {
            self.state.later_stage(&self.coefficients, *w);
        }
    }

    /// One of the runs, to be read.
    pub fn of(&self, run: usize) -> RunView<'_, R, RUNS> {
        let Self { mesh, coefficients, state, .. } = self;
        let (slab, nodes) = (&self.slabs[run], &self.nodes[run].nodes);
        RunView { mesh, slab, coefficients, nodes, state, run }
    }

    /// The grid.
    pub fn mesh(&self) -> &Mesh {
        &self.mesh
    }

    /// Sets a node in every run: its enthalpy, J, or the temperature of a held one, K over ambient.
    pub fn set_node(&mut self, k: usize, value: f64) {
        self.state.enthalpy[k] = [value; RUNS];
    }

    /// Board and lumps all as warm as each other, K over ambient, but for lumps that come from elsewhere and held ones.
    pub fn begin_at(&mut self, rise: f64, but: &[usize]) {
        let columns = (0..self.mesh.inside.len()).filter(|column| self.mesh.inside[*column]);
        let places = columns.map(|column| (column % self.mesh.x.len(), column / self.mesh.x.len()));
        for (place, layer) in places.flat_map(|place| (0..self.mesh.layers).map(move |layer| (place, layer))) {
            let at = self.coefficients.cell(place, layer);
            self.state.now[at..at + RUNS].fill(R::from_f64(rise));
        }
        for k in (0..self.nodes[0].nodes.len()).filter(|k| !but.contains(k)) {
            for run in 0..RUNS {
                let node = &self.nodes[run].nodes[k];
                if node.capacity.is_finite() {
                    self.state.enthalpy[k][run] = node.enthalpy(rise);
                }
            }
        }
    }

    /// Gives a node what another holds.
    pub fn hand_on(&mut self, from: usize, to: usize) {
        self.state.enthalpy[to] = self.state.enthalpy[from];
    }

    /// Takes over the state of one run of another of the same make.
    pub fn take_over(&mut self, run: usize, from: &Self) {
        let values = self.state.now.iter_mut().zip(&from.state.now).skip(run).step_by(RUNS);
        values.for_each(|(own, other)| *own = *other);
        for (own, other) in self.state.enthalpy.iter_mut().zip(&from.state.enthalpy) {
            own[run] = other[run];
        }
    }
}
