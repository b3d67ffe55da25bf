//! The steps at the bench, written from the plan and the chosen method: what to do, how long, what to beware of.
//! What they say is a [`task::Task`] and its [`line::Line`]s: values, which the web puts into words.
//!
//! - `before`: opening, protecting, flux, alloy; [`stages`]: soaks, helpers and shields; `heat`: until it is off;
//!   `pads`: wicking, holes; `fit`: tinning, setting, holding, anchors; `after`: cleaning, looking, testing;
//!   `harvest`: what becomes of a donor's part instead
//! - this file: which of them a kind of job has
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
use crate::method::{JobKind, MethodFamily};
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
    if !script.kind.removes() {
        return put_back(script);
    }
    let mut steps = vec![before::ready()];
    steps.extend(script.choice.map(|_| before::open(script)));
    steps.extend([before::protect(script), before::flux(script), before::alloy(script)]);
    steps.extend(before::wire(script));
    steps.extend(heat::until_off(script));
    match (script.kind, script.choice, script.keep_intact) {
        (JobKind::Harvest, _, _) | (JobKind::Replace, Some(_), KeepIntact::Part) => {
            steps.extend(harvest::steps(script));
        }
        (JobKind::Transfer, _, _) => steps.extend(moved_over(script)),
        (JobKind::RemoveOnly, _, _) => steps.extend(left_bare(script)),
        (_, Some(_), _) => steps.extend(fitted(script)),
        (_, None, _) => steps.extend([
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

/// A part that is off already, from its pads to the tested port: the plan is that of its fit.
fn put_back(script: &Script<'_>) -> Vec<Step> {
    let script = &Script { fit: Some(script.plan), ..*script };
    let mut steps = vec![before::ready(), before::open(script), before::protect(script), before::flux(script)];
    steps.extend(pads::holes(script));
    steps.push(pads::clean_pads(script));
    steps.extend(set_and_tested(script));
    steps
}

/// A part that came off one board, onto another.
fn moved_over(script: &Script<'_>) -> Vec<Step> {
    let mut steps = harvest::steps(script);
    // It is not bagged: it goes on.
    steps.pop();
    steps.push(harvest::other_board(script));
    steps.extend(pads::holes(script));
    steps.push(pads::clean_pads(script));
    steps.extend(set_and_tested(script));
    steps
}

/// The pads as they are left where nothing goes on.
fn left_bare(script: &Script<'_>) -> Vec<Step> {
    let mut steps = vec![pads::wick(script)];
    steps.extend(script.choice.and_then(|_| pads::holes(script)));
    steps.extend([pads::clean_pads(script), after::clean(script), after::bare(script)]);
    steps
}

/// From the bare pads to the tested port.
fn fitted(script: &Script<'_>) -> Vec<Step> {
    if script.is(MethodFamily::HotSwap) {
        return held_and_tested(script);
    }
    let mut steps = vec![pads::wick(script)];
    steps.extend(pads::holes(script));
    steps.push(pads::clean_pads(script));
    steps.extend(set_and_tested(script));
    steps
}

fn set_and_tested(script: &Script<'_>) -> Vec<Step> {
    let mut steps = vec![fit::fit(script), fit::set(script)];
    steps.extend(held_and_tested(script));
    steps
}

fn held_and_tested(script: &Script<'_>) -> Vec<Step> {
    vec![fit::hold(script), fit::touch_up(script), after::clean(script), after::look(script), after::test(script)]
}

#[cfg(test)]
mod tests {
    use super::fixture::job;
    use super::*;
    use crate::caution::Caution;
    use crate::solder::CompositionEntry;
    use task::Task;

    fn tasks(script: &Script<'_>) -> Vec<Task> {
        sequence(script).iter().filter_map(|step| step.task().cloned()).collect()
    }

    #[test]
    fn each_kind_of_job_has_the_steps_that_it_needs_and_no_other() {
        let job = job();
        let of = |kind| tasks(&Script { kind, ..job.script() });
        let replace = of(JobKind::Replace);
        assert!(replace.contains(&Task::Lift) && replace.contains(&Task::Fit));
        let back = of(JobKind::PutBack);
        assert!(!back.contains(&Task::Lift) && !back.contains(&Task::AddAlloy) && back.contains(&Task::Fit));
        let bare = of(JobKind::RemoveOnly);
        assert_eq!(bare.last(), Some(&Task::LookAtLands));
        assert!(bare.contains(&Task::Wick) && !bare.contains(&Task::Fit));
        assert_eq!(of(JobKind::Harvest).last(), Some(&Task::BagPart));
        let over = of(JobKind::Transfer);
        let place = |task: &Task| over.iter().position(|other| other == task);
        assert!(place(&Task::CleanPart) < place(&Task::OtherBoard) && place(&Task::OtherBoard) < place(&Task::Fit));
        assert!(!over.contains(&Task::BagPart) && over.last() == Some(&Task::Test));
    }

    #[test]
    fn every_caution_stands_at_a_step_and_at_the_right_one() {
        let job = job().fed();
        let mut composition = job.bench.composition.clone();
        let entry =
            CompositionEntry { refit: Some("Sn63Pb37".to_owned()), alloy: "SAC305".to_owned(), ..Default::default() };
        composition.refit = entry.composition().expect("alloys of the table").refit;
        let steps = sequence(&Script { composition: &composition, ..job.script() });
        let at = |task: &Task, caution: Caution| {
            steps.iter().any(|step| step.task() == Some(task) && step.cautions.contains(&caution))
        };
        for caution in Caution::ALL {
            assert!(steps.iter().any(|step| step.cautions.contains(&caution)), "{caution:?} stands nowhere");
        }
        for (task, caution) in [
            (Task::MakeReady, Caution::Lithium),
            (Task::MakeReady, Caution::Mains),
            (Task::MakeReady, Caution::SmokeAlarm),
            (Task::Open, Caution::LiquidMetal),
            (Task::Flux, Caution::Fumes),
            (Task::Fit, Caution::Lead),
            (Task::Clean, Caution::Alcohol),
            (Task::Hold, Caution::Burns),
            (Task::Test, Caution::LivePower),
        ] {
            assert!(at(&task, caution), "{caution:?} is not at {task:?}");
        }
    }

    #[test]
    fn what_goes_back_is_set_by_the_plan_of_its_fit() {
        let job = job();
        let steps = sequence(&Script { kind: JobKind::PutBack, ..job.script() });
        let set = steps.iter().find(|step| step.task() == Some(&Task::SetWithAir)).expect("it is set with air");
        assert!(matches!(&set.kind, step::StepKind::Set { fit: Some(times) } if times.abort_s == job.plan.abort.at_s));
    }
}
