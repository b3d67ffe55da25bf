//! A comparison in words and pictures.

use mend_core::method::MethodFamily;
use mend_core::method::subject::Subject;
use mend_core::planning::band::TimeBand;
use mend_core::planning::compare::{Comparison, Lane};
use mend_core::planning::difficulty::{Compared, Difficulty, difficulty};

use crate::App;
use crate::draw::lanes::{Lanes, LanesInput, lanes};
use crate::job::Job;
use crate::methods::MethodInputs;
use crate::words::{self, Words, advice, go};

/// A line of the table.
pub(crate) struct MethodRow {
    pub(crate) name: &'static str,
    pub(crate) key: &'static str,
    pub(crate) recommended: bool,
    pub(crate) chosen: bool,
    pub(crate) release: String,
    pub(crate) solid: String,
    pub(crate) body: String,
    pub(crate) passes: String,
    pub(crate) uses: String,
    pub(crate) level: &'static str,
    pub(crate) danger: &'static str,
}

/// A family that does not apply.
pub(crate) struct Not {
    pub(crate) name: &'static str,
    pub(crate) key: &'static str,
    pub(crate) why: String,
}

/// Go or no-go, in words.
pub(crate) struct DifficultyView {
    pub(crate) reading: &'static str,
    pub(crate) advice: String,
    pub(crate) reasons: Vec<String>,
    /// What it is read off where its methods have not been compared; empty: they have.
    pub(crate) read_off: &'static str,
}

impl DifficultyView {
    /// Of a job as far as it is known: with what its methods came to where they have been compared. None: there is no board yet.
    pub(crate) async fn of_job(app: &App, job: &Job, words: Words) -> Option<Self> {
        let weighed = MethodInputs::load(app, job).await.ok()?;
        let compared = app.computing.known(&weighed.comparison_key());
        let (stand, read_off) = match (&compared, job.current_plan()) {
            (Some(comparison), _) => (comparison.best().into(), ""),
            (None, Some(planned)) => (Compared::Planned(&planned.plan), "the board and its heat plan"),
            (None, None) => (Compared::NotYet, "the board alone"),
        };
        let read = difficulty(&weighed.subject(), stand, job.broken_lands().len());
        Some(Self { read_off, ..Self::from_difficulty(&read, words) })
    }

    fn from_difficulty(difficulty: &Difficulty, words: Words) -> Self {
        Self {
            reading: go(difficulty.go),
            advice: advice(difficulty),
            reasons: difficulty.reasons.iter().map(|hardship| words.hardship(hardship)).collect(),
            read_off: "",
        }
    }
}

/// All of it.
pub(crate) struct ComparisonView {
    pub(crate) best: Option<(&'static str, &'static str)>,
    pub(crate) reason: String,
    pub(crate) picture: Lanes,
    pub(crate) rows: Vec<MethodRow>,
    pub(crate) ruled_out: Vec<Not>,
    pub(crate) difficulty: DifficultyView,
}

/// A comparison of a job's methods, and which is chosen.
pub(crate) struct ComparisonOfJob<'a> {
    pub(crate) job: &'a Job,
    pub(crate) subject: &'a Subject<'a>,
    pub(crate) comparison: &'a Comparison,
    pub(crate) chosen: Option<MethodFamily>,
}

impl ComparisonView {
    pub(crate) fn from_comparison(of: ComparisonOfJob<'_>, words: Words) -> Self {
        let ComparisonOfJob { job, subject, comparison, chosen } = of;
        let scale = words.scale;
        let best = comparison.best();
        let row = |(k, lane): (usize, &Lane)| row(lane, comparison.recommended == Some(k), chosen, words);
        let not = |ruled: &mend_core::planning::compare::Ruled| Not {
            name: words.method(ruled.family).name,
            key: ruled.family.key(),
            why: ruled.fit.against.iter().map(|reason| words.obstacle(reason)).collect::<Vec<_>>().join("; "),
        };
        Self {
            best: best.map(|lane| (words.method(lane.choice.family).name, lane.choice.family.key())),
            reason: words.recommendation(&comparison.reason),
            picture: lanes(&LanesInput { job: job.row.id, comparison, chosen, scale }),
            rows: comparison.lanes.iter().enumerate().map(row).collect(),
            ruled_out: comparison.ruled_out.iter().map(not).collect(),
            difficulty: DifficultyView::from_difficulty(
                &difficulty(subject, best.into(), job.broken_lands().len()),
                words,
            ),
        }
    }
}

fn row(lane: &Lane, recommended: bool, chosen: Option<MethodFamily>, words: Words) -> MethodRow {
    let text = words.method(lane.choice.family);
    MethodRow {
        name: text.name,
        key: lane.choice.family.key(),
        recommended,
        chosen: chosen == Some(lane.choice.family),
        release: release(&lane.plan.release, lane.plan.recipe.seconds_before()),
        solid: format!("{:.0} %", lane.stays_solid() * 100.0),
        body: lane.body_peak_c.map_or(String::new(), |band| words.temperature_band(band)),
        passes: match lane.passes {
            None => "more than 8".to_owned(),
            Some(0) => "once over".to_owned(),
            Some(passes) => format!("{passes} with fresh metal"),
        },
        uses: words.uses(&lane.uses),
        level: lane.level().name(),
        danger: text.danger,
    }
}

/// `31–46 s`, after what comes before the last pass.
pub(super) fn release(band: &TimeBand, before: usize) -> String {
    let after = if before > 0 { format!(" after {before} s") } else { String::new() };
    band.low_s.map_or("may never come".to_owned(), |_| format!("{}{after}", words::release(band)))
}
