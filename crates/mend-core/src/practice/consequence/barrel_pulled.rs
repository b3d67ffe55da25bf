//! A barrel comes with its leg when a plated leg is pulled that is not molten.

use super::pull::torn;
use crate::practice::attempt::Attempt;
use crate::practice::harm::{Harm, Harmed};

pub(super) fn look(attempt: &Attempt) -> Vec<Harm> {
    let barrels = torn(attempt).into_iter().filter(|torn| torn.joint.shape.is_hole());
    barrels
        .map(|torn| Harm {
            what: Harmed::BarrelPulled { joint: torn.joint.name.clone() },
            at_s: attempt.seconds(),
            seen_s: Some(0.0),
            force_n: Some(torn.force_n),
        })
        .collect()
}
