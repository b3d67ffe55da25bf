//! Real flow against what a station shows: a bag of known volume, and the seconds that it takes to fill.

use crate::heat::display::Shows;
use crate::heat::known::{Knowledge, Teachable};
use crate::units::Flow;

/// A bag of the usual size, L.
pub const USUAL_BAG_L: f64 = 10.0;
/// What a hand, a watch and a bag are good for, of the logarithm (E: a second of twenty).
const BY_HAND: f64 = 0.05;

/// A filling.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Filling {
    /// What the display showed.
    pub shown: f64,
    /// Until the bag was full, s.
    pub seconds: f64,
}

/// What came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct FlowMeasured {
    /// For each value that was shown, ascending, the mean flow.
    pub table: Vec<(f64, Flow)>,
    /// Real over shown flow, of a display of L/min; 1 where the table is the display's own.
    pub ratio: f64,
    /// How far single fillings lie from that, of the logarithm.
    pub spread: f64,
    /// What it teaches of the station.
    pub says: Knowledge,
}

/// The flow of a bag that was filled several times; none where fewer than two values were shown.
///
/// ```
/// use mend_core::calibration::flow_by_bag::{Filling, measured};
/// use mend_core::heat::display::Shows;
/// let fillings = [(20.0, 40.0), (20.0, 38.0), (100.0, 8.0)].map(|(shown, seconds)| Filling { shown, seconds });
/// let found = measured(Shows::Flow, 10.0, &fillings).expect("two values were shown");
/// assert!(found.ratio < 0.8, "15 L/min where 20 are shown");
/// ```
pub fn measured(shows: Shows, bag_l: f64, fillings: &[Filling]) -> Option<FlowMeasured> {
    let flow = |filling: &Filling| bag_l * 60.0 / filling.seconds;
    let mut shown: Vec<f64> = fillings.iter().map(|filling| filling.shown).collect();
    shown.sort_by(f64::total_cmp);
    shown.dedup();
    if shown.len() < 2 {
        return None;
    }
    let mean = |of: &[f64]| of.iter().sum::<f64>() / of.len().max(1) as f64;
    let at = |value: f64| {
        mean(
            &fillings
                .iter()
                .filter(|filling| filling.shown == value)
                .map(|filling| flow(filling).ln())
                .collect::<Vec<_>>(),
        )
    };
    let means: Vec<f64> = shown.iter().map(|value| at(*value)).collect();
    // A display of L/min is taken as it is, off by one factor; any other gets the table that was measured.
    let expected = |filling: &Filling| match shows {
        Shows::Flow => filling.shown.ln(),
        Shows::Percent | Shows::Dial => at(filling.shown),
    };
    let off: Vec<f64> = fillings.iter().map(|filling| flow(filling).ln() - expected(filling)).collect();
    let middle = mean(&off);
    let spread = mean(&off.iter().map(|off| (off - middle).powi(2)).collect::<Vec<_>>()).sqrt();
    Some(FlowMeasured {
        table: shown.into_iter().zip(means).map(|(shown, ln)| (shown, Flow::litres_per_minute(ln.exp()))).collect(),
        ratio: middle.exp(),
        spread,
        says: Knowledge::one(Teachable::Flow, middle, spread.max(BY_HAND)),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn fillings(all: &[(f64, f64)]) -> Vec<Filling> {
        all.iter().map(|(shown, seconds)| Filling { shown: *shown, seconds: *seconds }).collect()
    }

    #[test]
    fn a_dial_gets_its_own_table_and_teaches_no_offset() {
        let found = measured(Shows::Dial, 10.0, &fillings(&[(1.0, 60.0), (1.0, 60.0), (8.0, 6.0)])).expect("two");
        let table: Vec<(f64, f64)> = found.table.iter().map(|(s, f)| (*s, f.in_litres_per_minute().round())).collect();
        assert_eq!(table, [(1.0, 10.0), (8.0, 100.0)]);
        assert!(found.says.pull.amax() < 1e-9 && found.spread < 1e-9);
    }

    #[test]
    fn a_display_that_is_off_by_a_factor_teaches_that_factor() {
        let found = measured(Shows::Flow, 10.0, &fillings(&[(40.0, 20.0), (100.0, 8.0)])).expect("two");
        assert!((found.ratio - 0.75).abs() < 1e-9);
        let mean = found.says.pull[1] / found.says.precision[(1, 1)];
        assert!((mean - 0.75_f64.ln()).abs() < 1e-9);
        assert_eq!(measured(Shows::Flow, 10.0, &fillings(&[(40.0, 20.0), (40.0, 21.0)])), None);
    }
}
