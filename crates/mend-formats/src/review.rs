//! What a shop's past says, `urgent-mend/review/1`. Written only.

use mend_core::shop::review::interval::Share;
use mend_core::shop::review::{Bias, GroupedBy, JobOutcome, OutcomeGroup, Review, ReviewChange, WaitSummary, changes};
use serde::Serialize;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/review/1";

/// The file as it is written.
#[derive(Debug, Serialize)]
pub struct ReviewFile {
    format: &'static str,
    jobs: usize,
    changes: Vec<ChangeFile>,
    all: GroupFile,
    stations: Vec<GroupFile>,
    boards: Vec<GroupFile>,
    methods: Vec<GroupFile>,
    connectors: Vec<GroupFile>,
    before_and_after_a_probe: Vec<GroupFile>,
    reliability: Vec<ReliabilityFile>,
    stops: Vec<StopFile>,
    waits: Vec<WaitFile>,
    overrides: ShareFile,
}

/// A share with its 95 % interval.
#[derive(Debug, Serialize)]
struct ShareFile {
    of: usize,
    n: usize,
    low: f64,
    high: f64,
    too_few: bool,
}

/// How far off: the mean of the logarithm of actual over predicted, with its interval.
#[derive(Debug, Serialize)]
struct BiasFile {
    n: usize,
    mean: f64,
    low: f64,
    high: f64,
}

#[derive(Debug, Serialize)]
struct GroupFile {
    name: String,
    first_time_right: ShareFile,
    reworked: ShareFile,
    damaged: ShareFile,
    returned: ShareFile,
    inside_band: ShareFile,
    bias: Option<BiasFile>,
}

/// Stated chance, and what came of it.
#[derive(Debug, Serialize)]
struct ReliabilityFile {
    stated: f64,
    came: ShareFile,
}

#[derive(Debug, Serialize)]
struct StopFile {
    stop: String,
    jobs: usize,
    seconds: f64,
    times_the_estimate: f64,
}

/// What jobs waited for: `word`, `part` or `entered`.
#[derive(Debug, Serialize)]
struct WaitFile {
    cause: &'static str,
    jobs: usize,
    seconds: f64,
    median_s: f64,
}

/// A thing to change.
#[derive(Debug, Serialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
enum ChangeFile {
    Station { name: String, bias: BiasFile },
    Drifted { name: String, since_day: f64, jobs: usize, by: f64 },
    Bands { inside: ShareFile },
    Method { name: String, own: ShareFile, others: ShareFile },
    Stop { stop: String, jobs: usize, times_the_estimate: f64 },
    Overrides { bad: ShareFile },
}

impl From<Share> for ShareFile {
    fn from(share: Share) -> Self {
        Self { of: share.of, n: share.n, low: share.low, high: share.high, too_few: share.is_few() }
    }
}

impl From<Bias> for BiasFile {
    fn from(Bias { n, mean, low, high }: Bias) -> Self {
        Self { n, mean, low, high }
    }
}

impl From<OutcomeGroup> for GroupFile {
    fn from(group: OutcomeGroup) -> Self {
        Self {
            name: group.name,
            first_time_right: group.first_time_right.into(),
            reworked: group.reworked.into(),
            damaged: group.damaged.into(),
            returned: group.returned.into(),
            inside_band: group.inside.into(),
            bias: group.bias.map(Into::into),
        }
    }
}

impl From<WaitSummary> for WaitFile {
    fn from(wait: WaitSummary) -> Self {
        Self { cause: wait.cause.name(), jobs: wait.n, seconds: wait.seconds, median_s: wait.median_s }
    }
}

impl From<ReviewChange> for ChangeFile {
    fn from(change: ReviewChange) -> Self {
        match change {
            ReviewChange::Station { name, bias } => Self::Station { name, bias: bias.into() },
            ReviewChange::Drifted { name, since_day, jobs, by } => Self::Drifted { name, since_day, jobs, by },
            ReviewChange::Bands { inside } => Self::Bands { inside: inside.into() },
            ReviewChange::Method { name, own, others } => Self::Method { name, own: own.into(), others: others.into() },
            ReviewChange::Stage(stage) => {
                Self::Stop { stop: stage.stop, jobs: stage.n, times_the_estimate: stage.factor }
            }
            ReviewChange::Overrides { bad } => Self::Overrides { bad: bad.into() },
        }
    }
}

/// The review of outcomes.
///
/// ```
/// let file = mend_formats::review::review(&[]);
/// assert!(serde_json::to_string(&file).is_ok_and(|text| text.contains("urgent-mend/review/1")));
/// ```
pub fn review(outcomes: &[JobOutcome]) -> ReviewFile {
    let review = Review::new(outcomes);
    let by = |by: GroupedBy| review.grouped(by).iter().cloned().map(Into::into).collect();
    let stop = |stage: mend_core::shop::review::StageSummary| StopFile {
        stop: stage.stop,
        jobs: stage.n,
        seconds: stage.seconds,
        times_the_estimate: stage.factor,
    };
    ReviewFile {
        format: FORMAT,
        jobs: outcomes.len(),
        changes: changes(outcomes, &review).into_iter().map(Into::into).collect(),
        stations: by(GroupedBy::Station),
        boards: by(GroupedBy::Board),
        methods: by(GroupedBy::Method),
        connectors: by(GroupedBy::Connector),
        before_and_after_a_probe: by(GroupedBy::Probed),
        reliability: review
            .reliability
            .iter()
            .map(|class| ReliabilityFile { stated: class.stated, came: class.came.into() })
            .collect(),
        waits: review.waits.iter().cloned().map(Into::into).collect(),
        stops: review.stages.into_iter().map(stop).collect(),
        overrides: review.overrides.into(),
        all: review.all.into(),
    }
}
