//! Simulated instruments that listen on the loopback and answer as real ones do.
//!
//! - this file: a socket that answers lines; [`thermocouple`]: a logger on a board that is heated; [`readout`]: a hot-air
//!   station; [`meter`]: a meter on the pins of a connector

pub mod meter;
pub mod readout;
pub mod thermocouple;

use std::io::{BufRead, BufReader, Write};
use std::net::{SocketAddr, TcpListener, TcpStream};
use std::sync::{Arc, Mutex, PoisonError};

/// Longest question that is listened to, bytes.
const LONGEST: u64 = 1024;

/// What answers questions.
pub trait Answers: Send + 'static {
    /// The answer to a line; none where nothing is said.
    fn answer(&mut self, line: &str) -> Option<String>;
}

/// Answers whoever connects, for as long as the program lives; says where it listens.
pub fn listen(address: SocketAddr, who: impl Answers) -> std::io::Result<SocketAddr> {
    let listener = TcpListener::bind(address)?;
    let at = listener.local_addr()?;
    let who = Arc::new(Mutex::new(who));
    std::thread::spawn(move || {
        for stream in listener.incoming().flatten() {
            let who = who.clone();
            std::thread::spawn(move || {
                // Whoever hangs up in the middle hangs up.
                let _ = serve(&stream, &who);
            });
        }
    });
    Ok(at)
}

fn serve(stream: &TcpStream, who: &Mutex<impl Answers>) -> std::io::Result<()> {
    let mut lines = BufReader::new(stream.try_clone()?);
    loop {
        let mut line = String::new();
        let read = std::io::Read::take(&mut lines, LONGEST).read_line(&mut line)?;
        if read == 0 {
            return Ok(());
        }
        let answer = who.lock().unwrap_or_else(PoisonError::into_inner).answer(line.trim());
        if let Some(answer) = answer {
            (&*stream).write_all(format!("{answer}\n").as_bytes())?;
        }
    }
}

/// Numbers as instruments write them.
pub(crate) fn written(value: f64) -> String {
    format!("{value:+.6E}")
}

/// Noise of a standard bell, the same every time (a linear congruence; Box and Muller 1958).
#[derive(Debug)]
pub(crate) struct Noise(pub(crate) u64);

impl Noise {
    fn even(&mut self) -> f64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 11) as f64 + 0.5) / (1_u64 << 53) as f64
    }

    pub(crate) fn bell(&mut self) -> f64 {
        (-2.0 * self.even().ln()).sqrt() * (std::f64::consts::TAU * self.even()).cos()
    }
}
