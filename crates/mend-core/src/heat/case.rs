//! Everything a run starts from.

use super::recipe::Recipe;
use super::station::Station;
use crate::board::Board;
use crate::solder::MeltTarget;
use crate::units::Temperature;
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
    /// Ambient temperature.
    pub ambient: Temperature,
    /// Is it still wanted? A run that is not ends early, and is no run.
    pub watch: &'a Watch,
}
