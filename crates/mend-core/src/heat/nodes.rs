//! Joints and bodies as lumped nodes. The state is enthalpy, so latent heat is exact and needs no iteration.

use crate::board::{Face, Rect};

/// Melting of a node, temperatures as excess over ambient.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Melting {
    /// Solidus, K over ambient.
    pub solidus: f64,
    /// Liquidus, K over ambient.
    pub liquidus: f64,
    /// Latent heat of the node, J.
    pub latent: f64,
    /// Where it lets go, K over ambient, and how much of it is liquid there, 0-1.
    pub lets_go: (f64, f64),
}

impl Melting {
    /// Melts all the way before it lets go.
    pub const fn whole(solidus: f64, liquidus: f64, latent: f64) -> Self {
        Self { solidus, liquidus, latent, lets_go: (liquidus, 1.0) }
    }
}

/// A surface of a node that the air reaches.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NodeSurface {
    /// The face of the board it looks away from.
    pub face: Face,
    /// Where it is, mm.
    pub place: Rect,
    /// Its area, m².
    pub area: f64,
    /// Emissivity, 0-1.
    pub emissivity: f64,
}

/// A lump with one temperature.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Node {
    /// Sensible heat capacity, J/K. Infinite for a node held at its temperature.
    pub capacity: f64,
    /// Melting, if it does.
    pub melting: Option<Melting>,
    /// Where the air reaches it.
    pub surface: Option<NodeSurface>,
    /// The most that its heater gives, W; infinite for what has none.
    pub most_w: f64,
}

impl Node {
    /// A lump that does not melt.
    pub const fn lump(capacity: f64) -> Self {
        Self { capacity, melting: None, surface: None, most_w: f64::INFINITY }
    }

    /// Temperature at an enthalpy `h` (J over ambient), K over ambient. Piecewise linear over the pasty range, with a corner where
    /// it lets go.
    pub fn temperature(&self, h: f64) -> f64 {
        let Some(m) = self.melting else { return h / self.capacity };
        let (low, free, high) = (self.solid_to(), self.free_from(), self.liquid_from());
        let between =
            |(from, t_from): (f64, f64), (to, t_to): (f64, f64)| t_from + (h - from) / (to - from) * (t_to - t_from);
        if h <= low {
            h / self.capacity
        } else if h < free {
            between((low, m.solidus), (free, m.lets_go.0))
        } else if h < high {
            between((free, m.lets_go.0), (high, m.liquidus))
        } else {
            m.liquidus + (h - high) / self.capacity
        }
    }

    /// Enthalpy at a temperature `t` (K over ambient), J over ambient; of a lump that melts at one temperature the solid's there.
    pub fn enthalpy(&self, t: f64) -> f64 {
        let Some(m) = self.melting else { return t * self.capacity };
        let share = |(low, high): (f64, f64)| {
            if high > low { ((t - low) / (high - low)).clamp(0.0, 1.0) } else { f64::from(t > low) }
        };
        let (free, liquid) = m.lets_go;
        let melted = liquid * share((m.solidus, free)) + (1.0 - liquid) * share((free, m.liquidus));
        t * self.capacity + m.latent * melted
    }

    /// Enthalpy from which it lets go, J; infinite for a lump that does not melt.
    pub fn free_from(&self) -> f64 {
        self.melting.map_or(f64::INFINITY, |m| self.capacity * m.lets_go.0 + m.latent * m.lets_go.1)
    }

    /// Enthalpy from which it is all liquid, J; infinite for a lump that does not melt.
    pub fn liquid_from(&self) -> f64 {
        self.melting.map_or(f64::INFINITY, |m| self.capacity * m.liquidus + m.latent)
    }

    /// Enthalpy up to which it is all solid, J.
    pub fn solid_to(&self) -> f64 {
        self.melting.map_or(f64::INFINITY, |m| self.capacity * m.solidus)
    }
}

/// Conductance between two nodes, W/K.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NodeLink {
    /// One node.
    pub a: usize,
    /// The other.
    pub b: usize,
    /// W/K.
    pub conductance: f64,
}

/// Conductance between a node and a cell of the board, W/K.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CellLink {
    /// The node.
    pub node: usize,
    /// The column (i, j).
    pub column: (usize, usize),
    /// The layer, 0 at the top.
    pub layer: usize,
    /// W/K.
    pub conductance: f64,
}

/// All lumps on a board and what joins them.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Nodes {
    /// The lumps.
    pub nodes: Vec<Node>,
    /// Between lumps.
    pub links: Vec<NodeLink>,
    /// Of tips (`a`) to what they are held on: only while that tip is at work.
    pub touches: Vec<NodeLink>,
    /// Into the board.
    pub cells: Vec<CellLink>,
}

impl Nodes {
    /// Adds a lump; answers its index.
    pub fn add(&mut self, node: Node) -> usize {
        self.nodes.push(node);
        self.nodes.len() - 1
    }
    /// Links between lumps, with those of the tips at work.
    pub fn joined(&self, tips: &[usize]) -> impl Iterator<Item = &NodeLink> {
        self.links.iter().chain(self.touches.iter().filter(move |touch| tips.contains(&touch.a)))
    }
    /// Joins two lumps.
    pub fn join(&mut self, a: usize, b: usize, conductance: f64) {
        self.links.push(NodeLink { a, b, conductance });
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn temperature_stands_still_while_a_eutectic_melts() {
        let node = Node { melting: Some(Melting::whole(160.0, 160.0, 2.0)), ..Node::lump(0.01) };
        assert_eq!(node.temperature(1.6), 160.0);
        assert_eq!(node.temperature(2.6), 160.0);
        assert_eq!(node.temperature(3.6), 160.0);
        assert!((node.temperature(3.7) - 170.0).abs() < 1e-9);
        let mushy = Melting { lets_go: (185.0, 0.8), ..Melting::whole(160.0, 190.0, 2.0) };
        let mushy = Node { melting: Some(mushy), ..node };
        for t in [20.0, 159.0, 170.0, 184.0, 187.0, 230.0] {
            assert!((mushy.temperature(mushy.enthalpy(t)) - t).abs() < 1e-9, "{t}");
        }
    }
}
