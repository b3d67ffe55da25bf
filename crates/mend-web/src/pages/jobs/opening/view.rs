//! The map as it is laid out: its pages with everything on them, what is next, and the count.

use askama::Template;
use askama_web::WebTemplate;
use mend_core::caution::{Caution, DEFERENCE};
use mend_core::opening::item::{Hazard, ItemKind, Latch, ScrewHead};
use mend_core::opening::look_alike::look_alikes;
use mend_core::opening::map::{MapPage, OpeningItem};
use mend_core::opening::order::order_problem;
use mend_core::opening::tally::{Count, OpeningTally};
use mend_core::opening::taps::ItemState;
use mend_core::shop::Stop;

use crate::App;
use crate::job::{Job, JobOpening};
use crate::pages::JobHead;
use crate::visitor::Visitor;
use crate::words;

/// A page's picture, px of its own.
const WIDTH: f64 = 800.0;
const HEIGHT: f64 = 560.0;

/// A thing on paper.
struct ItemMark {
    id: u32,
    /// Its place in the order, from 1.
    number: usize,
    x: String,
    y: String,
    /// `screw`, `cable`, `hazard` or `other`.
    class: &'static str,
    /// `in`, `out` or `back`.
    state: &'static str,
    twin: bool,
    next: bool,
    says: String,
}

/// A page on paper.
struct PageView {
    name: String,
    photo: Option<i64>,
    number: usize,
    marks: Vec<ItemMark>,
}

/// A heap counted, in words.
struct CountView {
    what: String,
    of: usize,
    out: usize,
    back: usize,
}

/// The part that every tap and every change replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/opening_part.html")]
pub(crate) struct OpeningPart {
    pub(super) head: JobHead,
    oob: bool,
    job: i64,
    device: String,
    version: i64,
    pages: Vec<PageView>,
    counts: Vec<CountView>,
    title: String,
    /// What is missing, and where it was.
    missing: Vec<String>,
    /// What is wrong with its order; empty: nothing.
    order: String,
    twins: usize,
    cautions: Vec<&'static str>,
    heads: [&'static str; 6],
    latches: [&'static str; 5],
    hazards: [&'static str; 4],
    /// Everything goes back in: nothing is added to the map.
    closing: bool,
    skipped: bool,
    /// Is there a part of the customer's own on the map?
    owns: bool,
    /// Where a pedal goes on to when nothing is left to tap; empty: there is.
    next: String,
    /// What closing asks for in words besides the count: torque, paste, pads.
    by_feel: Vec<String>,
}

fn class(what: &ItemKind) -> &'static str {
    match what {
        ItemKind::Screw { .. } => "screw",
        ItemKind::Cable { .. } => "cable",
        ItemKind::Hazard { .. } => "hazard",
        _ => "other",
    }
}

/// A map being laid out.
struct MapLayout<'a> {
    opening: &'a JobOpening,
    tally: OpeningTally,
    twins: Vec<u32>,
    /// The thing that is next, out or back in.
    next: Option<u32>,
    visitor: Visitor,
}

impl MapLayout<'_> {
    fn says(&self, item: &OpeningItem) -> String {
        let note = if item.note.is_empty() { String::new() } else { format!(" · {}", item.note) };
        format!("{}{note}", self.visitor.words().opening_item(&item.what))
    }

    fn named(&self, id: u32) -> String {
        self.opening.map.item(id).map_or(String::new(), |item| self.says(item))
    }

    /// With the page that it is on.
    fn placed(&self, id: u32) -> String {
        let map = &self.opening.map;
        let page = map.item(id).and_then(|item| map.pages.get(item.page)).map_or("", |page| page.name.as_str());
        format!("{}: {page}", self.named(id))
    }

    fn mark(&self, k: usize, item: &OpeningItem) -> ItemMark {
        ItemMark {
            id: item.id,
            number: k + 1,
            x: format!("{:.1}", WIDTH * item.at[0]),
            y: format!("{:.1}", HEIGHT * item.at[1]),
            class: class(&item.what),
            state: match self.opening.taps.state(item.id) {
                ItemState::In => "in",
                ItemState::Out => "out",
                ItemState::Back => "back",
            },
            twin: self.twins.contains(&item.id),
            next: self.next == Some(item.id),
            says: self.says(item),
        }
    }

    fn pages(&self) -> Vec<PageView> {
        let items = || self.opening.map.items.iter().enumerate();
        let page = |(k, page): (usize, &MapPage)| PageView {
            name: page.name.clone(),
            photo: page.photo,
            number: k,
            marks: items().filter(|(_, item)| item.page == k).map(|(k, item)| self.mark(k, item)).collect(),
        };
        self.opening.map.pages.iter().enumerate().map(page).collect()
    }

    fn counts(&self) -> Vec<CountView> {
        let view = |count: &Count| CountView {
            what: words::heap(&count.heap),
            of: count.of,
            out: count.out,
            back: count.back,
        };
        self.tally.counts.iter().map(view).collect()
    }

    /// Those of what is on the map, and that local codes come first.
    fn cautions(&self, closing: bool) -> Vec<&'static str> {
        let there: Vec<Caution> = self.opening.map.items.iter().filter_map(|item| item.what.caution()).collect();
        // On the way back nothing is heated and nothing is live yet.
        let all: &[Caution] = match closing {
            true => &[Caution::LiquidMetal],
            false => &[Caution::Lithium, Caution::Mains, Caution::LiquidMetal, Caution::Burns],
        };
        let mut texts: Vec<&'static str> =
            all.iter().filter(|caution| there.contains(caution)).map(|caution| caution.text()).collect();
        if !texts.is_empty() {
            texts.push(DEFERENCE);
        }
        texts
    }
}

impl OpeningPart {
    /// With the head of the page beside it: it is put in place of what is there.
    pub(super) fn beside_head(self) -> Self {
        Self { oob: true, ..self }
    }

    /// Of a job that goes by a map; none of another.
    pub(super) fn of(app: &App, job: &Job, visitor: Visitor, stop: Stop) -> Option<Self> {
        let opening = job.opening.as_ref()?;
        let (tally, twins) = (opening.tally(), look_alikes(&opening.map));
        let (order, closing) = (order_problem(&opening.map), stop == Stop::Close);
        let next_item = if closing { tally.missing.first().copied() } else { tally.next };
        let laid = MapLayout { opening, tally, twins, next: next_item, visitor };
        let named = |id: u32| laid.named(id);
        let mut pages = laid.pages();
        if closing {
            // The innermost goes in first.
            pages.reverse();
        }
        Some(Self {
            head: JobHead::from_job(job, Some(stop), app.now().date()),
            oob: false,
            job: job.row.id,
            device: opening.row.name.clone(),
            version: opening.row.version,
            pages,
            counts: laid.counts(),
            title: title(&laid.tally, closing, &named),
            missing: laid.tally.missing.iter().map(|id| laid.placed(*id)).collect(),
            order: order.map_or(String::new(), |problem| words::order_problem(&problem, &named)),
            twins: laid.twins.len(),
            cautions: laid.cautions(closing),
            heads: ScrewHead::ALL.map(ScrewHead::key),
            latches: Latch::ALL.map(Latch::key),
            hazards: Hazard::ALL.map(Hazard::key),
            closing,
            skipped: job.has_skipped(Stop::Opening),
            owns: opening.map.items.iter().any(|item| item.what == ItemKind::Own),
            next: next(job, &laid.tally, closing),
            by_feel: if closing { by_feel(&laid) } else { Vec::new() },
        })
    }
}

/// What is next, or that all is out or back.
fn title(found: &OpeningTally, closing: bool, named: &dyn Fn(u32) -> String) -> String {
    match (found.next, found.missing.len()) {
        (_, 0) if closing => "All back in".to_owned(),
        (_, out) if closing => {
            let next = found.missing.first().map_or(String::new(), |id| named(*id));
            format!("Back in: {next}{}", if out == 1 { ", the last" } else { "" })
        }
        (Some(next), _) => format!("Next: {}", named(next)),
        (None, 0) if found.counts.is_empty() => "An empty map: add what you take out".to_owned(),
        (None, 0) => "All back in".to_owned(),
        (None, 1) => "One thing is out".to_owned(),
        (None, out) => format!("{out} things are out"),
    }
}

/// Where to go when there is nothing left to tap.
fn next(job: &Job, found: &OpeningTally, closing: bool) -> String {
    let (id, counted) = (job.row.id, !found.counts.is_empty());
    match (closing, found.missing.is_empty()) {
        (true, true) => format!("/jobs/{id}/close"),
        (false, _) if counted && found.next.is_none() => format!("/jobs/{id}"),
        _ => String::new(),
    }
}

/// What closing is done by, where there is such a thing on the map.
fn by_feel(laid: &MapLayout<'_>) -> Vec<String> {
    let has = |of: fn(&ItemKind) -> bool| laid.opening.map.items.iter().any(|item| of(&item.what));
    let says = [
        (has(|what| matches!(what, ItemKind::Screw { .. })), "Torque by feel: stop at resistance, never force."),
        (has(|what| matches!(what, ItemKind::Paste | ItemKind::LiquidMetal)), "Old paste off, fresh paste on."),
        (has(|what| matches!(what, ItemKind::ThermalPad { .. })), "Every pad where it was, none twice."),
        (has(|what| matches!(what, ItemKind::Own)), "The customer's own goes back before the last test."),
    ];
    says.into_iter().filter(|(there, _)| *there).map(|(_, says)| says.to_owned()).collect()
}
