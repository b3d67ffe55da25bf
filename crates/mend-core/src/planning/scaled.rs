//! A unit run at some set temperature: what melts when, what is damaged when, and how near the rest comes.

use super::limits::Limit;
use super::window_point::WindowPoint;
use crate::heat::run::handling;
use crate::heat::traces::Traces;
use crate::heat::unit_run::UnitRun;
use crate::solder::MeltTarget;
use crate::units::Temperature;

/// A unit run at some set temperature.
pub(super) struct Scaled<'a> {
    pub(super) unit: &'a UnitRun,
    pub(super) scale: f64,
    pub(super) ambient: Temperature,
}

impl Scaled<'_> {
    /// When the `nth` second comes in which a curve of the last stage is at least at `celsius`; between the seconds on a
    /// straight line where it is the first.
    fn reaches(&self, of: impl Fn(&Traces) -> &[f32], celsius: f64, nth: usize) -> Option<f64> {
        let (jet, rest) = (of(&self.unit.jet), of(&self.unit.rest));
        let wanted = celsius - self.ambient.in_celsius();
        let rise = |k: usize| self.scale * f64::from(jet[k]) + rest.get(k).map_or(0.0, |r| f64::from(*r));
        let at = (0..jet.len()).filter(|k| rise(*k) >= wanted).nth(nth)?;
        let Some(before) = at.checked_sub(1).filter(|_| nth == 0).map(rise) else { return Some(at as f64) };
        Some(at as f64 - (rise(at) - wanted) / (rise(at) - before))
    }

    pub(super) fn candidate(&self, melting: &[MeltTarget], limits: &[Limit]) -> WindowPoint {
        let melts = |(k, target): (usize, &MeltTarget)| {
            self.reaches(|t| &t.joints[k], target.melted.in_celsius(), 0).unwrap_or(f64::INFINITY)
        };
        let times: Vec<f64> = melting.iter().enumerate().map(melts).collect();
        let last_joint = (0..times.len()).max_by(|a, b| times[*a].total_cmp(&times[*b])).unwrap_or(0);
        let molten = times.get(last_joint).copied().filter(|t| t.is_finite());
        let damage = |(k, limit): (usize, &Limit)| {
            let before = limit.watched.curve(&self.unit.before);
            let soaked = before.iter().filter(|t| f64::from(**t) + self.ambient.in_celsius() >= limit.celsius).count();
            if soaked > limit.stands_s {
                return Some((0.0, k));
            }
            Some((self.reaches(|t| limit.watched.curve(t), limit.celsius, limit.stands_s - soaked)?, k))
        };
        let damages = limits.iter().enumerate().filter_map(damage);
        let damage = damages.min_by(|a, b| a.0.total_cmp(&b.0));
        WindowPoint { release_s: molten.map(|t| t + handling(t)), damage, last_joint }
    }

    /// The limit that counts at once and is nearest at a second of the last stage, and the headroom to it, K. What was hotter in
    /// the stages before counts with that.
    pub(super) fn tightest(&self, limits: &[Limit], at_s: f64) -> Option<(usize, f64)> {
        let at_once = limits.iter().enumerate().filter(|(_, limit)| limit.stands_s == 0);
        let headroom = |(k, limit): (usize, &Limit)| (k, limit.celsius - self.hottest(limit, at_s));
        at_once.map(headroom).min_by(|a, b| a.1.total_cmp(&b.1))
    }

    /// Hottest of what a limit is about until then, °C. Under a steady tool curves only climb: the end says it.
    fn hottest(&self, limit: &Limit, at_s: f64) -> f64 {
        let (jet, rest) = (limit.watched.curve(&self.unit.jet), limit.watched.curve(&self.unit.rest));
        let at = (at_s.ceil() as usize).min(jet.len().saturating_sub(1));
        let rise = self.scale * f64::from(jet[at]) + rest.get(at).map_or(0.0, |r| f64::from(*r));
        let before = limit.watched.curve(&self.unit.before).iter().copied().fold(0.0, f32::max);
        rise.max(f64::from(before)) + self.ambient.in_celsius()
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
    pub(super) fn lacks(&self, melting: &[MeltTarget]) -> f64 {
        let last = |curve: &[f32]| curve.last().copied().map_or(0.0, f64::from);
        let reached = |k: usize| {
            let rest = self.unit.rest.joints.get(k).map_or(0.0, |rest| last(rest));
            self.scale * last(&self.unit.jet.joints[k]) + rest + self.ambient.in_celsius()
        };
        let lacks = melting.iter().enumerate().map(|(k, target)| target.melted.in_celsius() - reached(k));
        lacks.fold(0.0, f64::max)
    }
}
