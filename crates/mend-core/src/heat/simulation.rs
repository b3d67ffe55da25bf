//! One step of everything: the board's field and the nodes on it, together, by RKL2.

use super::boundary::BoundaryConditions;
use super::coefficients::Coefficients;
use super::field::{Arrays, Sweep};
use super::mesh::Mesh;
use super::nodes::Nodes;
use super::rkl2::{self, Weights};

/// A board under a tool, in time. All temperatures are excess over ambient, K.
#[derive(Debug, Clone)]
pub struct Simulation<R> {
    mesh: Mesh,
    coefficients: Coefficients<R>,
    nodes: Nodes,
    links: Vec<Conductance>,
    air: Vec<(f64, f64)>,
    /// The tip at work.
    tip: Option<usize>,
    step: f64,
    weights: Vec<Weights>,
    now: Vec<R>,
    enthalpy: Vec<f64>,
    work: Scratch<R>,
}

/// A node's link into a cell, resolved.
#[derive(Debug, Clone, Copy)]
struct Conductance {
    node: usize,
    cell: usize,
    conductance: f64,
    /// One over the cell's heat capacity, K/J.
    per_joule: f64,
}

/// Arrays kept between steps so that stepping allocates nothing.
#[derive(Debug, Clone)]
struct Scratch<R> {
    start: Vec<R>,
    first: Vec<R>,
    other: Vec<R>,
    node_start: Vec<f64>,
    node_first: Vec<f64>,
    node_other: Vec<f64>,
    node_rate: Vec<f64>,
    node_temperature: Vec<f64>,
}

impl<R: Sweep> Simulation<R> {
    /// At rest at ambient temperature (`ambient_k`, K), insulated but for its rim (`rim` W/m²K), stepping by `step` s.
    pub fn new(mesh: Mesh, nodes: Nodes, (rim, ambient_k): (f64, f64), step: f64) -> Self {
        let coefficients = Coefficients::new(&mesh, rim, ambient_k);
        let (cells, count) = (coefficients.cells(), nodes.nodes.len());
        let links = nodes.cells.iter().map(|link| Conductance {
            node: link.node,
            cell: coefficients.cell(link.column, link.layer),
            conductance: link.conductance,
            per_joule: 1.0 / mesh.cell_capacity(link.column.0, link.column.1),
        });
        let field = || vec![R::zero(); cells];
        let lumps = || vec![0.0; count];
        let mut made = Self {
            links: links.collect(),
            air: vec![(0.0, 0.0); count],
            tip: None,
            step,
            weights: Vec::new(),
            now: field(),
            enthalpy: lumps(),
            work: Scratch {
                start: field(),
                first: field(),
                other: field(),
                node_start: lumps(),
                node_first: lumps(),
                node_other: lumps(),
                node_rate: lumps(),
                node_temperature: lumps(),
            },
            mesh,
            coefficients,
            nodes,
        };
        made.choose_stages();
        made
    }

    /// Changes what the air does. The stage count follows.
    pub fn set_air(&mut self, air: &BoundaryConditions) {
        self.coefficients.set_faces(&self.mesh, [&air.faces[0], &air.faces[1]]);
        self.air.clone_from(&air.nodes);
        self.tip = air.tip;
        self.choose_stages();
    }

    /// Gershgorin's bound over cells and nodes, then the stages that cover the step.
    fn choose_stages(&mut self) {
        let columns = self.mesh.inside.len();
        let mut into_cells = vec![0.0; self.now.len()];
        let mut into_nodes: Vec<f64> = self.air.iter().map(|(loss, _)| *loss).collect();
        for link in &self.links {
            into_cells[link.cell] += 2.0 * link.conductance * link.per_joule;
            into_nodes[link.node] += 2.0 * link.conductance;
        }
        for link in self.nodes.joined(self.tip) {
            into_nodes[link.a] += 2.0 * link.conductance;
            into_nodes[link.b] += 2.0 * link.conductance;
        }
        let nx = self.mesh.x.len();
        let inside = (0..columns).filter(|c| self.mesh.inside[*c]);
        // Through the thickness, the cell with the strongest link counts.
        let strongest =
            |at| (0..self.mesh.layers).map(|l| into_cells[self.coefficients.cell(at, l)]).fold(0.0, f64::max);
        let board = inside.map(|c| (c % nx, c / nx)).map(|at| self.coefficients.fastest(at) + strongest(at));
        let lumps = self.nodes.nodes.iter().zip(&into_nodes).map(|(node, g)| g / node.capacity);
        let fastest = board.chain(lumps).fold(0.0, f64::max);
        self.weights = rkl2::weights(rkl2::stages(self.step, fastest), self.step);
    }

    /// Stages of one step.
    pub fn stages(&self) -> usize {
        self.weights.len()
    }

    /// Goes one step on.
    pub fn advance(&mut self) {
        self.first_stage();
        for stage in 1..self.weights.len() {
            self.later_stage(self.weights[stage]);
        }
    }

    fn first_stage(&mut self) {
        let tau = self.weights[0].rate;
        self.work.start.copy_from_slice(&self.now);
        self.work.other.copy_from_slice(&self.now);
        self.work.node_start.copy_from_slice(&self.enthalpy);
        self.work.node_other.copy_from_slice(&self.enthalpy);

        R::sweep_first(&self.coefficients, &self.work.start, &mut self.work.first);
        self.node_rates();
        self.work.node_first.copy_from_slice(&self.work.node_rate);
        for link in &self.links {
            let flow = self.flow(link);
            let gained = self.work.first[link.cell].wide() - flow * link.per_joule;
            self.work.first[link.cell] = R::from_f64(gained);
        }
        let tau_r = R::from_f64(tau);
        for (y, l) in self.now.iter_mut().zip(&self.work.first) {
            *y = *y + tau_r * *l;
        }
        for (h, l) in self.enthalpy.iter_mut().zip(&self.work.node_first) {
            *h += tau * l;
        }
    }

    fn later_stage(&mut self, w: Weights) {
        self.node_rates();
        let work = &mut self.work;
        let arrays = Arrays { now: &self.now, next: &mut work.other, start: &work.start, first: &work.first };
        R::sweep_next(&self.coefficients, w, arrays);
        for link in &self.links {
            let gained = -self.flow(link) * link.per_joule * w.rate;
            self.work.other[link.cell] = self.work.other[link.cell] + R::from_f64(gained);
        }
        let work = &mut self.work;
        for k in 0..self.enthalpy.len() {
            work.node_other[k] = w.now * self.enthalpy[k]
                + w.before * work.node_other[k]
                + w.start * work.node_start[k]
                + w.rate * work.node_rate[k]
                + w.first * work.node_first[k];
        }
        std::mem::swap(&mut self.now, &mut self.work.other);
        std::mem::swap(&mut self.enthalpy, &mut self.work.node_other);
    }

    /// Heat flow through a link into the node, W, at the temperatures of the last [`Self::node_rates`].
    fn flow(&self, link: &Conductance) -> f64 {
        link.conductance * (self.now[link.cell].wide() - self.work.node_temperature[link.node])
    }

    /// Temperatures and rates of all nodes at the present state. Held nodes (infinite capacity) stay.
    fn node_rates(&mut self) {
        for (k, node) in self.nodes.nodes.iter().enumerate() {
            let held = node.capacity.is_infinite();
            let t = if held { self.enthalpy[k] } else { node.temperature(self.enthalpy[k]) };
            let (loss, gain) = self.air[k];
            self.work.node_temperature[k] = t;
            self.work.node_rate[k] = (gain - loss * t).min(node.most_w);
        }
        for link in self.nodes.joined(self.tip) {
            let flow = link.conductance * (self.work.node_temperature[link.a] - self.work.node_temperature[link.b]);
            self.work.node_rate[link.a] -= flow;
            self.work.node_rate[link.b] += flow;
        }
        for k in 0..self.links.len() {
            let link = self.links[k];
            self.work.node_rate[link.node] += self.flow(&link);
        }
        for (node, rate) in self.nodes.nodes.iter().zip(&mut self.work.node_rate) {
            if node.capacity.is_infinite() {
                *rate = 0.0;
            }
        }
    }

    /// Temperature of a node, K over ambient.
    pub fn node(&self, k: usize) -> f64 {
        let node = &self.nodes.nodes[k];
        if node.capacity.is_infinite() { self.enthalpy[k] } else { node.temperature(self.enthalpy[k]) }
    }

    /// Enthalpy of a node over ambient, J.
    pub fn node_enthalpy(&self, k: usize) -> f64 {
        self.enthalpy[k]
    }

    /// The lumps.
    pub fn nodes(&self) -> &Nodes {
        &self.nodes
    }

    /// The grid.
    pub fn mesh(&self) -> &Mesh {
        &self.mesh
    }

    /// Sets a node: its enthalpy, J, or the temperature of a held one, K over ambient.
    pub fn set_node(&mut self, k: usize, value: f64) {
        self.enthalpy[k] = value;
    }

    /// Takes over the temperatures of another on the same grid, whatever its lumps hold at them.
    pub fn adopt(&mut self, other: &Self) {
        self.now.copy_from_slice(&other.now);
        for (k, node) in self.nodes.nodes.iter().enumerate() {
            self.enthalpy[k] = other.node(k) * node.capacity;
        }
    }

    /// Temperature of a cell, K over ambient.
    pub fn cell(&self, column: (usize, usize), layer: usize) -> f64 {
        self.now[self.coefficients.cell(column, layer)].wide()
    }

    /// Sets a cell, K over ambient.
    pub fn set_cell(&mut self, column: (usize, usize), layer: usize, value: f64) {
        let at = self.coefficients.cell(column, layer);
        self.now[at] = R::from_f64(value);
    }

    /// One layer as columns, K over ambient.
    pub fn layer(&self, layer: usize) -> Vec<f32> {
        let (nx, ny) = (self.mesh.x.len(), self.mesh.y.len());
        (0..ny).flat_map(|j| (0..nx).map(move |i| (i, j))).map(|at| self.cell(at, layer) as f32).collect()
    }

    /// Hottest cell of the two faces, K over ambient.
    pub fn hottest_face(&self) -> f64 {
        let row = |j: usize, layer: usize| {
            let at = self.coefficients.cell((0, j), layer);
            &self.now[at..at + self.mesh.x.len()]
        };
        let rows = (0..self.mesh.y.len()).flat_map(|j| [row(j, 0), row(j, self.mesh.layers - 1)]);
        rows.flatten().fold(R::zero(), |hottest, t| hottest.max(*t)).wide()
    }

    /// Heat held by board and nodes over ambient, J.
    pub fn heat(&self) -> f64 {
        let columns = (0..self.mesh.y.len()).flat_map(|j| (0..self.mesh.x.len()).map(move |i| (i, j)));
        let board: f64 = columns
            .map(|at| {
                let column: f64 = (0..self.mesh.layers).map(|layer| self.cell(at, layer)).sum();
                column * self.mesh.cell_capacity(at.0, at.1)
            })
            .sum();
        board + self.enthalpy.iter().sum::<f64>()
    }
}
