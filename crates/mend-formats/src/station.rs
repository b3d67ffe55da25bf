//! A hot-air station, `urgent-mend/station/1`.

use mend_core::finding::Finding;
use mend_core::finding::problem::ValueProblem;
use mend_core::heat::display::{Display, Shows};
use mend_core::heat::iron_heater::IronHeater;
use mend_core::heat::nozzle_air::NozzleAir;
use mend_core::heat::station::Station;
use mend_core::heat::tool::Blower;
use mend_core::units::{Flow, Length, Temperature, Unit};
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/station/1";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
const RULE: &str = "station_file";

/// The file as it is written.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct StationFile {
    /// Always `urgent-mend/station/1`.
    pub format: String,
    /// Name.
    pub name: String,
    /// `fan` or `pump`.
    pub blower: Blower,
    /// Lowest and highest set temperature.
    pub set_c: [f64; 2],
    /// Lowest and highest displayed flow.
    pub flow_lpm: [f64; 2],
    /// Nozzles owned.
    pub nozzles_mm: Vec<f64>,
    /// Heater power, where known.
    #[serde(default)]
    pub heater_w: Option<f64>,
    /// Jet transfer against the book, from a probe; 1 where nobody measured.
    #[serde(default = "one")]
    pub jet_scale: f64,
    /// Logarithmic spread of that.
    #[serde(default = "blind_jet")]
    pub jet_spread: f64,
    /// Logarithmic spread of real against displayed flow.
    #[serde(default = "blind_flow")]
    pub flow_spread: f64,
    /// Spread of what leaves the nozzle against what is set, K.
    #[serde(default = "blind_outlet", skip_serializing_if = "is_blind_outlet")]
    pub outlet_spread_k: f64,
    /// What its display shows of the flow; left out: litres per minute.
    #[serde(default, skip_serializing_if = "is_flow")]
    pub shows: Shows,
    /// What is shown and L/min at that, ascending; of a display of per cent and of a dial.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub display: Vec<[f64; 2]>,
    /// The heater of the iron beside it; left out: as one that nobody has measured.
    #[serde(default, skip_serializing_if = "IronHeater::is_usual")]
    pub iron: IronHeater,
    /// Efficiency and loss of its nozzles; left out: as of one that nobody has measured.
    #[serde(default, skip_serializing_if = "NozzleAir::is_usual")]
    pub nozzle_air: NozzleAir,
}

fn is_flow(shows: &Shows) -> bool {
    *shows == Shows::Flow
}

fn one() -> f64 {
    1.0
}
fn blind_jet() -> f64 {
    0.25
}
fn blind_flow() -> f64 {
    0.15
}

fn blind_outlet() -> f64 {
    15.0
}
fn is_blind_outlet(spread: &f64) -> bool {
    *spread == blind_outlet()
}

/// More nozzles or rows of a table than this are a slip.
const MOST: usize = 40;
/// Longest name, characters.
pub const LONGEST_NAME: usize = 80;

/// Writes a station file.
pub fn write(file: &StationFile) -> Result<String, serde_json::Error> {
    Ok(serde_json::to_string_pretty(file)? + "\n")
}

/// Reads a station file as it is written.
pub fn read(bytes: &[u8]) -> Result<StationFile, Vec<Finding>> {
    let file = reading::json::<StationFile>(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    Ok(file)
}

/// Reads a station file.
pub fn parse(bytes: &[u8]) -> Result<Station, Vec<Finding>> {
    reading::json::<StationFile>(RULE, bytes)?.into_station()
}

impl StationFile {
    /// The station, or what is wrong with it.
    pub fn into_station(self) -> Result<Station, Vec<Finding>> {
        reading::expect_format(RULE, &self.format, &ACCEPTED)?;
        let mut found = self.outside_ranges();
        for (place, count) in [("nozzles_mm", self.nozzles_mm.len()), ("display", self.display.len())] {
            if count > MOST {
                found.push(Finding::written(RULE, place, format!("{count} of them")).hint(format!("up to {MOST}")));
            }
        }
        if !(1..=LONGEST_NAME).contains(&self.name.trim().chars().count()) {
            let hint = format!("1 to {LONGEST_NAME} characters");
            found.push(Finding::written(RULE, "name", "the station has no name, or a very long one").hint(hint));
        }
        let table = self.display.iter().map(|[shown, lpm]| (*shown, Flow::litres_per_minute(*lpm))).collect();
        let display = Display::try_new(self.shows, table).unwrap_or_else(|why| {
            found.push(Finding::written(RULE, "display", why.to_string()).hint("one row a line: shown value, L/min"));
            Display::default()
        });
        if self.nozzles_mm.is_empty() {
            found.push(Finding::written(RULE, "nozzles_mm", "no nozzle").hint("list at least the bare one"));
        }
        if !found.is_empty() {
            return Err(found);
        }
        let [set, flow] = [self.set_c, self.flow_lpm];
        Ok(Station {
            name: self.name,
            blower: self.blower,
            set_range: (Temperature::celsius(set[0]), Temperature::celsius(set[1])),
            flow_range: (Flow::litres_per_minute(flow[0]), Flow::litres_per_minute(flow[1])),
            nozzles: self.nozzles_mm.into_iter().map(Length::mm).collect(),
            heater_w: self.heater_w,
            jet_scale: self.jet_scale,
            jet_spread: self.jet_spread,
            flow_spread: self.flow_spread,
            outlet_spread_k: self.outlet_spread_k,
            display,
            iron: self.iron,
            nozzle_air: self.nozzle_air,
        })
    }

    /// Every figure that is none of a station's.
    fn outside_ranges(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut within = |place: &str, (value, unit): (f64, Unit), range: (f64, f64)| {
            let outside = ValueProblem::outside(value, range, unit);
            found.extend(outside.map(|problem| Finding::blocking(RULE, place, problem)));
        };
        within("set_c[0]", (self.set_c[0], Unit::Celsius), (20.0, 500.0));
        within("set_c[1]", (self.set_c[1], Unit::Celsius), (self.set_c[0], 550.0));
        within("flow_lpm[0]", (self.flow_lpm[0], Unit::LitresPerMinute), (1.0, 500.0));
        within("flow_lpm[1]", (self.flow_lpm[1], Unit::LitresPerMinute), (self.flow_lpm[0], 500.0));
        within("jet_scale", (self.jet_scale, Unit::One), (0.2, 5.0));
        within("jet_spread", (self.jet_spread, Unit::One), (0.01, 1.0));
        within("flow_spread", (self.flow_spread, Unit::One), (0.01, 1.0));
        within("outlet_spread_k", (self.outlet_spread_k, Unit::One), (0.5, 60.0));
        within("heater_w", (self.heater_w.unwrap_or(500.0), Unit::Watts), (20.0, 3000.0));
        within("iron.to_tip_k_per_w", (self.iron.to_tip, Unit::KelvinPerWatt), IronHeater::TO_TIP_K_PER_W);
        within("iron.most_w", (self.iron.most, Unit::Watts), IronHeater::MOST_W);
        within("nozzle_air.share", (self.nozzle_air.share, Unit::One), NozzleAir::SHARE);
        within("nozzle_air.loss_w_per_k", (self.nozzle_air.loss, Unit::WattsPerKelvin), NozzleAir::LOSS_W_PER_K);
        for (k, nozzle) in self.nozzles_mm.iter().take(MOST).enumerate() {
            within(&format!("nozzles_mm[{k}]"), (*nozzle, Unit::Millimetres), (2.0, 40.0));
        }
        for (k, [shown, lpm]) in self.display.iter().take(MOST).enumerate() {
            within(&format!("display[{k}]"), (*shown, Unit::One), (0.0, 1000.0));
            within(&format!("display[{k}]"), (*lpm, Unit::LitresPerMinute), (0.5, 500.0));
        }
        found
    }
}
