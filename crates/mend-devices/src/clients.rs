//! What the core asks of instruments, in their own words.

use std::net::SocketAddr;

use mend_core::instrument::{HotAirReading, HotAirReadout, InstrumentFault, Meter, Thermometer};

use crate::scpi::{Scpi, garbled, number};

/// An instrument that speaks SCPI.
#[derive(Debug)]
pub struct ScpiInstrument(Scpi);

impl ScpiInstrument {
    /// At an address.
    pub fn new(address: SocketAddr) -> Self {
        Self(Scpi::new(address))
    }

    /// Who it is: maker, model, number, version, as it says.
    pub fn identity(&mut self) -> Result<String, InstrumentFault> {
        self.0.ask("*IDN?")
    }

    /// The air goes on now: one that waits for a trigger begins (IEEE 488.2).
    pub fn trigger(&mut self) -> Result<(), InstrumentFault> {
        self.0.tell("*TRG")
    }
}

impl Thermometer for ScpiInstrument {
    fn celsius(&mut self) -> Result<f64, InstrumentFault> {
        self.0.number("MEAS:TEMP? TC,K")
    }
}

impl HotAirReadout for ScpiInstrument {
    /// Outlet, set temperature and shown flow, with commas between.
    fn read(&mut self) -> Result<HotAirReading, InstrumentFault> {
        let said = self.0.ask("READ?")?;
        let values = said.split(',').map(number).collect::<Result<Vec<f64>, _>>()?;
        match values[..] {
            [outlet_c, set_c, shown_flow] => Ok(HotAirReading { outlet_c, set_c, shown_flow }),
            _ => Err(garbled(&said)),
        }
    }
}

impl Meter for ScpiInstrument {
    fn diode_v(&mut self) -> Result<f64, InstrumentFault> {
        self.0.number("MEAS:DIOD?")
    }

    fn continuity_ohm(&mut self) -> Result<f64, InstrumentFault> {
        self.0.number("MEAS:CONT?")
    }

    fn resistance_ohm(&mut self) -> Result<f64, InstrumentFault> {
        self.0.number("MEAS:RES?")
    }

    fn capacitance_f(&mut self) -> Result<f64, InstrumentFault> {
        self.0.number("MEAS:CAP?")
    }
}
