//! A temperature axis on paper, with round numbers on the visitor's own scale.

use mend_core::units::{Scale, Temperature};

use super::{labels, n};

/// Height of a tick's letters, and the paper that every picture leaves beyond its axis.
const LETTERS: f64 = 15.0;
const MARGIN: f64 = 8.0;
/// An axis bears so many labels before they crowd each other.
const MOST_LABELS: f64 = 7.0;

/// Round numbers between two ends: multiples of the smallest of `steps` (ascending) that leaves room to read them.
pub(crate) fn round_numbers([low, high]: [f64; 2], steps: &[f64]) -> Vec<f64> {
    let fits = |step: &&f64| (high - low) / **step <= MOST_LABELS;
    let Some(step) = steps.iter().find(fits).or(steps.last()).copied() else { return Vec::new() };
    let first = (low / step).ceil() as i64;
    (first..).map(|k| k as f64 * step).take_while(|at| *at <= high + 1e-9).collect()
}

/// Gives the last tick its unit. That one is the widest: near the `rim` of the paper it is drawn back until it is whole.
pub(crate) fn with_unit(ticks: &mut [(String, String)], unit: &str, rim: f64) {
    let Some((place, label)) = ticks.last_mut() else { return };
    *label += &format!(" {unit}");
    let furthest = rim - labels::width(label, LETTERS) / 2.0;
    *place = n(place.parse::<f64>().map_or(furthest, |x| x.min(furthest)));
}

/// An axis from `low` to `high`, °C, drawn from `left` over `width`.
pub(crate) struct PictureAxis {
    pub(crate) low: f64,
    pub(crate) high: f64,
    pub(crate) left: f64,
    pub(crate) width: f64,
}

impl PictureAxis {
    /// Where a temperature stands; beyond the ends, at the end.
    pub(crate) fn x(&self, celsius: f64) -> f64 {
        self.left + self.width * ((celsius - self.low) / (self.high - self.low)).clamp(0.0, 1.0)
    }

    /// Round numbers with their places: by the smallest of `steps` that leaves room to read them.
    pub(crate) fn ticks(&self, scale: Scale, steps: [f64; 2]) -> Vec<(String, String)> {
        let ends = [self.low, self.high].map(|t| scale.of(Temperature::celsius(t)));
        let at = round_numbers(ends, &steps).into_iter();
        let mut ticks: Vec<(String, String)> =
            at.map(|at| (n(self.x(scale.read(at).in_celsius())), format!("{at:.0}"))).collect();
        with_unit(&mut ticks, scale.symbol(), self.left + self.width + MARGIN);
        ticks
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_unit_at_the_end_of_an_axis_is_not_cut() {
        let axis = PictureAxis { low: 50.0, high: 250.0, left: 0.0, width: 400.0 };
        let (place, label) = axis.ticks(Scale::Celsius, [50.0, 100.0]).pop().expect("ticks");
        assert_eq!(label, "250 °C");
        assert!(place.parse::<f64>().expect("a place") + labels::width(&label, LETTERS) / 2.0 <= 408.0 + 1e-6);
    }

    #[test]
    fn labels_stand_at_round_numbers_and_leave_room() {
        assert_eq!(round_numbers([256.0, 480.0], &[10.0, 20.0, 50.0, 100.0]), [300.0, 350.0, 400.0, 450.0]);
        assert_eq!(round_numbers([20.0, 110.0], &[5.0, 10.0, 20.0]), [20.0, 40.0, 60.0, 80.0, 100.0]);
        assert_eq!(round_numbers([3.0, 3.5], &[5.0]), Vec::<f64>::new());
    }
}
