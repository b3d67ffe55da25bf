//! What is wrong with a finished joint of some composition. Suggested limits, from the melting model and reported practice;
//! local rules and the standard in force come first.

use super::melt_curve::melt_curve;
use crate::finding::problem::JointProblem;
use crate::finding::{Finding, Severity};
use crate::materials::{Composition, Element};
use crate::units::Temperature;

const RULE: &str = "finished_joint";
/// Lead from which a joint counts as holding lead, wt% (regulation for homogeneous material; sure, verify locally).
pub const LEAD_TRACE: f64 = 0.1;
/// Liquid at 100 °C (Scheil, by mole) from which a joint counts as weak when warm (E: 5 % Bi in Sn63Pb37).
const LIQUID_WHEN_WARM: f64 = 0.005;

fn flag(severity: Severity, place: &str, problem: JointProblem) -> Finding {
    Finding { severity, ..Finding::warning(RULE, place, problem) }
}

/// The severity of a value by rising limits: caution, warning, avoid.
fn step(value: f64, limits: [f64; 3]) -> Option<Severity> {
    let severities = [Severity::Note, Severity::Warning, Severity::Blocking];
    limits.iter().zip(severities).rev().find(|(limit, _)| value > **limit).map(|(_, severity)| severity)
}

/// All flags of a finished joint, the heaviest first.
///
/// ```
/// use mend_core::materials::Metal;
/// use mend_core::solder::{flags, within_limits};
/// let metal = |text| Metal::parse("joint", text).expect("a metal").composition;
/// assert!(flags(&metal("SAC305")).is_empty());
/// assert!(!within_limits(&flags(&metal("Sn42Bi58"))), "brittle");
/// ```
pub fn flags(joint: &Composition) -> Vec<Finding> {
    let mut found = by_amount(joint);
    found.extend(warm_liquid(joint));
    found.sort_by_key(|flag| std::cmp::Reverse(flag.severity));
    found
}

/// May a joint be left so? As [`flags`], but the curve is computed only where the amounts alone do not say no.
pub(super) fn may_stay(joint: &Composition) -> bool {
    within_limits(&by_amount(joint)) && warm_liquid(joint).is_none()
}

/// The flags that amounts alone raise.
pub(super) fn by_amount(joint: &Composition) -> Vec<Finding> {
    let [lead, bismuth, indium] = [Element::Pb, Element::Bi, Element::In].map(|e| joint.wt(e));
    let mut found = Vec::new();
    if lead > LEAD_TRACE && bismuth > 20.0 {
        found.push(flag(Severity::Warning, "Bi", JointProblem::LeadInBismuth { percent: lead }));
    } else if lead > LEAD_TRACE
        && let Some(severity) = step(bismuth, [0.5, 2.0, 5.0])
    {
        found.push(flag(severity, "Bi", JointProblem::BismuthWithLead { percent: bismuth }));
    } else if bismuth > 6.0 {
        found.push(flag(Severity::Note, "Bi", JointProblem::BismuthInTin { percent: bismuth }));
    }
    if let Some(severity) = step(bismuth, [10.0, 20.0, f64::INFINITY]) {
        found.push(flag(severity, "Bi", JointProblem::Brittle { percent: bismuth }));
    }
    if indium > 15.0 {
        found.push(flag(Severity::Note, "In", JointProblem::Soft { percent: indium }));
    }
    found
}

/// Liquid below 100 °C, whatever makes it.
fn warm_liquid(joint: &Composition) -> Option<Finding> {
    let [bismuth, indium] = [Element::Bi, Element::In].map(|e| joint.wt(e));
    if bismuth + indium < 0.5 {
        return None; // Nothing else of the trade melts there.
    }
    let curve = melt_curve(joint);
    let share = curve.scheil_at(Temperature::celsius(100.0))?;
    (share > LIQUID_WHEN_WARM).then(|| {
        let down_to_c = curve.scheil_end.map(|end| end.at.in_celsius());
        let problem = JointProblem::LiquidWhenWarm { percent: share * 100.0, down_to_c };
        flag(Severity::Warning, "Scheil solidus", problem)
    })
}

/// May a joint with these flags be left so?
///
/// ```
/// use mend_core::solder::within_limits;
/// assert!(within_limits(&[]));
/// ```
pub fn within_limits(flags: &[Finding]) -> bool {
    flags.iter().all(|flag| flag.severity < Severity::Warning)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::finding::problem::Problem;
    use crate::materials::Metal;

    fn of(text: &str) -> (Option<Severity>, Vec<JointProblem>) {
        let flags = flags(&Metal::parse("x", text).expect("a metal").composition);
        let problem = |flag: Finding| match flag.problem {
            Problem::Joint(problem) => problem,
            other => panic!("{other:?}"),
        };
        (flags.first().map(|f| f.severity), flags.into_iter().map(problem).collect())
    }

    #[test]
    fn bismuth_with_lead_is_judged_by_how_much() {
        let leaded = |bi: f64| of(&format!("Sn={},Pb={},Bi={bi}", 0.63 * (100.0 - bi), 0.37 * (100.0 - bi))).0;
        assert_eq!(leaded(0.3), None);
        assert_eq!(leaded(1.0), Some(Severity::Note));
        assert_eq!(leaded(3.0), Some(Severity::Warning));
        assert_eq!(leaded(8.0), Some(Severity::Blocking));
    }

    #[test]
    fn each_flag_says_what_is_wrong() {
        assert_eq!(of("SAC305"), (None, vec![]));
        let (worst, found) = of("Sn42Bi58");
        assert_eq!(worst, Some(Severity::Warning));
        assert!(matches!(found[..], [JointProblem::Brittle { .. }, JointProblem::BismuthInTin { .. }]), "{found:?}");
        let leaded = of("Sn=42,Bi=57.5,Pb=0.5").1;
        assert!(leaded.iter().any(|p| matches!(p, JointProblem::LeadInBismuth { percent } if *percent > 0.4)));
        assert!(matches!(of("In52Sn48").1[0], JointProblem::Soft { .. }));
        let warm = of("Bi49In21Pb18Sn12").1;
        let to_58 = |p: &JointProblem| matches!(p, JointProblem::LiquidWhenWarm { down_to_c: Some(c), .. } if c.round() == 58.0);
        assert!(warm.iter().any(to_58), "{warm:?}");
        assert_eq!(of("SAC305=92,Sn42Bi58=8").0, None);
    }
}
