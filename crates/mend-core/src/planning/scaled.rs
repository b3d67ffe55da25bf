//! A unit run at some set temperature: what melts when, what is damaged when, and how near the rest comes.

use super::limits::Limit;
use super::window_point::WindowPoint;
use crate::heat::run::handling;
use crate::heat::traces::Traces;
use crate::heat::unit_run::UnitRun;
use crate::units::Temperature;

/// A unit run at some set temperature.
pub(super) struct Scaled<'a> {
    pub(super) unit: &'a UnitRun,
    pub(super) scale: f64,
    pub(super) ambient: Temperature,
}

impl Scaled<'_> {
    /// When a curve of the last stage is first at `celsius`, between the seconds on a straight line.
    fn reaches(&self, of: impl Fn(&Traces) -> &[f32], celsius: f64) -> Option<f64> {
        let (jet, rest) = (of(&self.unit.jet), of(&self.unit.rest));
        let wanted = celsius - self.ambient.in_celsius();
        let rise = |k: usize| self.scale * f64::from(jet[k]) + rest.get(k).map_or(0.0, |r| f64::from(*r));
        let at = (0..jet.len()).find(|k| rise(*k) >= wanted)?;
        let Some(before) = at.checked_sub(1).map(rise) else { return Some(at as f64) };
        Some(at as f64 - (rise(at) - wanted) / (rise(at) - before))
    }

    pub(super) fn candidate(&self, melting: &[Temperature], limits: &[Limit]) -> WindowPoint {
        let melts = |(k, lets_go): (usize, &Temperature)| {
            self.reaches(|t| &t.joints[k], lets_go.in_celsius()).unwrap_or(f64::INFINITY)
        };
        let times: Vec<f64> = melting.iter().enumerate().map(melts).collect();
        let last_joint = (0..times.len()).max_by(|a, b| times[*a].total_cmp(&times[*b])).unwrap_or(0);
        let molten = times.get(last_joint).copied().filter(|t| t.is_finite());
        let damage = |(k, limit): (usize, &Limit)| {
            let at = limit.stands.damaged_at(self.history(limit, usize::MAX))?;
            Some(((at - self.before(limit) as f64).max(0.0), k))
        };
        let damages = limits.iter().enumerate().filter_map(damage);
        let damage = damages.min_by(|a, b| a.0.total_cmp(&b.0));
        WindowPoint { release_s: molten.map(|t| t + handling(t)), damage, last_joint }
    }

    /// The limit that is nearest at a second of the last stage, and what is left of it, K. The stages before count with that.
    pub(super) fn tightest(&self, limits: &[Limit], at_s: f64) -> Option<(usize, f64)> {
        let seconds = at_s.ceil() as usize + 1;
        let headroom = |(k, limit): (usize, &Limit)| (k, limit.stands.headroom(self.history(limit, seconds)));
        limits.iter().enumerate().map(headroom).min_by(|a, b| a.1.total_cmp(&b.1))
    }

    /// Seconds before the last stage.
    fn before(&self, limit: &Limit) -> usize {
        limit.watched.curve(&self.unit.before).len()
    }

    /// What a limit is about, through the stages before and the first seconds of the last, °C.
    fn history<'s>(&'s self, limit: &'s Limit, seconds: usize) -> impl Iterator<Item = f64> + 's {
        let (jet, rest) = (limit.watched.curve(&self.unit.jet), limit.watched.curve(&self.unit.rest));
        let rise =
            |(k, jet): (usize, &f32)| self.scale * f64::from(*jet) + rest.get(k).map_or(0.0, |rest| f64::from(*rest));
        let last = jet.iter().enumerate().map(rise).take(seconds);
        let before = limit.watched.curve(&self.unit.before).iter().map(|t| f64::from(*t));
        before.chain(last).map(|rise| rise + self.ambient.in_celsius())
    }

    /// Every component's rise until a second of the last stage, K.
    pub(super) fn components(&self, until_s: f64) -> Vec<Vec<f32>> {
        let seconds = until_s.ceil() as usize + 1;
        let rise = |k: usize, jet: &Vec<f32>| -> Vec<f32> {
            let rest = self.unit.rest.components.get(k);
            let at = |(s, jet): (usize, &f32)| {
                let rest = rest.and_then(|rest| rest.get(s)).copied().unwrap_or(0.0);
                self.scale as f32 * jet + rest
            };
            jet.iter().take(seconds).enumerate().map(at).collect()
        };
        self.unit.jet.components.iter().enumerate().map(|(k, jet)| rise(k, jet)).collect()
    }

    /// What the coldest joint lacks at the end of the longest heating, K.
    pub(super) fn lacks(&self, melting: &[Temperature]) -> f64 {
        let last = |curve: &[f32]| curve.last().copied().map_or(0.0, f64::from);
        let reached = |k: usize| {
            let rest = self.unit.rest.joints.get(k).map_or(0.0, |rest| last(rest));
            self.scale * last(&self.unit.jet.joints[k]) + rest + self.ambient.in_celsius()
        };
        let lacks = melting.iter().enumerate().map(|(k, lets_go)| lets_go.in_celsius() - reached(k));
        lacks.fold(0.0, f64::max)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::planning::damaged::Damaged;
    use crate::planning::limits::LimitSubject;
    use crate::planning::tolerance::Tolerance;

    const AMBIENT: Temperature = Temperature::celsius(20.0);

    /// One joint and a body that rise by 2 and by 1 K a second for 100 s.
    fn unit() -> UnitRun {
        let rise = |by: f32| (0..=100).map(|t| by * t as f32).collect::<Vec<f32>>();
        let jet = Traces { joints: vec![rise(2.0)], body: rise(1.0), laminate: rise(0.5), ..Traces::default() };
        let empty = Traces { joints: vec![vec![]], ..Traces::default() };
        UnitRun { exit_excess: 300.0, jet, rest: empty.clone(), before: empty }
    }

    fn limit(celsius: f64) -> Limit {
        Limit { of: Damaged::PartBody, watched: LimitSubject::Body, stands: Tolerance::Never { celsius } }
    }

    fn at(celsius: f64) -> Temperature {
        Temperature::celsius(celsius)
    }

    #[test]
    fn moments_lie_between_the_seconds_on_a_straight_line() {
        let unit = unit();
        let scaled = Scaled { unit: &unit, scale: 1.0, ambient: AMBIENT };
        // 20 + 2 t reaches 101 at 40.5 s, and the hand comes after; 20 + t reaches 90 at 70 s.
        let found = scaled.candidate(&[at(101.0)], &[limit(90.0)]);
        assert!((found.release_s.expect("molten") - (40.5 + handling(40.5))).abs() < 1e-6);
        assert_eq!(found.damage, Some((70.0, 0)));
    }

    #[test]
    fn a_hotter_nozzle_is_sooner_at_everything_and_a_cool_one_melts_nothing() {
        let unit = unit();
        let scaled = |scale| Scaled { unit: &unit, scale, ambient: AMBIENT }.candidate(&[at(101.0)], &[limit(90.0)]);
        assert!(scaled(1.3).release_s < scaled(1.0).release_s && scaled(1.3).damage < scaled(1.0).damage);
        let cool = Scaled { unit: &unit, scale: 0.2, ambient: AMBIENT };
        assert_eq!(cool.candidate(&[at(101.0)], &[limit(90.0)]).release_s, None);
        assert!((cool.lacks(&[at(101.0)]) - 41.0).abs() < 1e-6, "101 less 20 and a fifth of 200");
    }

    #[test]
    fn the_tightest_is_what_is_nearest_to_its_limit_at_that_second() {
        let unit = unit();
        let scaled = Scaled { unit: &unit, scale: 1.0, ambient: AMBIENT };
        let laminate = Limit {
            of: Damaged::Laminate,
            watched: LimitSubject::Laminate,
            stands: Tolerance::Never { celsius: 50.0 },
        };
        let found = scaled.tightest(&[limit(90.0), laminate], 40.0).expect("two limits");
        assert_eq!(found.0, 1);
        assert!((found.1 - 10.0).abs() < 1e-6, "50 less 20 and half of 40");
    }
}
