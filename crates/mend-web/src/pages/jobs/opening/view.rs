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

    fn mark(&self, (k, item): (usize, &OpeningItem)) -> ItemMark {
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
            next: self.tally.next == Some(item.id),
            says: self.says(item),
        }
    }

    fn pages(&self) -> Vec<PageView> {
        let items = || self.opening.map.items.iter().enumerate();
        let page = |(k, page): (usize, &MapPage)| PageView {
            name: page.name.clone(),
            photo: page.photo,
            number: k,
            marks: items().filter(|(_, item)| item.page == k).map(|item| self.mark(item)).collect(),
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
    fn cautions(&self) -> Vec<&'static str> {
        let there: Vec<Caution> = self.opening.map.items.iter().filter_map(|item| item.what.caution()).collect();
        let all = [Caution::Lithium, Caution::Mains, Caution::LiquidMetal, Caution::Burns];
        let mut texts: Vec<&'static str> =
            all.into_iter().filter(|caution| there.contains(caution)).map(Caution::text).collect();
        if !texts.is_empty() {
            texts.push(DEFERENCE);
        }
        texts
    }
}

impl OpeningPart {
    /// Of a job that goes by a map; none of another.
    pub(super) fn of(app: &App, job: &Job, (visitor, oob): (Visitor, bool)) -> Option<Self> {
        let opening = job.opening.as_ref()?;
        let (tally, twins) = (opening.tally(), look_alikes(&opening.map));
        let laid = MapLayout { opening, tally, twins, visitor };
        let named = |id: u32| laid.named(id);
        let order = order_problem(&opening.map);
        Some(Self {
            head: JobHead::from_job(job, Some(Stop::Opening), app.now().date()),
            oob,
            job: job.row.id,
            device: opening.row.name.clone(),
            version: opening.row.version,
            pages: laid.pages(),
            counts: laid.counts(),
            title: title(&laid.tally, &named),
            missing: laid.tally.missing.iter().map(|id| laid.placed(*id)).collect(),
            order: order.map_or(String::new(), |problem| words::order_problem(&problem, &named)),
            twins: laid.twins.len(),
            cautions: laid.cautions(),
            heads: ScrewHead::ALL.map(ScrewHead::key),
            latches: Latch::ALL.map(Latch::key),
            hazards: Hazard::ALL.map(Hazard::key),
        })
    }
}

/// What is next, or that all is out or back.
fn title(found: &OpeningTally, named: &dyn Fn(u32) -> String) -> String {
    match (found.next, found.missing.len()) {
        (Some(next), _) => format!("Next: {}", named(next)),
        (None, 0) if found.counts.is_empty() => "An empty map: add what you take out".to_owned(),
        (None, 0) => "All back in".to_owned(),
        (None, 1) => "One thing is out".to_owned(),
        (None, out) => format!("{out} things are out"),
    }
}
