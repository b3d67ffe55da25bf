//! The abort time: when the air goes away if nothing moved.
//!
//! In each sample the first limit that is passed has its moment. The line lies where one sample in ten has passed one;
//! without damage in sight, at the longest heating that was set.

use serde::{Deserialize, Serialize};

use super::band::quantile;
use super::damaged::{Damage, Damaged};

/// When to stop, and for whose sake.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct AbortTime {
    /// Seconds of the last stage's air.
    pub at_s: f64,
    /// What would be damaged first; none: it is the longest heating.
    pub spares: Option<Damaged>,
}

impl AbortTime {
    /// The line over the first damages of all samples, in a last stage that begins at `from_s` and lasts `longest_s`. A damage
    /// before it puts the line at its very beginning.
    pub fn from_damages(damages: &[Option<Damage>], (from_s, longest_s): (f64, f64)) -> Self {
        let since = |h: &Damage| (h.at_s - from_s).max(0.0);
        let mut times: Vec<f64> = damages.iter().map(|h| h.as_ref().map_or(f64::INFINITY, since)).collect();
        times.sort_by(f64::total_cmp);
        let at_s = quantile(&times, 0.1).unwrap_or(f64::INFINITY).floor();
        if at_s >= longest_s {
            return Self { at_s: longest_s, spares: None };
        }
        let first = damages.iter().flatten().min_by(|a, b| a.at_s.total_cmp(&b.at_s));
        Self { at_s, spares: first.map(|damage| damage.to.clone()) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_line_lies_where_one_in_ten_is_hurt() {
        let damage = |at_s: f64| Some(Damage { at_s, to: Damaged::Laminate });
        let damages: Vec<Option<Damage>> = (0..11).map(|k| damage(50.0 + f64::from(k))).collect();
        assert_eq!(
            AbortTime::from_damages(&damages, (0.0, 240.0)),
            AbortTime { at_s: 51.0, spares: Some(Damaged::Laminate) }
        );
        assert_eq!(AbortTime::from_damages(&damages, (30.0, 240.0)).at_s, 21.0);
        assert_eq!(AbortTime::from_damages(&damages, (90.0, 240.0)).at_s, 0.0);
        assert_eq!(AbortTime::from_damages(&[None, None], (0.0, 240.0)), AbortTime { at_s: 240.0, spares: None });
    }
}
