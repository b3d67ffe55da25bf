//! Meters that are read all the time while somebody measures pins: a thread each, for as long as a page listens.

use std::collections::HashMap;
use std::net::SocketAddr;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

use mend_core::inspection::sheet::Touches;
use mend_core::instrument::{InstrumentFault, Meter};
use mend_devices::clients::ScpiInstrument;

/// What nobody has listened to for so long is no longer read.
const INTEREST: Duration = Duration::from_secs(10);
/// From reading to reading: three that agree take half a second, as long as a hand holds still.
const EVERY: Duration = Duration::from_millis(150);

/// What a meter has read.
#[derive(Debug, Clone, Default)]
pub(crate) struct MeterState {
    pub(crate) touches: Touches,
    /// Why it reads nothing; an open circuit is none: the probe is in the air.
    pub(crate) fault: Option<InstrumentFault>,
}

/// A meter that is being read.
#[derive(Debug)]
struct MeterLine {
    wanted: Mutex<Instant>,
    state: Mutex<MeterState>,
}

/// All of them, by their addresses.
#[derive(Debug, Default)]
pub(crate) struct Meters(Arc<Mutex<HashMap<SocketAddr, Arc<MeterLine>>>>);

fn locked<T>(of: &Mutex<T>) -> MutexGuard<'_, T> {
    of.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Meters {
    /// What the meter at an address has read since somebody listens; it is read on from now.
    pub(crate) fn listen(&self, address: SocketAddr) -> MeterState {
        let mut lines = locked(&self.0);
        if let Some(line) = lines.get(&address) {
            *locked(&line.wanted) = Instant::now();
            return locked(&line.state).clone();
        }
        let line = Arc::new(MeterLine { wanted: Mutex::new(Instant::now()), state: Mutex::default() });
        lines.insert(address, line.clone());
        let all = self.0.clone();
        std::thread::spawn(move || {
            line.read_on(address);
            locked(&all).remove(&address);
        });
        MeterState::default()
    }
}

impl MeterLine {
    fn read_on(&self, address: SocketAddr) {
        let mut meter = ScpiInstrument::new(address);
        while locked(&self.wanted).elapsed() < INTEREST {
            let (volts, fault) = match meter.diode_v() {
                Ok(volts) => (Some(volts), None),
                Err(InstrumentFault::Open) => (None, None),
                Err(fault) => (None, Some(fault)),
            };
            {
                let mut state = locked(&self.state);
                state.touches.show(volts);
                state.fault = fault;
            }
            std::thread::sleep(EVERY);
        }
    }
}
