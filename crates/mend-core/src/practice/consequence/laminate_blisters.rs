//! Laminate blisters by temperature times time.

use crate::practice::attempt::Attempt;
use crate::practice::harm::{Harm, Harmed};

pub(super) fn look(attempt: &Attempt) -> Vec<Harm> {
    let over = attempt.laminate.is_over();
    let harm =
        || Harm { what: Harmed::Laminate, at_s: attempt.seconds(), seen_s: attempt.laminate.glossy_s, force_n: None };
    over.then(harm).into_iter().collect()
}
