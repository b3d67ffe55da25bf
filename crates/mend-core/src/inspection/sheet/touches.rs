//! A meter that is read all the time while a probe goes from pin to pin: which readings are those of a pin.

/// So many in a row agree.
const IN_A_ROW: usize = 3;
/// Within this of their mean, or this many volts: near ground a share of the value is nothing.
const AGREE: f64 = 0.02;
const AGREE_V: f64 = 0.003;

/// The touches of a probe so far.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Touches {
    row: Vec<f64>,
    /// The last touch has been taken, and the probe has not been lifted since.
    resting: bool,
    /// How many pins were touched.
    pub count: usize,
    /// What the last one read, V.
    pub last_v: Option<f64>,
}

impl Touches {
    /// Takes what the meter shows now, V; none where nothing flows: the probe is in the air, or on a pin that is open, which a meter
    /// can't tell apart and a person says.
    ///
    /// ```
    /// use mend_core::inspection::sheet::Touches;
    /// let mut touches = Touches::default();
    /// for shown in [None, Some(0.2), Some(0.48), Some(0.481), Some(0.479), Some(0.48)] {
    ///     touches.show(shown);
    /// }
    /// assert_eq!((touches.count, touches.last_v), (1, Some(0.48)));
    /// ```
    pub fn show(&mut self, volts: Option<f64>) {
        let Some(volts) = volts.filter(|volts| volts.is_finite()) else {
            self.row.clear();
            self.resting = false;
            return;
        };
        self.row.push(volts);
        if self.row.len() > IN_A_ROW {
            self.row.remove(0);
        }
        let mean = self.row.iter().sum::<f64>() / self.row.len() as f64;
        let agree = self.row.iter().all(|volts| (volts - mean).abs() <= (AGREE * mean).max(AGREE_V));
        if self.row.len() == IN_A_ROW && agree && !self.resting {
            self.resting = true;
            self.count += 1;
            self.last_v = Some((mean * 1000.0).round() / 1000.0);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn after(shown: &[Option<f64>]) -> Touches {
        let mut touches = Touches::default();
        shown.iter().for_each(|volts| touches.show(*volts));
        touches
    }

    #[test]
    fn a_probe_that_rests_is_one_touch_and_one_that_is_lifted_and_set_down_is_another() {
        let rests = [Some(0.5); 20];
        assert_eq!(after(&rests).count, 1);
        let twice = [rests.as_slice(), &[None], &rests].concat();
        assert_eq!(after(&twice).count, 2, "two pins may read the same");
    }

    #[test]
    fn a_reading_that_wanders_is_none() {
        let wanders: Vec<Option<f64>> = (0..30).map(|k| Some(0.4 + 0.03 * f64::from(k % 5))).collect();
        assert_eq!(after(&wanders).count, 0);
        assert_eq!(after(&[Some(0.001), Some(0.003), Some(0.002)]).last_v, Some(0.002), "a short is steady");
        assert_eq!(after(&[Some(f64::NAN); 9]), Touches::default());
    }
}
