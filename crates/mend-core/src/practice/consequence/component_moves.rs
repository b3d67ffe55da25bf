//! What stands near floats once its own joints are molten: it is shifted when it is touched, blown away where the jet beats surface
//! tension, and falls where it hangs too heavy.

use crate::planning::loose::{Loose, loose};
use crate::practice::attempt::Attempt;
use crate::practice::harm::{Harm, Harmed};

pub(super) fn look(attempt: &Attempt) -> Vec<Harm> {
    let scene = &attempt.scene;
    let swims: Vec<bool> = (0..scene.board.components.len()).map(|k| attempt.swims(k)).collect();
    if !swims.contains(&true) {
        return Vec::new();
    }
    let air = attempt.hands.blowing(scene, &attempt.truth);
    let becomes = loose(&scene.board, air.as_ref(), &scene.shields);
    let what = |k: usize| {
        let component = &scene.board.components[k];
        let name = component.name.clone();
        match becomes[k] {
            Loose::Blown => Some(Harmed::BlownAway { name }),
            Loose::Drops => Some(Harmed::Dropped { name }),
            Loose::Stays if attempt.touched.is_some_and(|at| component.body.covers(at)) => {
                Some(Harmed::Floated { name })
            }
            Loose::Stays => None,
        }
    };
    let harmed = (0..swims.len()).filter(|k| swims[*k]).filter_map(what);
    harmed.map(|what| Harm { what, at_s: attempt.seconds(), seen_s: None, force_n: None }).collect()
}
