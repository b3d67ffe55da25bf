//! Tables of the review as CSV.

use axum::extract::{Path, State};
use axum::response::Response;
use mend_core::shop::people::Permission;
use mend_core::shop::review::interval::Share;
use mend_core::shop::review::{GroupedBy, JobOutcome, OutcomeGroup, Review, WaitSummary};

use super::outcomes;
use crate::App;
use crate::pages::saved;
use crate::people::Visit;
use crate::refusal::Refusal;
use crate::words::review::stop_name;

pub(crate) async fn csv(State(app): State<App>, Path(table): Path<String>) -> Result<Response, Refusal> {
    let key = table.strip_suffix(".csv").ok_or(Refusal::NotFound("table"))?;
    let outcomes = outcomes(&app).await?;
    let rows = match key {
        "stations" => groups(&outcomes, GroupedBy::Station),
        "boards" => groups(&outcomes, GroupedBy::Board),
        "probed" => groups(&outcomes, GroupedBy::Probed),
        "methods" => groups(&outcomes, GroupedBy::Method),
        "connectors" => groups(&outcomes, GroupedBy::Connector),
        "people" => {
            Visit::current().expect(Permission::Shop)?;
            groups(&outcomes, GroupedBy::Person)
        }
        "stops" => stops(&outcomes),
        "waits" => waits(&outcomes),
        "jobs" => jobs(&outcomes),
        _ => return Err(Refusal::NotFound("table")),
    };
    Ok(saved::saved(saved::CSV, &table, saved::rows(&rows)))
}

fn words(row: &[&str]) -> Vec<String> {
    row.iter().map(|word| (*word).to_owned()).collect()
}

/// A share as four columns: how many, of how many, and the ends of its interval.
fn columns(share: &Share) -> [String; 4] {
    [share.of.to_string(), share.n.to_string(), format!("{:.3}", share.low), format!("{:.3}", share.high)]
}

fn groups(outcomes: &[JobOutcome], by: GroupedBy) -> Vec<Vec<String>> {
    let shares = ["right", "reworked", "damaged", "returned", "inside"];
    let mut head = words(&["name"]);
    head.extend(shares.iter().flat_map(|name| ["", " of", " low", " high"].map(|end| format!("{name}{end}"))));
    head.extend(words(&["bias", "bias low", "bias high", "bias n"]));
    let row = |group: &OutcomeGroup| {
        let all = [&group.first_time_right, &group.reworked, &group.damaged, &group.returned, &group.inside];
        let mut row = vec![group.name.clone()];
        row.extend(all.into_iter().flat_map(columns));
        let bias = group.bias.map(|b| [b.mean, b.low, b.high].map(|figure| format!("{figure:.4}")));
        row.extend(bias.unwrap_or_default());
        row.push(group.bias.map_or(String::new(), |bias| bias.n.to_string()));
        row
    };
    [head].into_iter().chain(Review::new(outcomes).grouped(by).iter().map(row)).collect()
}

fn waits(outcomes: &[JobOutcome]) -> Vec<Vec<String>> {
    let row = |wait: WaitSummary| {
        let [together, usual] = [wait.seconds, wait.median_s].map(|seconds| format!("{seconds:.0}"));
        vec![wait.cause.name().to_owned(), wait.n.to_string(), together, usual]
    };
    let head = words(&["waited for", "jobs", "seconds", "median seconds"]);
    [head].into_iter().chain(Review::new(outcomes).waits.into_iter().map(row)).collect()
}

fn stops(outcomes: &[JobOutcome]) -> Vec<Vec<String>> {
    let row = |stage: mend_core::shop::review::StageSummary| {
        vec![
            stop_name(&stage.stop),
            stage.n.to_string(),
            format!("{:.0}", stage.seconds),
            format!("{:.3}", stage.factor),
        ]
    };
    let head = words(&["stop", "jobs", "seconds", "times the estimate"]);
    [head].into_iter().chain(Review::new(outcomes).stages.into_iter().map(row)).collect()
}

fn jobs(outcomes: &[JobOutcome]) -> Vec<Vec<String>> {
    let seconds = |value: Option<f64>| value.map_or(String::new(), |value| format!("{value:.1}"));
    let row = |outcome: &JobOutcome| {
        let [low, mid, high] = outcome.predicted_s.map(seconds);
        let yes = |is: bool| if is { "yes" } else { "" }.to_owned();
        vec![
            outcome.job.to_string(),
            outcome.connector.clone(),
            outcome.method.clone(),
            outcome.station.clone(),
            outcome.board.clone(),
            low,
            mid,
            high,
            seconds(outcome.actual_s),
            outcome.reworks.to_string(),
            outcome.damaged.join("; "),
            yes(outcome.returned),
            yes(outcome.declined),
        ]
    };
    let head = [
        "job",
        "connector",
        "method",
        "station",
        "board",
        "low s",
        "middle s",
        "high s",
        "actual s",
        "reworks",
        "damaged",
        "returned",
        "declined",
    ];
    [words(&head)].into_iter().chain(outcomes.iter().map(row)).collect()
}
