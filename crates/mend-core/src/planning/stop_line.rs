//! The stop line: when the air goes away if nothing moved.
//!
//! In each sample the first limit that is passed has its moment. The line lies where one sample in ten has passed one;
//! without harm in sight, at the longest heating that was set.

use serde::{Deserialize, Serialize};

use super::band::quantile;
use crate::board::Board;
use crate::heat::run::Run;

/// Laminate surface that must not be passed even for a moment, °C (D: T288 about 1 min for plain grades).
pub const LAMINATE_NEVER_C: f64 = 288.0;
/// Laminate surface that is stood for a minute, °C (D, advice: time above 260 °C under 60 s).
pub const LAMINATE_MINUTE_C: f64 = 260.0;
/// That minute, s.
pub const LAMINATE_MINUTE_S: usize = 60;

/// When to stop, and for whose sake.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct StopLine {
    /// Seconds of air.
    pub at_s: f64,
    /// The thing that would be hurt first; none: it is the longest heating.
    pub spares: Option<String>,
}

/// The first harm of a run: when, and to what.
#[derive(Debug, Clone, PartialEq)]
pub struct Harm {
    /// Second at which the limit is passed.
    pub at_s: f64,
    /// Whose limit.
    pub to: String,
}

/// The first limit that a run passes. The part's own body counts when it must live.
pub fn first_harm(board: &Board, part_must_live: bool, run: &Run) -> Option<Harm> {
    let passed = |curve: &[f32], limit: f64| curve.iter().position(|t| f64::from(*t) >= limit);
    let neighbours = board.neighbours.iter().zip(&run.neighbours);
    let neighbours = neighbours.map(|(n, curve)| (passed(curve, n.limit().in_celsius()), n.name.clone()));
    let limit = board.connector.material.limit().in_celsius();
    let body = part_must_live.then(|| (passed(&run.body, limit), "the part's body".to_owned()));
    let laminate = (laminate_harm(&run.laminate), "the laminate".to_owned());
    let all = neighbours.chain(body).chain(std::iter::once(laminate));
    let harmed = all.filter_map(|(at, to)| Some(Harm { at_s: at? as f64, to }));
    harmed.min_by(|a, b| a.at_s.total_cmp(&b.at_s))
}

fn laminate_harm(curve: &[f32]) -> Option<usize> {
    let never = curve.iter().position(|t| f64::from(*t) >= LAMINATE_NEVER_C);
    let hot = curve.iter().enumerate().filter(|(_, t)| f64::from(**t) >= LAMINATE_MINUTE_C);
    let minute = hot.map(|(at, _)| at).nth(LAMINATE_MINUTE_S);
    [never, minute].into_iter().flatten().min()
}

impl StopLine {
    /// The line over the first harms of all samples.
    pub fn of(harms: &[Option<Harm>], longest_s: f64) -> Self {
        let mut times: Vec<f64> = harms.iter().map(|h| h.as_ref().map_or(f64::INFINITY, |h| h.at_s)).collect();
        times.sort_by(f64::total_cmp);
        let at_s = quantile(&times, 0.1).unwrap_or(f64::INFINITY).floor();
        if at_s >= longest_s {
            return Self { at_s: longest_s, spares: None };
        }
        let first = harms.iter().flatten().min_by(|a, b| a.at_s.total_cmp(&b.at_s));
        Self { at_s, spares: first.map(|harm| harm.to.clone()) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_line_lies_where_one_in_ten_is_hurt() {
        let harm = |at_s: f64| Some(Harm { at_s, to: "latch".to_owned() });
        let harms: Vec<Option<Harm>> = (0..11).map(|k| harm(50.0 + f64::from(k))).collect();
        assert_eq!(StopLine::of(&harms, 240.0), StopLine { at_s: 51.0, spares: Some("latch".to_owned()) });
        assert_eq!(StopLine::of(&[None, None], 240.0), StopLine { at_s: 240.0, spares: None });
    }

    #[test]
    fn laminate_stands_a_minute_above_260_and_nothing_above_288() {
        let minute: Vec<f32> = (0..200).map(|t| if t < 50 { 200.0 } else { 265.0 }).collect();
        assert_eq!(laminate_harm(&minute), Some(110));
        let spike: Vec<f32> = (0..200).map(|t| 200.0 + t as f32).collect();
        assert_eq!(laminate_harm(&spike), Some(88));
    }
}
