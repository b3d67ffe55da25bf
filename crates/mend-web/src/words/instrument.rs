//! Why an instrument gave no value, in words.

use mend_core::instrument::InstrumentFault;

/// What is the matter, and what to do.
pub fn instrument_fault(fault: &InstrumentFault) -> String {
    match fault {
        InstrumentFault::Unreachable => {
            "nothing answers at its address: is it on, and in the shop's network?".to_owned()
        }
        InstrumentFault::Silent => "it does not answer within 2 s: is it the port for SCPI?".to_owned(),
        InstrumentFault::Endless => "it talks without end: this is no instrument that speaks SCPI".to_owned(),
        InstrumentFault::Garbled { said } => format!("it answers “{said}”, which is no value"),
        InstrumentFault::Open => "it reads an open circuit: is its sensor connected?".to_owned(),
    }
}
