//! What good boards read: the middle of them and how far they scatter; and how a pin stands to that.

use super::reading::DiodeReading;
use crate::board::Role;

/// A meter and its leads repeat so well, V (E), and so of the value (E: junctions differ by some per cent, and by 2 mV a kelvin).
const METER_V: f64 = 0.015;
const METER: f64 = 0.05;
/// So many spreads of the good ones still are like them.
const LIKE: f64 = 2.5;
/// A median's absolute deviation as a standard deviation of a bell (T).
const MAD: f64 = 1.482_6;

/// What good boards read at a pin.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PinReference {
    /// In the middle; most of them may be open.
    pub middle: DiodeReading,
    /// Standard deviation of those that are not open, V.
    pub spread_v: f64,
    /// How many boards it is from.
    pub boards: usize,
}

/// How a pin stands to them.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PinStanding {
    /// As they are.
    LikeOthers,
    /// Higher.
    High,
    /// Lower, though not joined to ground.
    Low,
    /// Nothing flows where it should.
    Open,
    /// Joined to ground where it should not be.
    Short,
    /// Read, with nothing to hold it against.
    Unknown,
}

impl PinReference {
    /// Of what good boards read; none where none did.
    ///
    /// ```
    /// use mend_core::inspection::sheet::{DiodeReading::{Open, Volts}, PinReference};
    /// let good = PinReference::of(&[Volts(0.48), Volts(0.50), Open]).expect("three boards");
    /// assert_eq!((good.middle, good.boards), (Volts(0.49), 3));
    /// ```
    pub fn of(readings: &[DiodeReading]) -> Option<Self> {
        let volts = |reading: &DiodeReading| match reading {
            DiodeReading::Volts(volts) => Some(*volts),
            DiodeReading::Open => None,
        };
        let mut flowing: Vec<f64> = readings.iter().filter_map(volts).collect();
        if readings.is_empty() {
            return None;
        }
        if 2 * flowing.len() <= readings.len() {
            return Some(Self { middle: DiodeReading::Open, spread_v: 0.0, boards: readings.len() });
        }
        let middle = median(&mut flowing);
        let mut off: Vec<f64> = flowing.iter().map(|volts| (volts - middle).abs()).collect();
        Some(Self { middle: DiodeReading::Volts(middle), spread_v: MAD * median(&mut off), boards: readings.len() })
    }

    /// How far from the middle one may lie and be like the others, V.
    fn within(&self, middle: f64) -> f64 {
        METER_V.hypot(METER * middle).hypot(LIKE * self.spread_v)
    }
}

fn median(values: &mut [f64]) -> f64 {
    values.sort_by(f64::total_cmp);
    let half = values.len() / 2;
    if values.len() % 2 == 1 { values[half] } else { f64::midpoint(values[half - 1], values[half]) }
}

/// How a pin that carries `role` stands. Without good boards only what is plain is said: ground that is open, anything else that
/// is joined to ground.
pub fn standing(reading: DiodeReading, role: Role, reference: Option<&PinReference>) -> PinStanding {
    let grounded = matches!(role, Role::Ground | Role::Anchor);
    let Some(reference) = reference else {
        return match reading {
            DiodeReading::Open if grounded => PinStanding::Open,
            reading if reading.is_short() && grounded => PinStanding::LikeOthers,
            reading if reading.is_short() => PinStanding::Short,
            _ => PinStanding::Unknown,
        };
    };
    match (reading, reference.middle) {
        (DiodeReading::Open, DiodeReading::Open) => PinStanding::LikeOthers,
        (DiodeReading::Open, DiodeReading::Volts(_)) => PinStanding::Open,
        (DiodeReading::Volts(_), DiodeReading::Open) if reading.is_short() => PinStanding::Short,
        (DiodeReading::Volts(_), DiodeReading::Open) => PinStanding::Low,
        (DiodeReading::Volts(volts), DiodeReading::Volts(middle)) => match volts - middle {
            off if off.abs() <= reference.within(middle) => PinStanding::LikeOthers,
            _ if reading.is_short() => PinStanding::Short,
            off if off < 0.0 => PinStanding::Low,
            _ => PinStanding::High,
        },
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use DiodeReading::{Open, Volts};

    #[test]
    fn a_pin_is_like_the_others_high_low_open_or_short() {
        let good = PinReference::of(&[Volts(0.50), Volts(0.52), Volts(0.51), Volts(0.50)]).expect("four boards");
        let of = |reading| standing(reading, Role::Signal, Some(&good));
        assert_eq!(of(Volts(0.53)), PinStanding::LikeOthers);
        assert_eq!([of(Volts(0.70)), of(Volts(0.30))], [PinStanding::High, PinStanding::Low]);
        assert_eq!([of(Open), of(Volts(0.004))], [PinStanding::Open, PinStanding::Short]);
    }

    #[test]
    fn the_more_good_boards_scatter_the_more_is_like_them() {
        let wide = PinReference::of(&[0.40, 0.50, 0.60, 0.45, 0.55].map(Volts)).expect("five boards");
        assert_eq!(standing(Volts(0.66), Role::Signal, Some(&wide)), PinStanding::LikeOthers);
        let tight = PinReference::of(&[0.50; 5].map(Volts)).expect("five boards");
        assert_eq!(standing(Volts(0.66), Role::Signal, Some(&tight)), PinStanding::High);
    }

    #[test]
    fn a_pin_that_good_boards_leave_open_is_open_there_too() {
        let open = PinReference::of(&[Open, Open, Volts(0.5)]).expect("three boards");
        assert_eq!(standing(Open, Role::Signal, Some(&open)), PinStanding::LikeOthers);
        assert_eq!(standing(Volts(0.002), Role::Signal, Some(&open)), PinStanding::Short);
        assert_eq!(PinReference::of(&[]), None);
    }

    #[test]
    fn without_good_boards_only_what_is_plain_is_said() {
        let of = |reading, role| standing(reading, role, None);
        assert_eq!(of(Volts(0.001), Role::Ground), PinStanding::LikeOthers);
        assert_eq!(of(Open, Role::Anchor), PinStanding::Open);
        assert_eq!(of(Volts(0.001), Role::Power), PinStanding::Short);
        assert_eq!([of(Volts(0.6), Role::Signal), of(Open, Role::Signal)], [PinStanding::Unknown; 2]);
    }
}
