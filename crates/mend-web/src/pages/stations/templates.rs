//! What a new station starts from: four neutral kinds, with figures that such tools usually have (E: read off what is sold
//! for hand work; each is to be replaced by the station's own).

use mend_core::heat::display::Shows;
use mend_core::heat::tool::Blower;
use mend_formats::station::{FORMAT, StationFile};

/// A kind of station.
pub(crate) struct Template {
    /// As it is sent.
    pub(crate) key: &'static str,
    /// What it is called.
    pub(crate) name: &'static str,
    /// How to know it.
    pub(crate) known_by: &'static str,
    blower: Blower,
    set_c: [f64; 2],
    flow_lpm: [f64; 2],
    nozzles_mm: &'static [f64],
    heater_w: f64,
    shows: Shows,
    display: &'static [[f64; 2]],
}

/// All of them.
pub(crate) const TEMPLATES: &[Template] = &[
    Template {
        key: "fan-bench",
        name: "Bench station with a fan",
        known_by: "A light hose or none, the fan hums in the handle, air also without a narrow nozzle.",
        blower: Blower::Fan,
        set_c: [100.0, 480.0],
        flow_lpm: [20.0, 120.0],
        nozzles_mm: &[22.0, 12.0, 8.0, 5.0],
        heater_w: 700.0,
        shows: Shows::Dial,
        display: &[[1.0, 20.0], [8.0, 120.0]],
    },
    Template {
        key: "pump-bench",
        name: "Bench station with a pump",
        known_by: "A stiff hose, the pump buzzes in the case, the flow stays with a narrow nozzle.",
        blower: Blower::Pump,
        set_c: [100.0, 480.0],
        flow_lpm: [5.0, 40.0],
        nozzles_mm: &[20.0, 10.0, 8.0, 5.0],
        heater_w: 500.0,
        shows: Shows::Percent,
        display: &[[10.0, 5.0], [100.0, 40.0]],
    },
    Template {
        key: "fan-handle",
        name: "Hand-held blower",
        known_by: "All in one hand, a wide mouth, much air, set by steps.",
        blower: Blower::Fan,
        set_c: [80.0, 550.0],
        flow_lpm: [150.0, 450.0],
        nozzles_mm: &[30.0, 20.0, 10.0],
        heater_w: 1600.0,
        shows: Shows::Dial,
        display: &[[1.0, 150.0], [3.0, 450.0]],
    },
    Template {
        key: "pump-handle",
        name: "Hot-air pencil",
        known_by: "A handle like an iron's, thin tips, little air.",
        blower: Blower::Pump,
        set_c: [100.0, 450.0],
        flow_lpm: [2.0, 20.0],
        nozzles_mm: &[7.0, 5.0, 3.0],
        heater_w: 200.0,
        shows: Shows::Flow,
        display: &[],
    },
];

impl Template {
    /// A station of this kind that nobody has measured.
    pub(crate) fn file(&self) -> StationFile {
        StationFile {
            format: FORMAT.to_owned(),
            name: self.name.to_owned(),
            blower: self.blower,
            set_c: self.set_c,
            flow_lpm: self.flow_lpm,
            nozzles_mm: self.nozzles_mm.to_vec(),
            heater_w: Some(self.heater_w),
            jet_scale: 1.0,
            jet_spread: 0.25,
            flow_spread: 0.15,
            outlet_spread_k: 15.0,
            shows: self.shows,
            display: self.display.to_vec(),
            iron: Default::default(),
            nozzle_air: Default::default(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_template_is_a_station_that_can_be_planned_with() {
        for template in TEMPLATES {
            let station = template.file().into_station();
            assert!(station.is_ok_and(|station| !station.is_measured()), "{}", template.key);
        }
    }
}
