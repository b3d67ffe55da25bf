//! What the alloy stop says: where the joints melt, how much to feed, how often to clean.

use mend_core::board::{Board, JointGroup, groups};
use mend_core::finding::Finding;
use mend_core::finding::problem::AlloyProblem;
use mend_core::planning::margin::MarginKind;
use mend_core::planning::plan::Plan;
use mend_core::solder::CompositionEntry;
use mend_core::solder::{
    GroupFeed, JointComposition, MeltCurve, MeltTarget, Mixing, cycles, feed_table, flags, leaded_into_lead_free,
    melt_curve,
};
use mend_core::units::{Scale, Temperature};

use crate::draw::melt_picture::{MeltDiagram, MeltPicture, melt_picture};
use crate::words::{FindingView, Words};

/// A row of the feed table.
pub(crate) struct FeedRow {
    pub(crate) name: String,
    pub(crate) count: usize,
    pub(crate) melts: String,
    pub(crate) each: String,
    pub(crate) total: String,
    pub(crate) reason: String,
    pub(crate) fed: bool,
}

/// All of it, ready to lay out.
pub(crate) struct AlloyView {
    /// `open` or `tight`: as the window's colours.
    pub(crate) class: &'static str,
    pub(crate) of_what: String,
    pub(crate) works: String,
    pub(crate) works_why: String,
    pub(crate) word: String,
    pub(crate) guess: String,
    pub(crate) last: String,
    pub(crate) last_why: String,
    pub(crate) wire: String,
    pub(crate) wire_why: String,
    pub(crate) cycles: String,
    pub(crate) cycles_why: String,
    pub(crate) key: &'static str,
    pub(crate) picture: MeltPicture,
    pub(crate) rows: Vec<FeedRow>,
    pub(crate) findings: Vec<FindingView>,
    pub(crate) notes: Vec<String>,
    pub(crate) confidence: String,
}

const KEY: &str = "solid line: in balance; dashed: cooled quickly; reality lies between";
const KEY_WITH_FACTORY: &str =
    "solid line: in balance; dashed: cooled quickly; reality lies between; grey: the factory's";

/// A temperature with its band.
pub(crate) fn banded(target: &MeltTarget, scale: Scale) -> String {
    let spread = scale.of_delta(target.spread).max(1.0);
    format!("{:.0} ± {spread:.0} {}", scale.of(target.melted), scale.symbol())
}

/// What the joints of a job hold, as it was entered, and its plan, if there is one.
pub(crate) struct AlloyOfJob<'a> {
    pub(crate) board: &'a Board,
    pub(crate) composition: &'a JointComposition,
    pub(crate) file: &'a CompositionEntry,
    pub(crate) plan: Option<&'a Plan>,
}

impl AlloyView {
    pub(crate) fn from_composition(of: AlloyOfJob<'_>, words: Words) -> Self {
        let AlloyOfJob { board, composition, file, plan } = of;
        let scale = words.scale;
        let groups = groups(board);
        let table = feed_table(composition, &groups);
        // Of the fed groups the one that melts last is shown; with nothing fed, the factory's own.
        let hottest = |fed: bool| {
            let rows = groups.iter().zip(&table).filter(move |(g, _)| composition.feeds(g).is_some() == fed);
            rows.max_by(|a, b| melted(a.1).total_cmp(&melted(b.1)))
        };
        let fed = hottest(true);
        let shown = fed.or_else(|| hottest(false));
        let mix = melt_curve(&shown.map_or(composition.factory.composition, |(g, _)| mix_of(composition, g)));
        let factory = fed.map(|_| melt_curve(&composition.factory.composition));
        let target = shown.and_then(|(_, row)| row.target);
        let scene = MeltDiagram {
            mix: &mix,
            factory: factory.as_ref().map(|curve| (composition.factory.name.as_str(), curve)),
            works: target.map(|t| (t.melted, t.spread)),
            joints: plan.and_then(reached),
            scale,
        };
        let flags = flags(&mix.composition);
        let mut findings: Vec<Finding> = leaded_into_lead_free(composition).into_iter().collect();
        let cleaning = cleaning(composition, &groups);
        findings.extend(cleaning.as_ref().err().cloned());
        Self {
            class: if fed.is_some() && !flags.is_empty() { "tight" } else { "open" },
            of_what: fed.map_or("Joints melt".to_owned(), |(g, _)| format!("Fed, {} melt", g.name)),
            works: target.map_or("not computed".to_owned(), |t| banded(&t, scale)),
            works_why: works_why(target, &mix, fed.is_some(), scale),
            word: word(composition, &flags),
            guess: guess(composition, file),
            last: last_liquid(&mix, scale),
            last_why: mix.scheil_end.map_or(String::new(), |end| format!("{:.1} % of it", end.moles * 100.0)),
            wire: wire(&table),
            wire_why: composition
                .fed()
                .map_or(String::new(), |f| format!("{} mm, {}", f.wire.diameter_mm, f.metal.name)),
            cycles: cleaning.map_or("not in eight".to_owned(), |n| if n == 0 { "none".to_owned() } else { passes(n) }),
            cycles_why: if fed.is_some() {
                format!("flood with {}", composition.refit.name)
            } else {
                "nothing was fed".to_owned()
            },
            key: if fed.is_some() { KEY_WITH_FACTORY } else { KEY },
            picture: melt_picture(&scene),
            rows: table.iter().map(|row| feed_row(row, words)).collect(),
            findings: words.findings(&findings),
            notes: mix.notes().iter().map(|note| words.melt_note(note)).collect(),
            confidence: format!(
                "Bands: the model against published alloys ({}), and how well a feed mixes.",
                mix.band.family
            ),
        }
    }
}

fn melted(row: &GroupFeed) -> f64 {
    row.target.map_or(f64::INFINITY, |t| t.melted.in_celsius())
}

fn mix_of(composition: &JointComposition, group: &JointGroup) -> mend_core::materials::Composition {
    let Mixing([_, usual, _]) = Mixing::for_group(group);
    composition.mix(group, usual)
}

/// What the joints reach at the abort time of the plan that there is: the coolest of the low ends, the hottest of the high.
fn reached(plan: &Plan) -> Option<(Temperature, Temperature)> {
    let spans = plan.margins.iter().filter(|m| m.kind == MarginKind::Joints).map(|m| m.span());
    let (low, high) = spans.reduce(|a, b| (a.0.min(b.0), a.1.max(b.1)))?;
    Some((Temperature::celsius(low), Temperature::celsius(high)))
}

fn works_why(target: Option<MeltTarget>, mix: &MeltCurve, fed: bool, scale: Scale) -> String {
    let degrees = |t: Temperature| Words { scale }.temperature(t.in_celsius());
    match (target, mix.published, mix.liquidus) {
        (Some(_), Some(row), _) if !fed => format!("published for {}", row.name),
        (_, _, Some(liquidus)) => format!("98 % liquid; the very last at {}", degrees(liquidus)),
        _ => String::new(),
    }
}

fn word(composition: &JointComposition, flags: &[Finding]) -> String {
    match (composition.fed(), flags.first()) {
        (None, _) => "Nothing is fed: the joints melt as the factory left them".to_owned(),
        (Some(feed), None) => format!("{} may stay in the joints", feed.metal.name),
        (Some(feed), Some(_)) => format!("{} must come out again before the new part goes in", feed.metal.name),
    }
}

fn guess(composition: &JointComposition, file: &CompositionEntry) -> String {
    let made = composition.factory.composition.summary();
    if file.alloy.is_empty() {
        let guess = file.guess();
        let sure = if guess.sure { "" } else { ", a guess" };
        return format!("Factory: {} ({made}): {}{sure}.", guess.alloy, guess.why);
    }
    format!("Factory: {} ({made}).", composition.factory.name)
}

fn last_liquid(mix: &MeltCurve, scale: Scale) -> String {
    let band = scale.of_delta(mix.band.freezing);
    mix.scheil_end
        .map_or("not computed".to_owned(), |end| format!("{:.0} ± {band:.0} {}", scale.of(end.at), scale.symbol()))
}

fn wire(table: &[GroupFeed]) -> String {
    let total: f64 = table.iter().filter_map(|row| Some(row.fed?.length_mm * row.count as f64)).sum();
    if total > 0.0 { format!("{total:.0} mm") } else { "none".to_owned() }
}

fn passes(count: usize) -> String {
    if count == 1 { "1 pass".to_owned() } else { format!("{count} passes") }
}

/// The most cycles that any group needs.
fn cleaning(composition: &JointComposition, groups: &[JointGroup]) -> Result<usize, Finding> {
    let mut most = 0;
    for group in groups {
        most = most.max(cycles(composition, group).ok_or_else(|| {
            Finding::warning("residue", "feed", AlloyProblem::NeverClean { row: group.name.clone() })
        })?);
    }
    Ok(most)
}

fn feed_row(row: &GroupFeed, words: Words) -> FeedRow {
    let scale = words.scale;
    let length = |mm: f64| if mm < 9.95 { format!("{mm:.1} mm") } else { format!("{mm:.0} mm") };
    FeedRow {
        name: row.name.clone(),
        count: row.count,
        melts: row.target.map_or("not computed".to_owned(), |t| banded(&t, scale)),
        each: row.fed.map_or("–".to_owned(), |fed| length(fed.length_mm)),
        total: row.fed.map_or("–".to_owned(), |fed| length(fed.length_mm * row.count as f64)),
        reason: words.feed_reason(&row.reason),
        fed: row.fed.is_some(),
    }
}
