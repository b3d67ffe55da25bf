//! Methods compared and searched, `urgent-mend/comparison/2` and `urgent-mend/search/2`: written only, as values with their
//! kinds and units.

use mend_core::heat::recipe::Recipe;
use mend_core::method::MethodFamily;
use mend_core::method::equipment::SkillLevel;
use mend_core::method::reason::{Advantage, Caveat, Obstacle};
use mend_core::planning::band::{Band, TimeBand};
use mend_core::planning::bench_time::TimeSpent;
use mend_core::planning::compare::{Comparison, Lane, Recommendation, Ruled, Tightest, Use};
use mend_core::planning::damaged::Damaged;
use mend_core::planning::difficulty::{Advice, Difficulty, Go, Hardship};
use mend_core::planning::plan::WindowState;
use mend_core::planning::search::buys::Buy;
use mend_core::planning::search::request::Tried;
use mend_core::planning::search::score::Score;
use mend_core::planning::search::{OfFamily, SearchLimit, SearchResult};
use mend_core::solder::JointComposition;
use serde::Serialize;

use mend_core::solder::FeedEntry;

/// The comparison's format.
pub const FORMAT: &str = "urgent-mend/comparison/2";
/// The search's format.
pub const SEARCH_FORMAT: &str = "urgent-mend/search/2";

#[derive(Serialize)]
struct ComparisonFile<'a> {
    format: &'static str,
    recommended: Option<MethodFamily>,
    reason: &'a Recommendation,
    difficulty: DifficultyFile<'a>,
    lanes: Vec<LaneFile<'a>>,
    ruled_out: Vec<RuledFile<'a>>,
}

#[derive(Serialize)]
struct DifficultyFile<'a> {
    reading: Go,
    wants: SkillLevel,
    reasons: &'a [Hardship],
    advice: Advice,
}

#[derive(Serialize)]
struct LaneFile<'a> {
    family: MethodFamily,
    window: WindowState,
    chance: f64,
    stays_solid: f64,
    release: TimeBand,
    tightest: Option<&'a Tightest>,
    body_peak_c: Option<Band>,
    bench: &'a [TimeSpent],
    total_s: Band,
    wick_passes: Option<usize>,
    uses: &'a [Use],
    level: SkillLevel,
    speaks_for: &'a [Advantage],
    minds: &'a [Caveat],
    feed: Option<FeedEntry>,
    settings: &'a Recipe,
    search: SearchedFile<'a>,
}

#[derive(Serialize)]
struct RuledFile<'a> {
    family: MethodFamily,
    why: &'a [Obstacle],
}

#[derive(Serialize)]
struct SearchedFile<'a> {
    candidates: usize,
    turned_down: usize,
    best: Option<TriedFile<'a>>,
    nearest: Option<TriedFile<'a>>,
    limited_by: Option<SearchLimit>,
    buys: &'a [Buy],
}

#[derive(Serialize)]
struct TriedFile<'a> {
    score: Score,
    open: bool,
    tightest: Option<&'a Damaged>,
    feed: Option<FeedEntry>,
    settings: &'a Recipe,
}

#[derive(Serialize)]
struct SearchFile<'a> {
    format: &'static str,
    families: Vec<FamilyFile<'a>>,
}

#[derive(Serialize)]
struct FamilyFile<'a> {
    family: MethodFamily,
    #[serde(skip_serializing_if = "Option::is_none")]
    search: Option<SearchedFile<'a>>,
    #[serde(skip_serializing_if = "is_empty")]
    why_not: &'a [Obstacle],
}

fn is_empty(list: &&[Obstacle]) -> bool {
    list.is_empty()
}

/// What is fed, as a bundle has it.
pub fn feed(composition: &JointComposition) -> Option<FeedEntry> {
    composition.feed.as_ref().map(FeedEntry::from)
}

fn lane(lane: &Lane) -> LaneFile<'_> {
    LaneFile {
        family: lane.choice.family,
        window: lane.plan.window,
        chance: lane.plan.chance,
        stays_solid: lane.stays_solid(),
        release: lane.plan.release,
        tightest: lane.tightest.as_ref(),
        body_peak_c: lane.body_peak_c,
        bench: &lane.spent,
        total_s: lane.total_s,
        wick_passes: lane.passes,
        uses: &lane.uses,
        level: lane.level(),
        speaks_for: &lane.fit.speaks_for,
        minds: &lane.fit.minds,
        feed: feed(&lane.composition),
        settings: &lane.plan.recipe,
        search: searched(&lane.searched),
    }
}

fn searched(searched: &SearchResult) -> SearchedFile<'_> {
    SearchedFile {
        candidates: searched.candidates,
        turned_down: searched.turned_down,
        best: searched.best.as_ref().map(tried),
        nearest: searched.nearest.as_ref().map(tried),
        limited_by: searched.limited_by(),
        buys: &searched.buys,
    }
}

fn tried(tried: &Tried) -> TriedFile<'_> {
    let (score, open, tightest) = (tried.score, tried.score.is_open(), tried.tightest.as_ref());
    TriedFile { score, open, tightest, feed: feed(&tried.composition), settings: &tried.recipe }
}

fn ruled(ruled: &Ruled) -> RuledFile<'_> {
    RuledFile { family: ruled.family, why: &ruled.fit.against }
}

/// A comparison with its reading of difficulty.
pub fn write(comparison: &Comparison, difficulty: &Difficulty) -> Result<String, serde_json::Error> {
    let Difficulty { go, wants, reasons, advice } = difficulty;
    serde_json::to_string_pretty(&ComparisonFile {
        format: FORMAT,
        recommended: comparison.best().map(|lane| lane.choice.family),
        reason: &comparison.reason,
        difficulty: DifficultyFile { reading: *go, wants: *wants, reasons, advice: *advice },
        lanes: comparison.lanes.iter().map(lane).collect(),
        ruled_out: comparison.ruled_out.iter().map(ruled).collect(),
    })
}

/// Searches by family: what was found, or why the family does not apply.
pub fn write_searches(searches: &[OfFamily]) -> Result<String, serde_json::Error> {
    let families = searches.iter().map(of_family).collect();
    serde_json::to_string_pretty(&SearchFile { format: SEARCH_FORMAT, families })
}

fn of_family((family, found): &OfFamily) -> FamilyFile<'_> {
    FamilyFile {
        family: *family,
        search: found.as_ref().ok().map(searched),
        why_not: found.as_ref().err().map_or(&[], Vec::as_slice),
    }
}
