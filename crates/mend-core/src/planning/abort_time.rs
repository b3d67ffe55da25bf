//! The abort time: when the air goes away if nothing moved.
//!
//! In each sample the first limit that is passed has its moment, if the heat stays on. Where one sample in ten has passed one, waiting
//! must pay: it goes on only while one in twenty of all samples would still let go in time, more of those in which the part sits,
//! whole, than would be damaged first, and while no more than one in ten of all has been damaged so. So the line lies beyond the likely release where
//! there is a window, and where there is none it is where one in ten is damaged. Without damage in sight it is the longest heating.

use serde::{Deserialize, Serialize};

use super::band::quantile;
use super::damaged::{Damage, Damaged};
use super::limits::comes_first;

/// One in so many may come to harm.
const TENTH: usize = 10;
/// It is waited for one in so many, not for a last straggler: that it is late as well as whole is one run's word.
const TWENTIETH: usize = 20;

/// When to stop, and for whose sake.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct AbortTime {
    /// Seconds of the last stage's air.
    pub at_s: f64,
    /// What would be damaged first; none: it is the longest heating.
    pub spares: Option<Damaged>,
}

/// What came of one sample, s from the first tool.
#[derive(Debug, Clone, Copy)]
pub(super) struct Outcome<'a> {
    pub(super) release: Option<f64>,
    pub(super) damage: &'a Option<Damage>,
}

impl Outcome<'_> {
    fn damage_s(&self) -> f64 {
        self.damage.as_ref().map_or(f64::INFINITY, |damage| damage.at_s)
    }

    fn release_s(&self) -> f64 {
        self.release.unwrap_or(f64::INFINITY)
    }

    fn in_time(&self) -> bool {
        comes_first(self.release, self.damage.as_ref().map(|damage| damage.at_s))
    }

    /// Does the part still sit at this moment, with nothing damaged?
    fn waits_at(&self, at_s: f64) -> bool {
        self.release_s() > at_s && self.damage_s() > at_s
    }

    /// Has something been damaged by then while the part still sat?
    fn is_damaged_by(&self, at_s: f64) -> bool {
        !self.in_time() && self.damage_s() <= at_s
    }
}

impl AbortTime {
    /// The line over what came of all samples, in a last stage that begins at `from_s` and lasts `longest_s`. A damage before it
    /// puts the line at its very beginning.
    pub(super) fn from_outcomes(outcomes: &[Outcome<'_>], from_s: f64, longest_s: f64) -> Self {
        let mut damages: Vec<f64> = outcomes.iter().map(Outcome::damage_s).collect();
        damages.sort_by(f64::total_cmp);
        let mut at_s = quantile(&damages, 0.1).unwrap_or(f64::INFINITY).floor().max(from_s);
        while at_s < from_s + longest_s && pays(outcomes, at_s) {
            at_s += 1.0;
        }
        if at_s >= from_s + longest_s {
            return Self { at_s: longest_s, spares: None };
        }
        let next = outcomes.iter().filter(|o| o.damage_s() > at_s).filter_map(|o| o.damage.as_ref());
        let next = next.min_by(|a, b| a.at_s.total_cmp(&b.at_s));
        Self { at_s: at_s - from_s, spares: next.map(|damage| damage.to.clone()) }
    }
}

/// Does it pay to wait a second more?
fn pays(outcomes: &[Outcome<'_>], at_s: f64) -> bool {
    let waiting = || outcomes.iter().filter(|outcome| outcome.waits_at(at_s));
    let lets_go = waiting().filter(|outcome| outcome.in_time()).count();
    let damaged_first = waiting().filter(|outcome| !outcome.in_time() && outcome.damage.is_some()).count();
    let damaged = outcomes.iter().filter(|outcome| outcome.is_damaged_by(at_s + 1.0)).count();
    let worth = lets_go * TWENTIETH >= outcomes.len() && lets_go > damaged_first;
    worth && damaged * TENTH <= outcomes.len()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line(outcomes: &[(Option<f64>, Option<f64>)], stage: (f64, f64)) -> AbortTime {
        let damage = |at: &Option<f64>| at.map(|at_s| Damage { at_s, to: Damaged::Laminate });
        let damages: Vec<(Option<f64>, Option<Damage>)> = outcomes.iter().map(|(r, d)| (*r, damage(d))).collect();
        let outcomes: Vec<Outcome<'_>> =
            damages.iter().map(|(release, damage)| Outcome { release: *release, damage }).collect();
        AbortTime::from_outcomes(&outcomes, stage.0, stage.1)
    }

    #[test]
    fn without_a_window_the_line_lies_where_one_in_ten_is_damaged() {
        let stuck: Vec<(Option<f64>, Option<f64>)> = (0..11).map(|k| (None, Some(50.0 + f64::from(k)))).collect();
        assert_eq!(line(&stuck, (0.0, 240.0)), AbortTime { at_s: 51.0, spares: Some(Damaged::Laminate) });
        assert_eq!(line(&stuck, (30.0, 240.0)).at_s, 21.0);
        assert_eq!(line(&stuck, (90.0, 240.0)).at_s, 0.0);
        assert_eq!(line(&[(None, None), (Some(9.0), None)], (0.0, 240.0)), AbortTime { at_s: 240.0, spares: None });
    }

    #[test]
    fn it_is_waited_for_what_is_likely_to_let_go_and_not_for_what_never_did() {
        // All let go by 79 s; heated on they would be damaged from 70 s on, each ten seconds after its release.
        let open: Vec<(Option<f64>, Option<f64>)> =
            (0..20).map(|k| (Some(60.0 + f64::from(k)), Some(70.0 + f64::from(k)))).collect();
        assert_eq!(line(&open, (0.0, 240.0)).at_s, 79.0, "the last of them, and no longer");
        // Two that never let go are damaged at 75 s: one in ten is borne, a third is not.
        let mut some = open.clone();
        some.truncate(18);
        some.extend([(None, Some(75.0)); 2]);
        assert_eq!(line(&some, (0.0, 240.0)).at_s, 77.0);
        some.extend([(None, Some(76.0)); 2]);
        assert!(line(&some, (0.0, 240.0)).at_s < 76.0);
    }
}
