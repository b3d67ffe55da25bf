//! What nobody knows about a board, a station and a hand, as samples. Near the balance of heat in and heat out the time to melt
//! is a cliff: a prediction is a band over these, with "may not melt" as a possible end.

use statrs::distribution::{ContinuousCDF, Normal};

use super::case::Case;
use super::known::{Belief, Teachable, TeachableValues};
use super::latin_hypercube::latin_hypercube;
use super::spread::EIGHT_IN_TEN;
use super::uncertainty::{UncertainInput, Uncertainty};
use crate::solder::{MeltTarget, Melts};
use crate::units::{TempDelta, Temperature};

/// What one run takes for true where it is not known: factors on the nominal model, unless said.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ParameterSample {
    /// On the jet's transfer.
    pub jet: f64,
    /// On the real flow.
    pub flow: f64,
    /// Added to what leaves the nozzle, K.
    pub outlet_k: f64,
    /// On the back pressure of a narrow nozzle.
    pub back_pressure: f64,
    /// On the distance.
    pub distance: f64,
    /// Added to the aim, mm.
    pub aim_mm: [f64; 2],
    /// On the in-plane conductivity.
    pub conduction: f64,
    /// On the board's heat capacity with the small parts on it that nobody describes.
    pub capacity: f64,
    /// On the natural losses.
    pub loss: f64,
    /// How well what is fed mixes in: 0 the least, 0.5 as usual, 1 the most.
    pub mixing: f64,
    /// Liquid fraction at which a pad and a hole let go.
    pub let_go: LetGo,
    /// Where the joints' metal melts: in parts of its spread, which holds eight in ten.
    pub melt: f64,
    /// On what a shield resists with.
    pub shield: f64,
    /// How much more or less each kind of material stands.
    pub stands: [MaterialBias; FAMILIES],
}

/// Liquid fraction at which a joint lets go, 0-1: mush parts before the last crystal has melted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LetGo {
    /// A pad (E, 0.75-0.95).
    pub pad: f64,
    /// A plated hole (E, 0.90-0.99).
    pub hole: f64,
}

/// How a material differs from what is usual of its kind.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MaterialBias {
    /// Logarithm of how much longer it stands its reference temperature.
    pub longer: f64,
    /// How much more it stands for as long, K.
    pub more_k: f64,
}

/// Kinds of material whose tolerance is drawn apart: see `planning::tolerance`.
pub const FAMILIES: usize = 5;

/// Logarithmic spread of what a shield resists with: nothing measured stands behind it (E, heating.md section 5: what
/// comes through tape is anything from 0.4 to 0.97).
const SHIELD_SPREAD: f64 = 0.6;
/// Spread of how long a material stands its reference temperature, of the logarithm (E).
pub(crate) const LONGER_SPREAD: f64 = 0.5;
/// Spread of what it stands, K (E).
pub(crate) const MORE_SPREAD_K: f64 = 5.0;
/// Least and most liquid with which a pad lets go (E), and a hole.
const PADS_LET_GO: [f64; 2] = [0.75, 0.95];
const HOLES_LET_GO: [f64; 2] = [0.90, 0.99];

/// Dimensions of the samples: fifteen of the run, two for each family of materials.
const DIMENSIONS: usize = 15 + 2 * FAMILIES;

/// One sample's place in every dimension, 0-1.
struct Draw<'a> {
    at: [f64; DIMENSIONS],
    bell: &'a Normal,
}

impl Draw<'_> {
    /// In standard deviations.
    fn bell(&self, dimension: usize) -> f64 {
        self.bell.inverse_cdf(self.at[dimension])
    }
    fn factor(&self, dimension: usize, spread: f64) -> f64 {
        (spread * self.bell(dimension)).exp()
    }
    fn between(&self, dimension: usize, [low, high]: [f64; 2]) -> f64 {
        low + (high - low) * self.at[dimension]
    }
}

impl ParameterSample {
    /// Where a joint lets go in this sample.
    pub fn melts(&self, target: &MeltTarget) -> Melts {
        let shift = TempDelta::kelvin(self.melt * target.alloy_spread.in_kelvin());
        let liquid = if target.hole { self.let_go.hole } else { self.let_go.pad };
        target.melts(self.mixing, liquid).shifted(shift)
    }

    /// Where every joint lets go in this sample.
    pub fn lets_go(&self, targets: &[MeltTarget]) -> Vec<Temperature> {
        targets.iter().map(|target| self.melts(target).lets_go).collect()
    }

    /// As computed, nothing scaled: the middle of every guess.
    pub fn nominal() -> Self {
        let middle = |[low, high]: [f64; 2]| f64::midpoint(low, high);
        Self {
            jet: 1.0,
            flow: 1.0,
            outlet_k: 0.0,
            back_pressure: 1.0,
            distance: 1.0,
            aim_mm: [0.0, 0.0],
            conduction: 1.0,
            capacity: 1.0,
            loss: 1.0,
            mixing: 0.5,
            let_go: LetGo { pad: middle(PADS_LET_GO), hole: middle(HOLES_LET_GO) },
            melt: 0.0,
            shield: 1.0,
            stands: [MaterialBias { longer: 0.0, more_k: 0.0 }; FAMILIES],
        }
    }

    /// `count` samples about the nominal, spread evenly over all that is guessed of a case. The same every time.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::heat::parameters::ParameterSample;
    /// let melting = bench.composition.targets(&bench.board).expect("computed");
    /// let samples = ParameterSample::samples(64, &bench.order().case(&melting));
    /// assert!(samples.iter().any(|sample| sample.jet < 0.8) && samples.iter().any(|sample| sample.jet > 1.2));
    /// ```
    pub fn samples(count: usize, case: &Case<'_>) -> Vec<Self> {
        Self::samples_of(count, case, &Belief::from_case(case))
    }

    /// The same about what is believed at the moment.
    pub fn samples_of(count: usize, case: &Case<'_>, belief: &Belief) -> Vec<Self> {
        let (known, bell) = (Uncertainty::blind(case), Normal::standard());
        let columns = latin_hypercube(count, DIMENSIONS);
        let draw = |k: usize| Draw { at: std::array::from_fn(|d| columns[d][k]), bell: &bell };
        (0..count).map(|k| Self::from_draw(&draw(k), &known, belief)).collect()
    }

    /// The middle of every guess, with what has been learnt of a case.
    pub fn middle(case: &Case<'_>) -> Self {
        Self::nominal().believing(&Belief::from_case(case).mean)
    }

    /// What is taught of it, in the order of [`TeachableValues`].
    pub fn teachable(&self) -> TeachableValues {
        TeachableValues::from_fn(|k, _| match Teachable::ALL[k] {
            Teachable::Jet => self.jet.ln(),
            Teachable::Flow => self.flow.ln(),
            Teachable::Outlet => self.outlet_k,
            Teachable::Distance => self.distance.ln(),
            Teachable::Conduction => self.conduction.ln(),
            Teachable::Capacity => self.capacity.ln(),
            Teachable::Losses => self.loss.ln(),
        })
    }

    fn believing(self, values: &TeachableValues) -> Self {
        let factor = |what: Teachable| values[what as usize].exp();
        Self {
            jet: factor(Teachable::Jet),
            flow: factor(Teachable::Flow),
            outlet_k: values[Teachable::Outlet as usize],
            distance: factor(Teachable::Distance),
            conduction: factor(Teachable::Conduction),
            capacity: factor(Teachable::Capacity),
            loss: factor(Teachable::Losses),
            ..self
        }
    }

    fn from_draw(draw: &Draw<'_>, known: &Uncertainty, belief: &Belief) -> Self {
        let standing = |family: usize| MaterialBias {
            longer: LONGER_SPREAD * draw.bell(15 + 2 * family),
            more_k: MORE_SPREAD_K * draw.bell(16 + 2 * family),
        };
        // In the order of the values: each has kept its dimension since the first plans.
        let taught = belief.at(&TeachableValues::from([0, 3, 6, 8, 1, 11, 2].map(|dimension| draw.bell(dimension))));
        Self {
            melt: draw.bell(4) / EIGHT_IN_TEN,
            shield: draw.factor(5, SHIELD_SPREAD),
            // Drawn from none to twice the usual.
            back_pressure: if known.back_pressure { draw.between(7, [0.0, 2.0]) } else { 1.0 },
            aim_mm: [known.aim_mm * draw.bell(9), known.aim_mm * draw.bell(10)],
            mixing: draw.at[12],
            let_go: LetGo { pad: draw.between(13, PADS_LET_GO), hole: draw.between(14, HOLES_LET_GO) },
            stands: std::array::from_fn(standing),
            ..Self::nominal().believing(&taught)
        }
    }

    /// What a sample says of a guess, as numbers that grow with it: two for the aim, one for all else but the tolerances.
    pub fn said_of(&self, guess: UncertainInput) -> Vec<f64> {
        match guess {
            UncertainInput::JetTransfer => vec![self.jet],
            UncertainInput::Flow => vec![self.flow, self.back_pressure],
            UncertainInput::OutletTemperature => vec![self.outlet_k],
            UncertainInput::Distance => vec![self.distance],
            UncertainInput::Aim => self.aim_mm.to_vec(),
            UncertainInput::Conduction => vec![self.conduction],
            UncertainInput::HeatCapacity => vec![self.capacity],
            UncertainInput::Losses => vec![self.loss],
            UncertainInput::Mixing => vec![self.mixing],
            UncertainInput::LetGo => vec![self.let_go.pad, self.let_go.hole],
            UncertainInput::MeltingPoint => vec![self.melt],
            UncertainInput::Shields => vec![self.shield],
            UncertainInput::Tolerance => self.stands.iter().flat_map(|s| [s.longer, s.more_k]).collect(),
        }
    }
}
