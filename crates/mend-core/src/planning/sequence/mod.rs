//! The steps at the bench, written from the plan and the chosen method: what to do, how long, what to beware of.
//! What they say is a [`task::Task`] and its [`line::Line`]s: values, which the web puts into words.
//!
//! - `before`: opening, protecting, flux, alloy; [`stages`]: soaks, helpers and shields; `heat`: until it is off;
//!   `pads`: wicking, holes; `fit`: tinning, setting, holding, anchors; `after`: cleaning, looking, testing;
//!   `harvest`: what becomes of a donor's part instead
//!
//! Steps are written when a run is opened and stored with it: a later version shows an old run as it was. A run whose plan
//! names no method has the steps that such runs always had.

mod after;
mod before;
mod fit;
mod fixture;
mod harvest;
mod heat;
pub mod line;
mod pads;
pub mod script;
pub mod stages;
pub mod step;
pub mod task;

use crate::board::KeepIntact;
use crate::method::MethodFamily;
use script::Script;
use step::Step;

/// All steps, in order.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::make_plan::plan;
/// use mend_core::planning::sequence::{script::Script, sequence, task::Task};
/// let made = plan(&bench.order()).expect("it can be computed");
/// let steps = sequence(&Script::plain(&bench.board, &made, &bench.composition));
/// assert_eq!(steps[0].task(), Some(&Task::MakeReady));
/// assert_eq!(steps.last().and_then(|step| step.task()), Some(&Task::CleanAll));
/// ```
pub fn sequence(script: &Script<'_>) -> Vec<Step> {
    let mut steps = vec![before::ready()];
    steps.extend(script.choice.map(|_| before::open(script)));
    steps.extend([before::protect(script), before::flux(script), before::alloy(script)]);
    steps.extend(before::wire(script));
    steps.extend(heat::until_off(script));
    match (script.choice, script.keep_intact) {
        (Some(_), KeepIntact::Part) => steps.extend(harvest::steps(script)),
        (Some(_), _) => steps.extend(fitted(script)),
        (None, _) => steps.extend([
            pads::wick(script),
            pads::clean_pads(script),
            fit::fit(script),
            fit::set(script),
            fit::hold(script),
            after::clean_all(),
        ]),
    }
    steps
}

/// From the bare pads to the tested port.
fn fitted(script: &Script<'_>) -> Vec<Step> {
    let mut steps = Vec::new();
    if !script.is(MethodFamily::HotSwap) {
        steps.push(pads::wick(script));
        steps.extend(pads::holes(script));
        steps.extend([pads::clean_pads(script), fit::fit(script), fit::set(script)]);
    }
    steps.extend([fit::hold(script), fit::touch_up(script)]);
    steps.extend([after::clean(script), after::look(script), after::test(script)]);
    steps
}
