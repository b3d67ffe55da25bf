//! One sentence: the last joint, the first damage, and how they stand to each other.

use super::limits::first_damage;
use super::margin::{Margin, MarginKind};
use super::runs::PlanRuns;

/// What binds, in words; seconds of the last stage.
pub(super) fn limited_by(outcome: &PlanRuns<'_>, margins: &[Margin]) -> String {
    let joints = &outcome.case.board.connector.joints;
    let (fine, from) = (&outcome.fine, outcome.fine.last_from);
    let melts = fine.melted.iter().zip(joints);
    let last = melts.max_by(|a, b| a.0.unwrap_or(f64::INFINITY).total_cmp(&b.0.unwrap_or(f64::INFINITY)));
    let damage = first_damage(&outcome.limits, &fine.traces);
    let molten = last.and_then(|(t, _)| *t);
    let last = match last {
        Some((Some(t), joint)) if *t < from => format!("Joint {} melts last, before the last stage begins", joint.name),
        Some((Some(t), joint)) => format!("Joint {} melts last, after about {:.0} s", joint.name, t - from),
        Some((None, joint)) => {
            let longest = outcome.case.recipe.longest.in_seconds();
            format!("Joint {} does not melt within {longest:.0} s", joint.name)
        }
        None => String::new(),
    };
    let tight = margins.iter().find(|m| m.kind != MarginKind::Joints && !m.expendable);
    match (damage, tight) {
        (Some(damage), _) => match molten {
            Some(molten) if damage.at_s < molten => {
                format!("{last}; {} passes its limit {:.0} s earlier.", damage.to, molten - damage.at_s)
            }
            _ => format!("{last}; {} passes its limit at about {:.0} s.", damage.to, (damage.at_s - from).max(0.0)),
        },
        (None, Some(tight)) if tight.headroom_k >= 0.0 => {
            let (name, left) = (&tight.name, tight.headroom_k);
            format!("{last}; nothing passes its limit, {name} comes nearest with {left:.0} K left.")
        }
        (None, Some(tight)) => format!("{last}; {} may pass its limit in one case of ten.", tight.name),
        (None, None) => format!("{last}."),
    }
}
