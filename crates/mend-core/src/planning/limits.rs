//! What must not be passed: a temperature, whose, and for how long. The same list judges a run, every sample and every
//! candidate of the process window.

use super::damaged::{Damage, Damaged};
use super::loose::{Loose, loose};
use super::order::Order;
use super::tolerance::{LAMINATE, Tolerance};
use crate::heat::at_work::blowing;
use crate::heat::case::Case;
use crate::heat::parameters::ParameterSample;
use crate::heat::run::Run;
use crate::heat::traces::Traces;
use crate::solder::MeltTarget;

/// Which curve is watched.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LimitSubject {
    /// The part's own body.
    Body,
    /// A component's body.
    Component(usize),
    /// The board that a component is soldered to.
    OwnJoints(usize),
    /// The hottest place of the laminate.
    Laminate,
}

impl LimitSubject {
    /// Its curve among those recorded.
    pub fn curve(self, traces: &Traces) -> &[f32] {
        match self {
            Self::Body => &traces.body,
            Self::Component(k) => &traces.components[k],
            Self::OwnJoints(k) => &traces.own_joints[k],
            Self::Laminate => &traces.laminate,
        }
    }
}

/// Something with a limit.
#[derive(Debug, Clone, PartialEq)]
pub struct Limit {
    /// What is damaged when it is passed.
    pub of: Damaged,
    /// What is watched.
    pub watched: LimitSubject,
    /// What it stands.
    pub stands: Tolerance,
}

/// Every limit of an order. The part's own body counts when it is to be kept intact; a component's own joints count where it would
/// be blown away or drop once they melt.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::damaged::Damaged;
/// use mend_core::planning::limits::limits;
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let order = bench.order();
/// let all = limits(&order, &order.case(&melting));
/// assert!(all.iter().any(|limit| limit.of == Damaged::Laminate));
/// assert!(all.iter().any(|limit| limit.of.component() == Some("latch")));
/// ```
pub fn limits(order: &Order<'_>, case: &Case<'_>) -> Vec<Limit> {
    let board = order.board;
    let limit = |of, watched, stands| Limit { of, watched, stands };
    let mut limits: Vec<Limit> = Vec::new();
    if order.keeps_part() {
        let material = board.connector.material;
        let stands = Tolerance::from_material(material, material.limit());
        limits.push(limit(Damaged::PartBody, LimitSubject::Body, stands));
    }
    if !order.keeps_board() {
        return limits;
    }
    for (k, n) in board.components.iter().enumerate() {
        let of = Damaged::Component { name: n.name.clone() };
        limits.push(limit(of, LimitSubject::Component(k), Tolerance::from_component(n)));
    }
    if let Some(melted) = MeltTarget::melted_of(&order.composition.factory) {
        let nominal = ParameterSample::middle(case);
        let air = case.recipe.air.map(|air| blowing(case, &air, &nominal));
        let goes = loose(board, air.as_ref(), &case.recipe.shields).into_iter().enumerate();
        let celsius = melted.in_celsius();
        limits.extend(goes.filter_map(|(k, loose)| {
            let of = loose.damages(&board.components[k].name)?;
            Some(limit(of, LimitSubject::OwnJoints(k), Tolerance::Never { celsius }))
        }));
    }
    limits.push(limit(Damaged::Laminate, LimitSubject::Laminate, LAMINATE));
    limits
}

impl Limit {
    /// The component that it is about, by its place on the board.
    pub fn component(&self) -> Option<usize> {
        match self.watched {
            LimitSubject::Component(k) | LimitSubject::OwnJoints(k) => Some(k),
            LimitSubject::Body | LimitSubject::Laminate => None,
        }
    }

    /// When a run passes it, s from the first tool.
    pub fn passed(&self, traces: &Traces) -> Option<f64> {
        self.stands.damaged_at(self.watched.curve(traces).iter().map(|t| f64::from(*t)))
    }

    /// The same by what the run takes for true.
    fn passed_by(&self, run: &Run) -> Option<f64> {
        let curve = self.watched.curve(&run.traces).iter().map(|t| f64::from(*t));
        self.stands.under(&run.parameters).damaged_at(curve)
    }

    /// What the first seconds of a run leave of it, K.
    pub fn headroom(&self, traces: &Traces, seconds: usize) -> f64 {
        self.stands.headroom(self.watched.curve(traces).iter().take(seconds).map(|t| f64::from(*t)))
    }
}

/// Does the part come away before anything is damaged?
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::run};
/// use mend_core::planning::limits::{first_damage, in_time, limits};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let order = bench.order();
/// let case = order.case(&melting);
/// let nominal = run(&case, &ParameterSample::nominal(), Resolution::COARSE);
/// let damage = first_damage(&limits(&order, &case), &nominal.traces);
/// let expected = nominal.release.is_some_and(|t| damage.as_ref().is_none_or(|damage| t < damage.at_s));
/// assert_eq!(in_time(&nominal, damage.as_ref()), expected);
/// ```
pub fn in_time(run: &Run, damage: Option<&Damage>) -> bool {
    comes_first(run.release, damage.map(|damage| damage.at_s))
}

/// Is the release before the damage? In the same second it is not: one moment once counted as both.
pub(super) fn comes_first(release_s: Option<f64>, damage_s: Option<f64>) -> bool {
    release_s.is_some_and(|t| t < damage_s.unwrap_or(f64::INFINITY))
}

/// The first limit that a run passes, by what it takes for true.
pub fn first_damage_of(limits: &[Limit], run: &Run) -> Option<Damage> {
    first(limits.iter().filter_map(|limit| Some((limit.passed_by(run)?, limit))))
}

/// The first limit that curves pass.
///
/// ```
/// use mend_core::heat::traces::Traces;
/// use mend_core::planning::damaged::Damaged;
/// use mend_core::planning::limits::{Limit, LimitSubject, first_damage};
/// use mend_core::planning::tolerance::Tolerance;
/// let stands = Tolerance::Never { celsius: 240.0 };
/// let limit = Limit { of: Damaged::PartBody, watched: LimitSubject::Body, stands };
/// let traces = Traces { body: vec![200.0, 230.0, 245.0, 250.0], ..Traces::default() };
/// assert_eq!(first_damage(&[limit], &traces).map(|damage| damage.at_s), Some(2.0));
/// ```
pub fn first_damage(limits: &[Limit], traces: &Traces) -> Option<Damage> {
    first(limits.iter().filter_map(|limit| Some((limit.passed(traces)?, limit))))
}

fn first<'a>(passed: impl Iterator<Item = (f64, &'a Limit)>) -> Option<Damage> {
    let first = passed.min_by(|a, b| a.0.total_cmp(&b.0));
    first.map(|(at_s, limit)| Damage { at_s, to: limit.of.clone() })
}

impl Loose {
    /// What becomes of a component once its joints are molten, if anything.
    fn damages(self, component: &str) -> Option<Damaged> {
        let name = component.to_owned();
        match self {
            Self::Stays => None,
            Self::Blown => Some(Damaged::BlownAway { name }),
            Self::Drops => Some(Damaged::DropsOff { name }),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn laminate(curve: Vec<f32>) -> Traces {
        Traces { laminate: curve, ..Traces::default() }
    }

    #[test]
    fn release_in_the_second_of_the_harm_is_not_in_time() {
        let first = |release, damage| comes_first(release, damage);
        assert!(first(Some(40.0), Some(41.0)) && first(Some(40.0), None));
        assert!(!first(Some(40.0), Some(40.0)) && !first(None, None) && !first(None, Some(9.0)));
    }

    #[test]
    fn laminate_stands_265_for_minutes_and_288_for_one() {
        let limits = [Limit { of: Damaged::Laminate, watched: LimitSubject::Laminate, stands: LAMINATE }];
        let at = |celsius: f32| first_damage(&limits, &laminate(vec![celsius; 600])).map(|damage| damage.at_s);
        assert!(at(265.0).is_some_and(|s| (300.0..400.0).contains(&s)), "{:?}", at(265.0));
        assert!(at(288.0).is_some_and(|s| (50.0..70.0).contains(&s)), "{:?}", at(288.0));
        assert_eq!(at(240.0), None);
    }
}
