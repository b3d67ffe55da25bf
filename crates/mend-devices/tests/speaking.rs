//! Clients against stand-ins, and against devices that answer garbage, half a line, nothing, or a megabyte.
#![allow(clippy::expect_used)]

use std::io::{Read, Write};
use std::net::{SocketAddr, TcpListener, TcpStream};
use std::time::{Duration, Instant};

use mend_core::instrument::{HotAirReadout, InstrumentFault, Meter, Thermometer};
use mend_devices::clients::ScpiInstrument;
use mend_devices::stand_in::listen;
use mend_devices::stand_in::meter::{MeterStandIn, PinReading};
use mend_devices::stand_in::readout::ReadoutStandIn;
use mend_devices::stand_in::thermocouple::ThermocoupleStandIn;

const ANYWHERE: SocketAddr = SocketAddr::new(std::net::IpAddr::V4(std::net::Ipv4Addr::LOCALHOST), 0);

#[test]
fn stand_ins_answer_what_is_asked() {
    let logger = listen(ANYWHERE, ThermocoupleStandIn::new("Logger", vec![24.0; 9], 1.0)).expect("it listens");
    let mut logger = ScpiInstrument::new(logger);
    assert_eq!(logger.identity(), Ok("Stand-in,Logger,0,1".to_owned()));
    assert!(logger.celsius().is_ok_and(|celsius| (celsius - 24.0).abs() < 4.0));
    let readout = listen(ANYWHERE, ReadoutStandIn::new("Station", 400.0, 90.0, -12.0)).expect("it listens");
    let read = ScpiInstrument::new(readout).read().expect("it answers");
    assert!((read.outlet_c - 388.0).abs() < 6.0 && read.set_c == 400.0 && read.shown_flow == 90.0, "{read:?}");
    let sound = PinReading { diode_v: Some(0.45), ohm: Some(0.3), farad: Some(1e-7) };
    let open = PinReading { diode_v: None, ohm: None, farad: None };
    let meter = listen(ANYWHERE, MeterStandIn::new("Meter", vec![sound, open])).expect("it listens");
    let mut probe = TcpStream::connect(meter).expect("it listens");
    let mut meter = ScpiInstrument::new(meter);
    assert!(meter.diode_v().is_ok_and(|v| (v - 0.45).abs() < 0.01) && meter.capacitance_f().is_ok());
    probe.write_all(b"SIM:PIN 1\n*IDN?\n").expect("it listens");
    let _ = probe.read(&mut [0; 64]).expect("it has moved");
    assert_eq!((meter.diode_v(), meter.continuity_ohm()), (Err(InstrumentFault::Open), Err(InstrumentFault::Open)));
    assert_eq!(meter.resistance_ohm(), Err(InstrumentFault::Open));
}

/// A device that does this with whoever connects, once a question has come.
fn device(does: impl Fn(&mut TcpStream) + Send + 'static) -> ScpiInstrument {
    let listener = TcpListener::bind(ANYWHERE).expect("a port");
    let at = listener.local_addr().expect("bound");
    std::thread::spawn(move || {
        for mut stream in listener.incoming().flatten() {
            let _ = stream.read(&mut [0; 64]);
            does(&mut stream);
        }
    });
    ScpiInstrument::new(at)
}

#[test]
fn whatever_a_device_answers_it_is_told_apart_within_two_seconds() {
    let says = |what: &'static [u8]| device(move |stream| drop(stream.write_all(what)));
    let garbled = |said: &str| Err(InstrumentFault::Garbled { said: said.to_owned() });
    assert_eq!(says(b"warm, thank you\n").celsius(), garbled("warm, thank you"));
    assert_eq!(says(b"\xff\xfe\x00\n").celsius(), garbled("no text"));
    assert_eq!(says(b"\n").celsius(), garbled("no text"));
    assert_eq!(says(b"+2.4E+01\n").celsius(), Ok(24.0));
    assert_eq!(says(b"+9.91E37\n").celsius(), Err(InstrumentFault::Open));
    assert_eq!(says(b"+2.4E+01,1\n").read().map(|read| read.outlet_c), garbled("+2.4E+01,1"));
    let megabyte = device(|stream| drop(stream.write_all(&[b'7'; 1 << 20]))).celsius();
    assert_eq!(megabyte, Err(InstrumentFault::Endless));
    let from = Instant::now();
    let half = device(|stream| {
        drop(stream.write_all(b"+2.4"));
        std::thread::sleep(Duration::from_secs(4));
    });
    let drips = device(|stream| {
        for _ in 0..40 {
            drop(stream.write_all(b"1"));
            std::thread::sleep(Duration::from_millis(100));
        }
    });
    for mut slow in [half, drips] {
        assert_eq!(slow.celsius(), Err(InstrumentFault::Silent));
    }
    assert!(from.elapsed() < Duration::from_secs(6), "two seconds each, and a margin");
}

#[test]
fn one_that_is_gone_is_not_knocked_at_again_at_once_and_comes_back() {
    let listener = TcpListener::bind(ANYWHERE).expect("a port");
    let at = listener.local_addr().expect("bound");
    drop(listener);
    let mut gone = ScpiInstrument::new(at);
    assert_eq!(gone.celsius(), Err(InstrumentFault::Unreachable));
    listen(at, ThermocoupleStandIn::new("Logger", vec![24.0; 9], 1.0)).expect("it is back");
    assert_eq!(gone.celsius(), Err(InstrumentFault::Unreachable), "within the first pause");
    std::thread::sleep(Duration::from_millis(1100));
    assert!(gone.celsius().is_ok());
}
