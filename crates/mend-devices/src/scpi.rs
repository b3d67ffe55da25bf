//! A question and its answer over a TCP socket. Answers are bounded in length and in time, whatever the other end does; after a
//! failure the connection is made anew, with pauses that grow, since an answer that comes late would be taken for the next one's.

use std::io::{ErrorKind, Read, Write};
use std::net::{SocketAddr, TcpStream};
use std::time::{Duration, Instant};

use mend_core::instrument::InstrumentFault;

/// An answer comes within this, and so does a connection.
const PATIENCE: Duration = Duration::from_secs(2);
/// Longest answer, bytes.
const LONGEST: usize = 256;
/// Of what is no answer so much is told, characters.
const TOLD: usize = 40;
/// Pauses before a connection is made anew: the first, and the longest.
const PAUSES: [Duration; 2] = [Duration::from_secs(1), Duration::from_secs(30)];
/// Beyond this a number means that there is nothing to measure (SCPI-1999, 7.2.1.4 and 7.2.1.5: 9.9E37 and 9.91E37).
const OVERLOAD: f64 = 9e37;

/// An instrument at an address.
#[derive(Debug)]
pub struct Scpi {
    address: SocketAddr,
    stream: Option<TcpStream>,
    /// Not to be tried before, and the pause after the next failure.
    again: Option<Instant>,
    pause: Duration,
}

impl Scpi {
    /// One that is connected to when it is first asked.
    pub fn new(address: SocketAddr) -> Self {
        Self { address, stream: None, again: None, pause: PAUSES[0] }
    }

    /// Asks; answers the line that came back, without its end.
    pub fn ask(&mut self, question: &str) -> Result<String, InstrumentFault> {
        let answer = self.connected().and_then(|stream| ask(stream, question));
        match &answer {
            Ok(_) => self.pause = PAUSES[0],
            Err(_) => {
                if self.stream.take().is_some() || self.again.is_none_or(|again| Instant::now() >= again) {
                    self.again = Some(Instant::now() + self.pause);
                    self.pause = (2 * self.pause).min(PAUSES[1]);
                }
            }
        }
        answer
    }

    /// Tells; nothing comes back.
    pub fn tell(&mut self, command: &str) -> Result<(), InstrumentFault> {
        let told = self.connected().and_then(|stream| tell(stream, command));
        if told.is_err() {
            self.stream = None;
        }
        told
    }

    /// Asks for a number.
    pub fn number(&mut self, question: &str) -> Result<f64, InstrumentFault> {
        number(&self.ask(question)?)
    }

    fn connected(&mut self) -> Result<&mut TcpStream, InstrumentFault> {
        if self.stream.is_none() {
            if self.again.is_some_and(|again| Instant::now() < again) {
                return Err(InstrumentFault::Unreachable);
            }
            self.stream = Some(connect(self.address).map_err(|_| InstrumentFault::Unreachable)?);
        }
        self.stream.as_mut().ok_or(InstrumentFault::Unreachable)
    }
}

fn connect(address: SocketAddr) -> std::io::Result<TcpStream> {
    let stream = TcpStream::connect_timeout(&address, PATIENCE)?;
    stream.set_nodelay(true)?;
    stream.set_write_timeout(Some(PATIENCE))?;
    Ok(stream)
}

fn tell(stream: &mut TcpStream, command: &str) -> Result<(), InstrumentFault> {
    stream.write_all(format!("{command}\n").as_bytes()).map_err(|_| InstrumentFault::Unreachable)
}

fn ask(stream: &mut TcpStream, question: &str) -> Result<String, InstrumentFault> {
    tell(stream, question)?;
    let until = Instant::now() + PATIENCE;
    let mut line = Vec::new();
    loop {
        // One that drips a byte a second is as good as one that says nothing.
        let left = until.saturating_duration_since(Instant::now());
        if left.is_zero() || stream.set_read_timeout(Some(left)).is_err() {
            return Err(InstrumentFault::Silent);
        }
        let mut part = [0; LONGEST];
        match stream.read(&mut part) {
            Ok(0) => return Err(InstrumentFault::Silent),
            Ok(count) => line.extend_from_slice(&part[..count]),
            Err(error) if error.kind() == ErrorKind::Interrupted => continue,
            Err(_) => return Err(InstrumentFault::Silent),
        }
        if let Some(end) = line.iter().position(|byte| *byte == b'\n') {
            line.truncate(end);
            break;
        }
        if line.len() > LONGEST {
            return Err(InstrumentFault::Endless);
        }
    }
    let text = String::from_utf8(line).ok().map(|text| text.trim().to_owned());
    text.filter(|text| !text.is_empty() && !text.chars().any(char::is_control)).ok_or_else(|| garbled("no text"))
}

/// A number as instruments write it: `+2.345E+01`.
pub(crate) fn number(said: &str) -> Result<f64, InstrumentFault> {
    match said.trim().parse::<f64>() {
        Ok(value) if value.abs() >= OVERLOAD || value.is_nan() => Err(InstrumentFault::Open),
        Ok(value) => Ok(value),
        Err(_) => Err(garbled(said)),
    }
}

pub(crate) fn garbled(said: &str) -> InstrumentFault {
    InstrumentFault::Garbled { said: said.chars().take(TOLD).collect() }
}
