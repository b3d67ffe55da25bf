//! A hot-air station: what it gives, what is known of it.

use super::display::Display;
use super::iron_heater::IronHeater;
use super::jet::JetLaw;
use super::nozzle_air::NozzleAir;
use super::spread::EIGHT_IN_TEN;
use super::tool::Blower;
use crate::units::{Flow, Length, Temperature};

/// A transfer that is off by a factor is as a flow that is off by this power of it: h goes with Re^0.55 about where hand
/// tools work (T, Martin).
const FLOW_FOR_TRANSFER: f64 = 1.0 / 0.55;

/// A hot-air station as the shop owns it.
#[derive(Debug, Clone, PartialEq)]
pub struct Station {
    /// Name.
    pub name: String,
    /// Fan or pump.
    pub blower: Blower,
    /// Set temperatures it takes.
    pub set_range: (Temperature, Temperature),
    /// Flows it gives, as far as its display says.
    pub flow_range: (Flow, Flow),
    /// Nozzles owned, bare one included.
    pub nozzles: Vec<Length>,
    /// Heater power where known, W.
    pub heater_w: Option<f64>,
    /// Jet transfer against the law of [`super::jet`]: 1 as by the book. From the probe, else 1.
    pub jet_scale: f64,
    /// Logarithmic spread of that: 0.25 blind, about 0.1 after a probe.
    pub jet_spread: f64,
    /// Logarithmic spread of real against displayed flow: 0.15 blind, 0.05 when measured.
    pub flow_spread: f64,
    /// Spread of what leaves the nozzle against what is set, K: 15 blind, 4 after a thermocouple.
    pub outlet_spread_k: f64,
    /// What it shows of its flow.
    pub display: Display,
    /// The heater of the iron that is used beside it.
    pub iron: IronHeater,
    /// What leaves its nozzles against what is set.
    pub nozzle_air: NozzleAir,
}

impl Station {
    /// A fan of which nothing was measured: as far from the book as such tools are.
    ///
    /// ```
    /// use mend_core::heat::station::Station;
    /// use mend_core::units::Temperature;
    /// let blind = Station::blind("bench 1", Temperature::celsius(480.0), &[22.0, 8.0]);
    /// assert!(blind.jet_scale == 1.0 && blind.jet_spread > 0.1 && blind.widest_nozzle().in_mm() == 22.0);
    /// ```
    pub fn blind(name: &str, highest: Temperature, nozzles_mm: &[f64]) -> Self {
        Self {
            name: name.to_owned(),
            blower: Blower::Fan,
            set_range: (Temperature::celsius(100.0), highest),
            flow_range: (Flow::litres_per_minute(20.0), Flow::litres_per_minute(120.0)),
            nozzles: nozzles_mm.iter().copied().map(Length::mm).collect(),
            heater_w: None,
            jet_scale: 1.0,
            jet_spread: 0.25,
            flow_spread: 0.15,
            outlet_spread_k: 15.0,
            display: Display::default(),
            iron: IronHeater::default(),
            nozzle_air: NozzleAir::default(),
        }
    }

    /// Its jet's law, the transfer scaled by `jet` (1 as it is known).
    pub fn law(&self, jet: f64) -> JetLaw {
        let law = JetLaw::from_blower(self.blower);
        let NozzleAir { share, loss } = self.nozzle_air;
        let scale = law.scale * self.jet_scale * jet;
        JetLaw { scale, heater_w: self.heater_w, exit_share: share, nozzle_loss: loss, ..law }
    }

    /// The widest nozzle owned: the bare one.
    pub fn widest_nozzle(&self) -> Length {
        self.nozzles.iter().copied().fold(Length::mm(0.0), |a, b| if b > a { b } else { a })
    }

    /// Between which flows, on its own display, eight in ten stations of this kind would be that heat as this one is said
    /// to: what is unknown of the flow and, as a flow, of the jet's transfer.
    pub fn real_flow(&self, shown: Flow) -> (Flow, Flow) {
        let spread = (EIGHT_IN_TEN * self.flow_spread.hypot(self.jet_spread * FLOW_FOR_TRANSFER)).exp();
        let shown = shown.in_litres_per_minute();
        (Flow::litres_per_minute(shown / spread), Flow::litres_per_minute(shown * spread))
    }

    /// Has anybody measured it? If not, predictions are wide and the product says so.
    pub fn is_measured(&self) -> bool {
        self.jet_spread < 0.2
    }
}
