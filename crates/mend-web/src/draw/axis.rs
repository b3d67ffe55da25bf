//! A temperature axis on paper, with round numbers on the visitor's own scale.

use mend_core::units::{Scale, Temperature};

use super::n;

/// An axis from `low` to `high`, °C, drawn from `left` over `width`.
pub(crate) struct Axis {
    pub(crate) low: f64,
    pub(crate) high: f64,
    pub(crate) left: f64,
    pub(crate) width: f64,
}

impl Axis {
    /// Where a temperature stands; beyond the ends, at the end.
    pub(crate) fn x(&self, celsius: f64) -> f64 {
        self.left + self.width * ((celsius - self.low) / (self.high - self.low)).clamp(0.0, 1.0)
    }

    /// Round numbers with their places: by the smallest of `steps` that leaves room to read them.
    pub(crate) fn ticks(&self, scale: Scale, steps: [f64; 2]) -> Vec<(String, String)> {
        const MOST: f64 = 7.0;
        let ends = [self.low, self.high].map(|t| scale.of(Temperature::celsius(t)));
        let [fine, coarse] = steps;
        let step = if (ends[1] - ends[0]) / fine > MOST { coarse } else { fine };
        let mut at = (ends[0] / step).ceil() * step;
        let mut ticks = Vec::new();
        while at <= ends[1] {
            ticks.push((n(self.x(scale.read(at).in_celsius())), format!("{at:.0}")));
            at += step;
        }
        if let Some(last) = ticks.last_mut() {
            last.1 += &format!(" {}", scale.symbol());
        }
        ticks
    }
}
