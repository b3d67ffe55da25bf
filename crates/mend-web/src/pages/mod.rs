//! One file per page, beside its template of the same path.

pub(crate) mod alloys;
pub(crate) mod bench;
pub(crate) mod boards;
pub(crate) mod jobs;
pub(crate) mod number;
pub(crate) mod scale;

use jiff::civil::Date;
use mend_core::planning::plan::Window;
use mend_core::shop::{self, Facts, PinState, RunState, Stop, StopState};
use mend_core::units::Scale;

use crate::job::Job;

/// A choice as the formats write it.
pub(crate) fn word(choice: &impl serde::Serialize) -> String {
    serde_json::to_value(choice).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
}

/// What stands round every page.
#[derive(Debug, Clone)]
pub(crate) struct Frame {
    pub(crate) title: String,
    pub(crate) scale: Scale,
    /// `bench`, `boards` or `alloys`: the place that is marked.
    pub(crate) place: &'static str,
    /// The address that the °C/°F switch comes back to.
    pub(crate) here: String,
}

impl Frame {
    /// A frame of a page.
    pub(crate) fn new(title: impl Into<String>, scale: Scale, place: &'static str, here: String) -> Self {
        Self { title: title.into(), scale, place, here }
    }
    /// A frame where nothing is known of the visitor.
    pub(crate) fn plain(title: &str) -> Self {
        Self::new(title, Scale::Celsius, "", "/".to_owned())
    }
    /// The scale that the switch goes to.
    pub(crate) fn other_scale(&self) -> &'static str {
        match self.scale {
            Scale::Celsius => "F",
            Scale::Fahrenheit => "C",
        }
    }
}

/// One stop as it is drawn on the line.
#[derive(Debug, Clone)]
pub(crate) struct StopView {
    pub(crate) name: &'static str,
    pub(crate) href: String,
    /// `done`, `now` or `later`.
    pub(crate) state: &'static str,
    /// Its one key figure.
    pub(crate) figure: String,
    pub(crate) here: bool,
}

/// The head of every page of a job: what it is, and its line of stops.
#[derive(Debug, Clone)]
pub(crate) struct JobHead {
    pub(crate) id: i64,
    pub(crate) device: String,
    pub(crate) customer: String,
    pub(crate) due: String,
    pub(crate) late: bool,
    pub(crate) stops: Vec<StopView>,
}

impl JobHead {
    /// The head of a job on one of its stops.
    pub(crate) fn of(job: &Job, here: Option<Stop>, today: Date) -> Self {
        let facts = job.facts(today);
        let stop = |stop: Stop| StopView {
            name: stop.name(),
            href: format!("/jobs/{}/{}", job.row.id, stop.path()),
            state: match shop::state(&facts, stop) {
                StopState::Done => "done",
                StopState::Now => "now",
                StopState::Later => "later",
            },
            figure: figure(job, &facts, stop),
            here: here == Some(stop),
        };
        Self {
            id: job.row.id,
            device: job.device().to_owned(),
            customer: job.intake("customer").to_owned(),
            due: if facts.handed_over { "given back".to_owned() } else { due_in_words(facts.due_in_days) },
            late: facts.due_in_days.is_some_and(|days| days < 0) && !facts.handed_over,
            stops: Stop::ALL.map(stop).to_vec(),
        }
    }
}

/// The one figure of a stop.
fn figure(job: &Job, facts: &Facts, stop: Stop) -> String {
    match stop {
        Stop::Intake if facts.intake_missing > 0 => format!("{} to fill in", facts.intake_missing),
        Stop::Intake => match job.intake("price") {
            "" => "taken in".to_owned(),
            price => price.to_owned(),
        },
        Stop::Board => {
            job.board.as_ref().map_or("none yet".to_owned(), |(_, b)| format!("{} joints", b.connector.joints.len()))
        }
        Stop::Alloy => alloy_figure(job),
        Stop::Method => match job.inputs().and_then(|inputs| inputs.method) {
            Some(choice) => choice.family.words().name.to_owned(),
            None if facts.window.is_some() => "by hand".to_owned(),
            None => "not chosen".to_owned(),
        },
        Stop::Heat => job.current_plan().map_or("no plan".to_owned(), |p| {
            let window = window_word(p.plan.window);
            p.plan.release.mid_s.map_or(format!("{window}, may not melt"), |t| format!("{window}, about {t:.0} s"))
        }),
        Stop::Run => match (facts.run, &job.bench) {
            (RunState::AtStep(at, of), _) => format!("step {at} of {of}"),
            (RunState::Done, Some(b)) => {
                b.state.release().map_or("done".to_owned(), |s| format!("moved at {:.0} s", s.seconds))
            }
            _ => "not begun".to_owned(),
        },
        Stop::Pins => {
            let walked = job.walked();
            let marked = walked.iter().filter(|p| p.mark.is_some()).count();
            match facts.pins {
                PinState::Sound => format!("{marked} firm"),
                PinState::Rework => "rework".to_owned(),
                _ if walked.is_empty() => "no board".to_owned(),
                _ => format!("{marked} of {}", walked.len()),
            }
        }
        Stop::Handover if facts.handed_over => "given back".to_owned(),
        Stop::Handover => "not yet".to_owned(),
    }
}

/// What is in the joints, and fed.
fn alloy_figure(job: &Job) -> String {
    let Some(charge) = &job.charge else { return "not looked at".to_owned() };
    match charge.feed.as_ref().filter(|feed| feed.is_used()) {
        Some(feed) => format!("fed {:.0} %", feed.share * 100.0),
        None => charge.factory().to_owned(),
    }
}

/// A window in a word.
pub(crate) fn window_word(window: Window) -> &'static str {
    match window {
        Window::Open => "open",
        Window::Tight => "tight",
        Window::Closed => "closed",
    }
}

/// A due date in words.
pub(crate) fn due_in_words(days: Option<i64>) -> String {
    match days {
        None => "no date".to_owned(),
        Some(0) => "due today".to_owned(),
        Some(1) => "due tomorrow".to_owned(),
        Some(-1) => "a day late".to_owned(),
        Some(days) if days < 0 => format!("{} days late", -days),
        Some(days) => format!("due in {days} days"),
    }
}
