//! What is wrong with a finished joint of some composition. Suggested limits, from the melting model and reported practice;
//! local rules and the standard in force come first.

use super::melt_curve::melt_curve;
use crate::finding::{Finding, Severity};
use crate::materials::{Composition, Element};
use crate::units::Temperature;

const RULE: &str = "finished_joint";
/// Lead from which a joint counts as holding lead, wt% (regulation for homogeneous material; sure, verify locally).
pub const LEAD_TRACE: f64 = 0.1;
/// Liquid at 100 °C (Scheil, by mole) from which a joint counts as weak when warm (E: 5 % Bi in Sn63Pb37).
const LIQUID_WHEN_WARM: f64 = 0.005;

fn flag(severity: Severity, place: &str, (message, hint): (String, &str)) -> Finding {
    Finding { severity, ..Finding::warning(RULE, place, message) }.hint(hint)
}

/// The severity of a value by rising limits: caution, warning, avoid.
fn step(value: f64, limits: [f64; 3]) -> Option<Severity> {
    let severities = [Severity::Note, Severity::Warning, Severity::Blocking];
    limits.iter().zip(severities).rev().find(|(limit, _)| value > **limit).map(|(_, severity)| severity)
}

/// All flags of a finished joint, the heaviest first.
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
        let message = format!("{lead:.1} % of lead in a bismuth-rich joint: its last melt freezes below 100 °C");
        found.push(flag(Severity::Warning, "Bi", (message, "flood with fresh alloy and wick again")));
    } else if lead > LEAD_TRACE
        && let Some(severity) = step(bismuth, [0.5, 2.0, 5.0])
    {
        let message = format!("{bismuth:.1} % of bismuth with lead: the last melt may freeze near 97 °C");
        found.push(flag(severity, "Bi", (message, "below 0.5 % is sound: flood with fresh alloy and wick again")));
    } else if bismuth > 6.0 {
        let message = format!("{bismuth:.1} % of bismuth in tin: the last melt freezes at 138 °C");
        found.push(flag(Severity::Note, "Bi", (message, "fine where the joint stays below 100 °C in service")));
    }
    if let Some(severity) = step(bismuth, [10.0, 20.0, f64::INFINITY]) {
        let message = format!("{bismuth:.0} % of bismuth: brittle when dropped or knocked");
        found.push(flag(severity, "Bi", (message, "a port takes knocks: flood with fresh alloy and wick again")));
    }
    if indium > 15.0 {
        let message = format!("{indium:.0} % of indium: soft, and it creeps under load");
        found.push(flag(
            Severity::Note,
            "In",
            (message, "anchors carry the plug's force: flush them with fresh alloy"),
        ));
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
        let end = curve.scheil_end.map_or(String::new(), |end| format!(", down to {:.0} °C", end.at.in_celsius()));
        let message = format!("{:.1} % of it may still be liquid at 100 °C{end}", share * 100.0);
        flag(Severity::Warning, "Scheil solidus", (message, "such a joint lets go in service: flush it out"))
    })
}

/// May a joint with these flags be left so?
pub fn within_limits(flags: &[Finding]) -> bool {
    flags.iter().all(|flag| flag.severity < Severity::Warning)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::materials::Metal;

    fn of(text: &str) -> (Option<Severity>, Vec<String>) {
        let flags = flags(&Metal::read("x", text).expect("a metal").composition);
        (flags.first().map(|f| f.severity), flags.into_iter().map(|f| f.message).collect())
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
        let (worst, message) = of("Sn42Bi58");
        assert_eq!(worst, Some(Severity::Warning));
        assert!(message[0].contains("brittle") && message.iter().any(|s| s.contains("138 °C")), "{message:?}");
        assert!(of("Sn=42,Bi=57.5,Pb=0.5").1.iter().any(|s| s.contains("below 100 °C")));
        assert!(of("In52Sn48").1[0].contains("soft"));
        assert!(of("Bi49In21Pb18Sn12").1.iter().any(|s| s.contains("liquid at 100 °C, down to 58")));
        assert_eq!(of("SAC305=92,Sn42Bi58=8").0, None);
    }
}
