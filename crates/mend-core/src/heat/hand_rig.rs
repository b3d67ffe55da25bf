//! A board under hands: what works on it may change at any moment, and nobody knows beforehand what will. The same solver as a
//! plan's, a fixed step at a time.

use super::boundary::{ActiveTools, Ambient, HeatedBoard};
use super::case::Case;
use super::coefficients::RIM_LOSS;
use super::mesh::{Mesh, Resolution};
use super::network::Network;
use super::parameters::ParameterSample;
use super::rig::{Model, SetUp};
use super::run_view::RunView;
use super::shielding::Shielding;
use super::simulation::BatchBoard;
use super::simulation::Simulation;
use super::under::{Under, layer_of, mean};
use crate::board::{Face, Rect};

/// The screening grid, ten steps a second.
pub const BY_HAND: Resolution = Resolution { cell_mm: 2.0, layers: 3, step_s: 0.1 };

/// A board with everything on it, at rest until something works on it.
#[derive(Debug, Clone)]
pub struct HandRig {
    /// Where everything is among the lumps.
    pub network: Network,
    mesh: Mesh,
    covered: [Vec<f64>; 2],
    shielding: Shielding,
    ambient: Ambient,
    simulation: Simulation<f32>,
}

impl HandRig {
    /// Sets a case up with what is true of it; what its recipe lays on stays on, what it does is not done.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::heat::{hand_rig::HandRig, parameters::ParameterSample};
    /// let melting = bench.composition.targets(&bench.board).expect("computed");
    /// let mut rig = HandRig::new(&bench.order().case(&melting), &ParameterSample::nominal());
    /// rig.advance();
    /// assert!((rig.celsius(rig.network.body) - 23.0).abs() < 1e-3, "nothing works on it");
    /// ```
    pub fn new(case: &Case<'_>, truth: &ParameterSample) -> Self {
        let SetUp { mesh, network, covered, shielding, ambient, .. } =
            SetUp::new(case, truth, Model { resolution: BY_HAND, linear: false });
        let room = (RIM_LOSS, case.ambient.in_kelvin());
        let simulation = Simulation::batch(
            BatchBoard { mesh: mesh.clone(), slabs: [mesh.slab] },
            [network.nodes.clone()],
            room,
            BY_HAND.step_s,
        );
        let mut rig = Self { network, mesh, covered, shielding, ambient, simulation };
        rig.work(&ActiveTools::default());
        rig
    }

    /// From now on these tools work.
    pub fn work(&mut self, tools: &ActiveTools) {
        let Self { network, mesh, covered, shielding, ambient, .. } = self;
        let (nodes, ambient) = (&network.nodes, *ambient);
        let air = HeatedBoard { mesh, nodes, covered, shielding, ambient }.with(tools);
        self.simulation.set_air(&air);
    }

    /// A tip comes hot from its holder, K over ambient.
    pub fn heat_tip(&mut self, tip: usize, rise: f64) {
        self.simulation.set_node(tip, rise * self.network.nodes.nodes[tip].capacity);
    }

    /// A tip goes on to its next place as hot as it is.
    pub fn hand_on(&mut self, from: usize, to: usize) {
        self.simulation.hand_on(from, to);
    }

    /// A step on.
    pub fn advance(&mut self) {
        self.simulation.advance();
    }

    /// How it stands.
    pub fn view(&self) -> RunView<'_, f32> {
        self.simulation.of(0)
    }

    /// A lump, °C.
    pub fn celsius(&self, node: usize) -> f64 {
        self.view().node(node) + self.ambient_c()
    }

    /// The board under something, °C.
    pub fn under(&self, under: &Under) -> f64 {
        mean(&self.view(), under) + self.ambient_c()
    }

    /// The cells of a face under a rectangle.
    pub fn place(&self, face: Face, area: &Rect) -> Under {
        Under { columns: self.mesh.under(area), layer: layer_of(&self.mesh, face) }
    }

    /// The hottest place of the two faces, °C.
    pub fn laminate(&self) -> f64 {
        self.view().hottest_face() + self.ambient_c()
    }

    /// Has a joint let go?
    pub fn is_free(&self, joint: usize) -> bool {
        let (view, node) = (self.view(), self.network.joints[joint]);
        view.node_enthalpy(node) >= view.free_from(node)
    }

    fn ambient_c(&self) -> f64 {
        self.ambient.temperature.in_celsius()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::heat::at_work::blowing;
    use crate::heat::run::run;

    #[test]
    fn hands_that_do_what_a_recipe_does_get_what_the_plan_computes() {
        let bench = Bench::try_new().expect("the example");
        let melting = bench.composition.targets(&bench.board).expect("computed");
        let (order, nominal) = (bench.order(), ParameterSample::nominal());
        let case = order.case(&melting);
        let planned = run(&case, &nominal, Resolution::COARSE);
        let mut rig = HandRig::new(&case, &nominal);
        let air = blowing(&case, &bench.recipe.air.expect("hot air"), &nominal);
        rig.work(&ActiveTools::from(air));
        for second in 1..=40 {
            (0..10).for_each(|_| rig.advance());
            let (by_hand, by_plan) = (rig.celsius(rig.network.body), f64::from(planned.traces.body[second]));
            assert!((by_hand - by_plan).abs() < 0.5, "after {second} s {by_hand:.1} and {by_plan:.1} °C");
        }
    }
}
