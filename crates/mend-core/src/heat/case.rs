//! Everything a run starts from.

use super::known::Knowledge;
use super::purpose::Purpose;
use super::recipe::Recipe;
use super::station::Station;
use super::thermocouple::Thermocouple;
use crate::board::Board;
use crate::solder::MeltTarget;
use crate::units::{TempDelta, Temperature};
use crate::watch::Watch;

/// Everything a run starts from.
#[derive(Debug, Clone, Copy)]
pub struct Case<'a> {
    /// The board.
    pub board: &'a Board,
    /// Where each joint melts, in the connector's order.
    pub melting: &'a [MeltTarget],
    /// The station.
    pub station: &'a Station,
    /// What is done.
    pub recipe: &'a Recipe,
    /// What for.
    pub purpose: Purpose,
    /// Ambient temperature.
    pub ambient: Temperature,
    /// What has been learnt of station, board, hand and place.
    pub known: &'a Knowledge,
    /// Where thermocouples are taped.
    pub thermocouples: &'a [Thermocouple],
    /// Is it still wanted? A run that is not ends early, and is no run.
    pub watch: &'a Watch,
}

impl Case<'_> {
    /// Is one joint heated after the other, each for itself?
    pub fn in_turn(&self) -> bool {
        self.purpose.in_turn(self.recipe, self.board)
    }

    /// The board before the first tool, over ambient.
    pub fn begins_over_ambient(&self) -> TempDelta {
        self.recipe.begins_at.map_or(TempDelta::kelvin(0.0), |begins| begins - self.ambient)
    }
}
