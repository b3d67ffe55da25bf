//! One file per page, beside its template of the same path.

pub(crate) mod alloys;
pub(crate) mod bench;
pub(crate) mod boards;
pub(crate) mod customers;
pub(crate) mod equipment;
pub(crate) mod finished;
pub(crate) mod help;
pub(crate) mod instruments;
pub(crate) mod jobs;
pub(crate) mod label;
pub(crate) mod number;
pub(crate) mod people;
pub(crate) mod practice;
pub(crate) mod review;
pub(crate) mod saved;
pub(crate) mod scale;
pub(crate) mod schedule;
pub(crate) mod settings;
pub(crate) mod stations;
pub(crate) mod stock;

use axum::http::Method;
use jiff::civil::Date;
use mend_core::planning::plan::WindowState;
use mend_core::shop::people::Permission;
use mend_core::shop::{self, Stop, StopState};
use mend_core::units::Scale;

use crate::job::{Job, Summary, Unread};
use crate::people::Visit;

/// A choice as the formats write it.
pub(crate) fn word(choice: &impl serde::Serialize) -> String {
    serde_json::to_value(choice).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
}

/// What stands round every page.
#[derive(Debug, Clone)]
pub(crate) struct Frame {
    pub(crate) title: String,
    pub(crate) scale: Scale,
    /// `bench`, `boards`, `alloys`, `stations` or `shop`: the place that is marked.
    pub(crate) place: &'static str,
    /// The address that the °C/°F switch comes back to.
    pub(crate) here: String,
    /// Who asks.
    pub(crate) visit: Visit,
}

impl Frame {
    /// A frame of a page.
    pub(crate) fn new(title: impl Into<String>, scale: Scale, place: &'static str, here: String) -> Self {
        Self { title: title.into(), scale, place, here, visit: Visit::current() }
    }
    /// A frame where nothing is known of the visitor.
    pub(crate) fn plain(title: &str) -> Self {
        Self::new(title, Scale::Celsius, "", "/".to_owned())
    }
    /// Is there a way to this address for whoever asks?
    pub(crate) fn leads_to(&self, path: &str) -> bool {
        self.visit.opens(&Method::GET, path)
    }
    /// May whoever asks take in jobs?
    pub(crate) fn takes_in(&self) -> bool {
        self.visit.may(Permission::Counter)
    }
    /// The name of who is signed in; empty: nobody is.
    pub(crate) fn who(&self) -> &str {
        self.visit.person().map_or("", |person| &person.name)
    }
    /// May somebody sign in who has not?
    pub(crate) fn offers_sign_in(&self) -> bool {
        self.visit == Visit::Anyone { staffed: true }
    }
    /// Does the shop wait for somebody to sign in?
    pub(crate) fn is_strange(&self) -> bool {
        self.visit == Visit::Stranger
    }
    /// The first page of the shop's own that whoever asks may open.
    pub(crate) fn shop_page(&self) -> &'static str {
        ["/settings", "/equipment"].into_iter().find(|path| self.leads_to(path)).unwrap_or_default()
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
    /// The group that begins with it; empty: it goes on.
    pub(crate) group: &'static str,
    pub(crate) name: &'static str,
    /// Empty: whoever asks may not open it.
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
    /// It has been handed over: nothing of it can be changed.
    pub(crate) closed: bool,
    /// May whoever asks see who did what?
    pub(crate) shows_record: bool,
    /// What is there and can't be read.
    pub(crate) unread: Vec<Unread>,
}

impl JobHead {
    /// The head of a job on one of its stops.
    pub(crate) fn from_job(job: &Job, here: Option<Stop>, today: Date) -> Self {
        let head = Self::from_summary(job.row.id, &Summary::from_job(job), here, today);
        Self { unread: job.unread.clone(), ..head }
    }

    /// The same from what lists know of it.
    pub(crate) fn from_summary(id: i64, summary: &Summary, here: Option<Stop>, today: Date) -> Self {
        let facts = summary.facts(today);
        let stops: Vec<Stop> = shop::stops_of(facts.kind).collect();
        let figure =
            |stop: Stop| Stop::ALL.iter().position(|other| *other == stop).and_then(|k| summary.figures.get(k));
        let stop = |(k, stop): (usize, Stop)| StopView {
            group: begins(&stops, k),
            name: shop::name_of(facts.kind, stop),
            href: stop_href(id, shop::path_of(facts.kind, stop)),
            state: match shop::state(&facts, stop) {
                StopState::Done => "done",
                StopState::Now => "now",
                StopState::Later => "later",
            },
            figure: figure(stop).cloned().unwrap_or_default(),
            here: here == Some(stop),
        };
        Self {
            id,
            device: summary.device.clone(),
            customer: summary.customer.clone(),
            due: if facts.handed_over { "handed over".to_owned() } else { due_in_words(facts.due_in_days) },
            late: facts.due_in_days.is_some_and(|days| days < 0) && !facts.handed_over,
            closed: facts.handed_over,
            stops: stops.iter().copied().enumerate().map(stop).collect(),
            shows_record: !stop_href(id, "record").is_empty(),
            unread: Vec::new(),
        }
    }
}

/// The address of a stop of a job; empty where whoever asks may not open it.
pub(crate) fn stop_href(job: i64, path: &str) -> String {
    if Visit::current().opens(&Method::GET, &format!("/jobs/{{id}}/{path}")) {
        format!("/jobs/{job}/{path}")
    } else {
        String::new()
    }
}

/// The group that begins with a stop of a line; empty: it is that of the one before.
fn begins(stops: &[Stop], at: usize) -> &'static str {
    let before = at.checked_sub(1).map_or("", |k| stops[k].group());
    if before == stops[at].group() { "" } else { stops[at].group() }
}

/// A window in a word.
pub(crate) fn window_word(window: WindowState) -> &'static str {
    match window {
        WindowState::Open => "open",
        WindowState::Tight => "tight",
        WindowState::Closed => "closed",
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
