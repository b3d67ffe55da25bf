//! A land lifts when the pull on it is more than its peel strength times its width at that temperature, while it is not molten.

use super::pull::torn;
use crate::practice::attempt::Attempt;
use crate::practice::harm::{Harm, Harmed};

pub(super) fn look(attempt: &Attempt) -> Vec<Harm> {
    let lands = torn(attempt).into_iter().filter(|torn| !torn.joint.shape.is_hole());
    // It shows before: the joint that holds is dull.
    lands
        .map(|torn| Harm {
            what: Harmed::PadLifted { joint: torn.joint.name.clone() },
            at_s: attempt.seconds(),
            seen_s: (!torn.joint.hidden).then_some(0.0),
            force_n: Some(torn.force_n),
        })
        .collect()
}
