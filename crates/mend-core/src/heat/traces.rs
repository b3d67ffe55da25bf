//! Temperatures of everything that is watched, at every full second.

use super::network::Network;
use super::run_view::RunView;
use super::stepping::Sweep;
use super::thermocouple::ThermocoupleCurve;
use super::under::{Under, mean};

/// A curve each, from second 0, over whatever the recorder counts from: °C in a run, the rise in a unit run.
#[derive(Debug, Clone, Default)]
pub struct Traces {
    /// Per joint of the connector.
    pub joints: Vec<Vec<f32>>,
    /// The skin of the part's body.
    pub body: Vec<f32>,
    /// Per component, its skin.
    pub components: Vec<Vec<f32>>,
    /// Per component, the board that it is soldered to.
    pub own_joints: Vec<Vec<f32>>,
    /// The board at the part's joints, mean.
    pub pads: Vec<f32>,
    /// Hottest place of the laminate's faces.
    pub laminate: Vec<f32>,
    /// Per thermocouple.
    pub thermocouples: Vec<ThermocoupleCurve>,
}

impl Traces {
    /// Empty, for what a network has.
    pub fn from_network(network: &Network) -> Self {
        let each = |count: usize| vec![Vec::new(); count];
        let (joints, components) = (network.joints.len(), network.components.len());
        let thermocouples = vec![ThermocoupleCurve::default(); network.thermocouples.len()];
        let (joints, components, own_joints) = (each(joints), each(components), each(components));
        Self { joints, components, own_joints, thermocouples, ..Self::default() }
    }

    /// Adds a second; `from` is what the state's zero counts as.
    pub fn record<const RUNS: usize>(&mut self, state: &RunView<'_, f32, RUNS>, network: &Network, from: f32)
    where
        f32: Sweep<RUNS>,
    {
        let node = |k: &usize| state.node(*k) as f32 + from;
        let cells = |under: &Under| mean(state, under) as f32 + from;
        self.joints.iter_mut().zip(&network.joints).for_each(|(curve, k)| curve.push(node(k)));
        self.components.iter_mut().zip(&network.components).for_each(|(curve, k)| curve.push(node(k)));
        self.own_joints.iter_mut().zip(&network.stands_on).for_each(|(curve, under)| curve.push(cells(under)));
        self.body.push(node(&network.body));
        self.pads.push(cells(&network.pads));
        self.laminate.push(state.hottest_face() as f32 + from);
        let taped = self.thermocouples.iter_mut().zip(&network.thermocouples);
        taped.for_each(|(curve, cells)| curve.record(cells, state, from));
    }

    /// Seconds recorded, second 0 included.
    pub fn len(&self) -> usize {
        self.laminate.len()
    }

    /// Is there nothing yet?
    pub fn is_empty(&self) -> bool {
        self.laminate.is_empty()
    }

    /// Adds another's seconds behind its own.
    pub fn append(&mut self, mut other: Self) {
        let own = self.joints.iter_mut().chain(&mut self.components).chain(&mut self.own_joints);
        let own = own.chain([&mut self.body, &mut self.pads, &mut self.laminate]);
        let others = other.joints.iter_mut().chain(&mut other.components).chain(&mut other.own_joints);
        let others = others.chain([&mut other.body, &mut other.pads, &mut other.laminate]);
        own.zip(others).for_each(|(own, other)| own.append(other));
        let taped = self.thermocouples.iter_mut().zip(&mut other.thermocouples);
        taped.for_each(|(own, other)| own.append(other));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn seconds_are_added_behind_those_that_are_there() {
        let second = |t: f32| Traces {
            joints: vec![vec![t], vec![t + 1.0]],
            body: vec![t],
            components: vec![vec![t]],
            own_joints: vec![vec![t]],
            pads: vec![t],
            laminate: vec![t],
            thermocouples: vec![ThermocoupleCurve { celsius: vec![t], per_mm: vec![0.0] }],
        };
        let mut all = second(20.0);
        all.append(second(30.0));
        assert_eq!((all.len(), all.is_empty(), Traces::default().is_empty()), (2, false, true));
        assert_eq!(all.joints, [vec![20.0, 30.0], vec![21.0, 31.0]]);
    }
}
