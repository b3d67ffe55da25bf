//! Thermometers that are read once a second for as long as somebody looks: a thread each, so that no page ever waits for one.

use std::collections::{HashMap, VecDeque};
use std::net::SocketAddr;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

use mend_core::instrument::{HotAirReading, HotAirReadout, InstrumentFault, Meter, Thermometer};
use mend_devices::clients::ScpiInstrument;

use crate::app::Clocks;

/// What nobody has looked at for so long is no longer read.
const INTEREST: Duration = Duration::from_secs(20);
/// A reading each.
const EVERY: Duration = Duration::from_secs(1);
/// Readings that are held: twenty minutes.
const HELD: usize = 1200;

/// What was read.
#[derive(Debug, Clone)]
pub(crate) struct Taken {
    /// On the clock that nobody sets, ms.
    pub(crate) tick_ms: i64,
    pub(crate) celsius: Result<f64, InstrumentFault>,
}

/// A thermometer that is being read.
#[derive(Debug)]
struct ReadLine {
    wanted: Mutex<Instant>,
    taken: Mutex<VecDeque<Taken>>,
    /// The air has just gone on: told to it before the next reading.
    triggered: Mutex<bool>,
}

/// All of them, by their addresses.
#[derive(Debug, Default)]
pub(crate) struct Instruments(Mutex<HashMap<SocketAddr, Arc<ReadLine>>>);

fn locked<T>(of: &Mutex<T>) -> MutexGuard<'_, T> {
    of.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Instruments {
    /// What the thermometer at an address has read since a moment; it is read on from now.
    pub(crate) fn since(self: &Arc<Self>, address: SocketAddr, (from_ms, clocks): (i64, &Clocks)) -> Vec<Taken> {
        let line = self.wanted(address, clocks);
        let taken = locked(&line.taken);
        taken.iter().filter(|taken| taken.tick_ms >= from_ms).cloned().collect()
    }

    /// Tells it that the air has gone on.
    pub(crate) fn trigger(self: &Arc<Self>, address: SocketAddr, clocks: &Clocks) {
        *locked(&self.wanted(address, clocks).triggered) = true;
    }

    fn wanted(self: &Arc<Self>, address: SocketAddr, clocks: &Clocks) -> Arc<ReadLine> {
        let mut lines = locked(&self.0);
        if let Some(line) = lines.get(&address) {
            *locked(&line.wanted) = Instant::now();
            return line.clone();
        }
        let (wanted, taken) = (Mutex::new(Instant::now()), Mutex::default());
        let line = Arc::new(ReadLine { wanted, taken, triggered: Mutex::default() });
        lines.insert(address, line.clone());
        let (all, read, ticks) = (self.clone(), line.clone(), clocks.ticks.clone());
        std::thread::spawn(move || {
            read.read_on(address, &*ticks);
            locked(&all.0).remove(&address);
        });
        line
    }
}

impl ReadLine {
    fn read_on(&self, address: SocketAddr, ticks: &dyn Fn() -> i64) {
        let mut instrument = ScpiInstrument::new(address);
        let mut next = Instant::now();
        while locked(&self.wanted).elapsed() < INTEREST {
            if std::mem::take(&mut *locked(&self.triggered)) {
                let _ = instrument.trigger();
            }
            let celsius = instrument.celsius();
            {
                let mut taken = locked(&self.taken);
                taken.push_back(Taken { tick_ms: ticks(), celsius });
                while taken.len() > HELD {
                    taken.pop_front();
                }
            }
            // A slow answer makes the next one later; it is not made up for.
            next = (next + EVERY).max(Instant::now());
            std::thread::sleep(next.saturating_duration_since(Instant::now()).max(Duration::from_millis(50)));
        }
    }
}

/// What an instrument answered when it was tried.
#[derive(Debug)]
pub(crate) struct TriedInstrument {
    pub(crate) identity: Result<String, InstrumentFault>,
    /// Its first value.
    pub(crate) reading: Result<FirstValue, InstrumentFault>,
}

/// What an instrument of a kind reads first.
#[derive(Debug, Clone, Copy)]
pub(crate) enum FirstValue {
    Celsius(f64),
    HotAir(HotAirReading),
    Volt(f64),
}

/// Asks an instrument who it is and what it reads. Waits for it: up to eight seconds.
pub(crate) fn tried(kind: &str, address: SocketAddr) -> TriedInstrument {
    let mut instrument = ScpiInstrument::new(address);
    let identity = instrument.identity();
    let reading = match kind {
        "readout" => instrument.read().map(FirstValue::HotAir),
        "meter" => instrument.diode_v().map(FirstValue::Volt),
        _ => instrument.celsius().map(FirstValue::Celsius),
    };
    TriedInstrument { identity, reading }
}
