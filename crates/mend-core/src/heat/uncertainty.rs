//! What nobody knows about a board, a station and a hand, and how widely.

use serde::{Deserialize, Serialize};

use super::case::Case;
use super::display::Shows;
use super::known::{Belief, Teachable, TeachableValues};
use super::recipe::Held;
use super::station::Station;
use super::tool::{Blower, HotAir};
use crate::units::Length;

/// A thing that is guessed as long as nobody has measured it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum UncertainInput {
    /// How well the jet of this station through this nozzle carries heat over.
    JetTransfer,
    /// Real against displayed flow.
    Flow,
    /// What leaves the nozzle against what is set.
    OutletTemperature,
    /// How far the nozzle is held.
    Distance,
    /// Where it is aimed.
    Aim,
    /// How well the board's copper carries heat away.
    Conduction,
    /// What the board and the small parts on it take up.
    HeatCapacity,
    /// What is lost to the room.
    Losses,
    /// How much of what is fed mixes in.
    Mixing,
    /// How liquid a joint must be to let go.
    LetGo,
    /// Where the alloy melts.
    MeltingPoint,
    /// What a shield keeps out.
    Shields,
    /// What plastics, packages and laminate stand.
    Tolerance,
}

impl UncertainInput {
    /// All of them.
    pub const ALL: [Self; 13] = [
        Self::JetTransfer,
        Self::Flow,
        Self::OutletTemperature,
        Self::Distance,
        Self::Aim,
        Self::Conduction,
        Self::HeatCapacity,
        Self::Losses,
        Self::Mixing,
        Self::LetGo,
        Self::MeltingPoint,
        Self::Shields,
        Self::Tolerance,
    ];
}

/// Spreads of what belongs to one case; standard deviations of the logarithm unless said (the table of stations.md).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Uncertainty {
    /// Of the jet's transfer.
    pub jet: f64,
    /// Of real against displayed flow.
    pub flow: f64,
    /// Of what leaves the nozzle, K.
    pub outlet_k: f64,
    /// Does a narrow nozzle cost flow, by an amount that differs between fans?
    pub back_pressure: bool,
    /// Of the distance.
    pub distance: f64,
    /// Of the aim each way, mm.
    pub aim_mm: f64,
    /// Of the conductivity in plane.
    pub conduction: f64,
    /// Of the heat capacity.
    pub capacity: f64,
    /// Of the losses.
    pub losses: f64,
}

/// Logarithmic spread of the losses.
const LOSS_SPREAD: f64 = 0.20;
/// Logarithmic spread of the heat capacity.
const CAPACITY_SPREAD: f64 = 0.15;
/// Up to here a nozzle is narrow: on fans the law of the jet looks too weak there.
const NARROW: Length = Length::mm(8.0);
/// Spread of the transfer of a narrow nozzle on a fan that nobody has probed.
const NARROW_ON_FAN: f64 = 0.35;
/// Spread of the flow of a dial or of per cent that nobody has measured.
const FLOW_BY_DIAL: f64 = 0.25;
/// From this spread of the flow on nobody has measured it.
const BLIND_FLOW: f64 = 0.15;

impl Uncertainty {
    /// Of a case as it is known.
    pub fn from_case(case: &Case<'_>) -> Self {
        let (blind, belief) = (Self::blind(case), Belief::from_case(case));
        Self {
            jet: belief.spread(Teachable::Jet),
            flow: belief.spread(Teachable::Flow),
            outlet_k: belief.spread(Teachable::Outlet),
            distance: belief.spread(Teachable::Distance),
            conduction: belief.spread(Teachable::Conduction),
            capacity: belief.spread(Teachable::Capacity),
            losses: belief.spread(Teachable::Losses),
            ..blind
        }
    }

    /// Before anybody has taught anything.
    pub fn blind(case: &Case<'_>) -> Self {
        let &Station { jet_spread, flow_spread, outlet_spread_k, .. } = case.station;
        let narrow = |air: &HotAir| air.nozzle <= NARROW && case.station.blower == Blower::Fan;
        let blind_and_narrow = !case.station.is_measured() && case.recipe.air.as_ref().is_some_and(narrow);
        let dial = case.station.display.shows() != Shows::Flow && flow_spread >= BLIND_FLOW;
        let (distance, aim_mm) = match case.recipe.held {
            Held::Hand => (0.25, 2.0),
            Held::Stand => (0.08, 0.5),
        };
        Self {
            jet: if blind_and_narrow { jet_spread.max(NARROW_ON_FAN) } else { jet_spread },
            flow: if dial { flow_spread.max(FLOW_BY_DIAL) } else { flow_spread },
            outlet_k: outlet_spread_k,
            back_pressure: case.station.blower == Blower::Fan,
            distance,
            aim_mm,
            conduction: case.board.stack.conduction_spread(),
            capacity: CAPACITY_SPREAD,
            losses: LOSS_SPREAD,
        }
    }

    /// Of what can be taught, in the order of [`TeachableValues`].
    pub fn teachable(&self) -> TeachableValues {
        TeachableValues::from_fn(|k, _| match Teachable::ALL[k] {
            Teachable::Jet => self.jet,
            Teachable::Flow => self.flow,
            Teachable::Outlet => self.outlet_k,
            Teachable::Distance => self.distance,
            Teachable::Conduction => self.conduction,
            Teachable::Capacity => self.capacity,
            Teachable::Losses => self.losses,
        })
    }

    /// How wide a guess would be once somebody had measured it, against how wide it is now: 1 where nothing can be done about it
    /// before the job.
    pub fn measured_against_now(&self, guess: UncertainInput) -> f64 {
        let against = |measured: f64, now: f64| if now > 0.0 { (measured / now).min(1.0) } else { 1.0 };
        match guess {
            UncertainInput::JetTransfer => against(0.08, self.jet),
            UncertainInput::Flow => against(0.05, self.flow),
            UncertainInput::OutletTemperature => against(4.0, self.outlet_k),
            UncertainInput::Distance => against(0.08, self.distance),
            UncertainInput::Aim => against(0.5, self.aim_mm),
            UncertainInput::Conduction => against(0.10, self.conduction),
            UncertainInput::HeatCapacity => against(0.06, self.capacity),
            UncertainInput::Losses => against(0.15, self.losses),
            UncertainInput::Mixing
            | UncertainInput::LetGo
            | UncertainInput::MeltingPoint
            | UncertainInput::Shields
            | UncertainInput::Tolerance => 1.0,
        }
    }
}

impl Belief {
    /// Before anybody has taught anything of a case.
    pub fn blind(case: &Case<'_>) -> Self {
        Self::from_spreads(&Uncertainty::blind(case).teachable())
    }

    /// Of a case, with what is known.
    pub fn from_case(case: &Case<'_>) -> Self {
        let blind = Self::blind(case);
        if case.known.is_nothing() { blind } else { blind.taught(case.known) }
    }
}
