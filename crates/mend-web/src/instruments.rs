//! Thermometers and hot-air stations that are read once a second for as long as somebody looks: a thread each, so that no page ever waits for one.

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
pub(crate) struct Taken<T> {
    /// On the clock that nobody sets, ms.
    pub(crate) tick_ms: i64,
    pub(crate) value: Result<T, InstrumentFault>,
}

/// What an instrument is asked each time.
type Asks<T> = fn(&mut ScpiInstrument) -> Result<T, InstrumentFault>;

/// An instrument that is being read.
#[derive(Debug)]
struct ReadLine<T> {
    asks: Asks<T>,
    wanted: Mutex<Instant>,
    taken: Mutex<VecDeque<Taken<T>>>,
    /// The air has just gone on: told to it before the next reading.
    triggered: Mutex<bool>,
}

/// Those of a kind, by their addresses.
type Lines<T> = Mutex<HashMap<SocketAddr, Arc<ReadLine<T>>>>;

/// All of them.
#[derive(Debug, Default)]
pub(crate) struct Instruments {
    thermometers: Arc<Lines<f64>>,
    stations: Arc<Lines<HotAirReading>>,
}

fn locked<T>(of: &Mutex<T>) -> MutexGuard<'_, T> {
    of.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Instruments {
    /// What the thermometer at an address has read since a moment; it is read on from now.
    pub(crate) fn since(&self, address: SocketAddr, from_ms: i64, clocks: &Clocks) -> Vec<Taken<f64>> {
        let line = self.thermometer(address, clocks);
        let taken = locked(&line.taken);
        taken.iter().filter(|taken| taken.tick_ms >= from_ms).cloned().collect()
    }

    /// Tells a thermometer that the air has gone on.
    pub(crate) fn trigger(&self, address: SocketAddr, clocks: &Clocks) {
        *locked(&self.thermometer(address, clocks).triggered) = true;
    }

    /// What the hot-air station at an address said last, none yet at first; it is read on from now.
    pub(crate) fn station(
        &self,
        address: SocketAddr,
        clocks: &Clocks,
    ) -> Option<Result<HotAirReading, InstrumentFault>> {
        let line = wanted(&self.stations, |instrument| instrument.read(), address, clocks);
        let taken = locked(&line.taken);
        taken.back().map(|taken| taken.value.clone())
    }

    fn thermometer(&self, address: SocketAddr, clocks: &Clocks) -> Arc<ReadLine<f64>> {
        wanted(&self.thermometers, |instrument| instrument.celsius(), address, clocks)
    }
}

/// The instrument at an address, read on from now.
fn wanted<T: Send + 'static>(
    lines: &Arc<Lines<T>>,
    asks: Asks<T>,
    address: SocketAddr,
    clocks: &Clocks,
) -> Arc<ReadLine<T>> {
    let mut all = locked(lines);
    if let Some(line) = all.get(&address) {
        *locked(&line.wanted) = Instant::now();
        return line.clone();
    }
    let (wanted, taken) = (Mutex::new(Instant::now()), Mutex::default());
    let line = Arc::new(ReadLine { asks, wanted, taken, triggered: Mutex::default() });
    all.insert(address, line.clone());
    let (lines, read, ticks) = (lines.clone(), line.clone(), clocks.ticks.clone());
    std::thread::spawn(move || {
        read.read_on(address, &*ticks);
        locked(&lines).remove(&address);
    });
    line
}

impl<T> ReadLine<T> {
    fn read_on(&self, address: SocketAddr, ticks: &dyn Fn() -> i64) {
        let mut instrument = ScpiInstrument::new(address);
        let mut next = Instant::now();
        while locked(&self.wanted).elapsed() < INTEREST {
            if std::mem::take(&mut *locked(&self.triggered)) {
                let _ = instrument.trigger();
            }
            let value = (self.asks)(&mut instrument);
            {
                let mut taken = locked(&self.taken);
                taken.push_back(Taken { tick_ms: ticks(), value });
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
