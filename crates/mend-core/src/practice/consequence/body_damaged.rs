//! Plastic is damaged by temperature times time, the part's own where it has to come through whole.

use crate::practice::attempt::{Attempt, Endured};
use crate::practice::harm::{Harm, Harmed};

pub(super) fn look(attempt: &Attempt) -> Vec<Harm> {
    let harm = |endured: &Endured, what: Harmed| Harm {
        what,
        at_s: attempt.seconds(),
        seen_s: endured.glossy_s,
        force_n: None,
    };
    let part = attempt.body.as_ref().filter(|body| body.is_over() && attempt.keeps_part());
    let components = attempt.components.iter().zip(&attempt.scene.board.components);
    let over = components.filter(|(endured, _)| endured.is_over());
    let over = over.map(|(endured, n)| harm(endured, Harmed::Component { name: n.name.clone() }));
    part.map(|body| harm(body, Harmed::Part)).into_iter().chain(over).collect()
}
