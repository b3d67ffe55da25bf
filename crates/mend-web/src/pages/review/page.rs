//! The review's page.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::shop::people::Permission;
use mend_core::shop::review::interval::Share;
use mend_core::shop::review::{GroupedBy, OutcomeGroup, Review, WaitSummary, changes};

use super::outcomes;
use crate::App;
use crate::draw::intervals::Intervals;
use crate::pages::Frame;
use crate::people::Visit;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::review::{ChangeView, bias, change, group_name, share, stop_name, wait_cause, waited};

/// A group in a table.
struct GroupView {
    name: String,
    right: String,
    reworked: String,
    damaged: String,
    returned: String,
    inside: String,
    bias: String,
}

/// A table of groups with its picture.
struct TableView {
    title: &'static str,
    /// The last part of the address of its CSV.
    key: &'static str,
    groups: Vec<GroupView>,
    picture: String,
}

/// What jobs waited for.
struct WaitView {
    cause: &'static str,
    together: String,
    usual: String,
    n: usize,
}

/// A stop's time.
struct StopTimeView {
    name: String,
    share: String,
    factor: String,
    n: usize,
}

#[derive(Template, WebTemplate)]
#[template(path = "review/page.html")]
pub(crate) struct ReviewPage {
    frame: Frame,
    jobs: usize,
    changes: Vec<ChangeView>,
    all: GroupView,
    tables: Vec<TableView>,
    /// What plans promised and what came, as a picture; empty: nothing yet.
    reliability: String,
    stages: Vec<StopTimeView>,
    waits: Vec<WaitView>,
    damage: Vec<(String, usize)>,
    overrides: String,
    people: Vec<GroupView>,
}

fn group_view(group: &OutcomeGroup, by: GroupedBy) -> GroupView {
    GroupView {
        right: share(&group.first_time_right),
        reworked: share(&group.reworked),
        damaged: share(&group.damaged),
        returned: share(&group.returned),
        inside: share(&group.inside),
        bias: group.bias.as_ref().map_or("not known yet".to_owned(), bias),
        name: group_name(&group.name, by),
    }
}

fn wait_view(wait: &WaitSummary) -> WaitView {
    WaitView { cause: wait_cause(wait.cause), together: waited(wait.seconds), usual: waited(wait.median_s), n: wait.n }
}

fn drawn(picture: &Intervals) -> Result<String, Refusal> {
    picture.render().map_err(|error| Refusal::Broken(error.to_string()))
}

fn table(review: &Review, title: &'static str, key: &'static str, by: GroupedBy) -> Result<TableView, Refusal> {
    let groups = review.grouped(by);
    // Predictions are a station's and a board's; whether it went right is a method's and a connector's.
    let predicts = matches!(by, GroupedBy::Station | GroupedBy::Board | GroupedBy::Probed);
    let of = |group: &OutcomeGroup| {
        (group_name(&group.name, by), if predicts { group.inside } else { group.first_time_right })
    };
    let shares: Vec<(String, Share)> = groups.iter().map(of).collect();
    let (what, wanted) = if predicts { ("Inside the band", Some(0.8)) } else { ("Right at the first go", None) };
    let picture = drawn(&Intervals::new(what, &shares, wanted))?;
    Ok(TableView { title, key, groups: groups.iter().map(|group| group_view(group, by)).collect(), picture })
}

/// People's groups: everybody's for the owner, else one's own.
fn people(review: &Review) -> Vec<GroupView> {
    let visit = Visit::current();
    let all = visit.may(Permission::Shop);
    let mine = visit.person().map(|person| person.name.clone());
    let groups = review.grouped(GroupedBy::Person).iter();
    groups
        .filter(|group| all || mine.as_ref() == Some(&group.name))
        .map(|group| group_view(group, GroupedBy::Person))
        .collect()
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor) -> Result<ReviewPage, Refusal> {
    let outcomes = outcomes(&app).await?;
    let review = Review::new(&outcomes);
    let promised =
        review.reliability.iter().map(|class| (format!("plans said {:.0} %", 100.0 * class.stated), class.came));
    let promised: Vec<(String, Share)> = promised.collect();
    let all_s: f64 = review.stages.iter().map(|stage| stage.seconds).sum();
    let stage = |stage: &mend_core::shop::review::StageSummary| StopTimeView {
        name: stop_name(&stage.stop),
        share: format!("{:.0} %", 100.0 * stage.seconds / all_s.max(1.0)),
        factor: format!("{:.1}×", stage.factor),
        n: stage.n,
    };
    let grouped = [
        ("Predictions by station", "stations", GroupedBy::Station),
        ("Predictions by board", "boards", GroupedBy::Board),
        ("Predictions before and after a probe", "probed", GroupedBy::Probed),
        ("Outcomes by method", "methods", GroupedBy::Method),
        ("Outcomes by connector", "connectors", GroupedBy::Connector),
    ];
    let tables =
        grouped.into_iter().map(|(title, key, by)| table(&review, title, key, by)).collect::<Result<Vec<_>, _>>()?;
    Ok(ReviewPage {
        frame: Frame::new("Review", visitor.scale, "review", "/review".to_owned()),
        jobs: outcomes.len(),
        changes: changes(&outcomes, &review).iter().map(change).collect(),
        reliability: if promised.is_empty() {
            String::new()
        } else {
            drawn(&Intervals::new("Came through without damage", &promised, None))?
        },
        stages: review.stages.iter().map(stage).collect(),
        waits: review.waits.iter().map(wait_view).collect(),
        people: people(&review),
        all: group_view(&review.all, GroupedBy::Person),
        damage: review.damage,
        overrides: share(&review.overrides),
        tables: tables.into_iter().filter(|table| !table.groups.is_empty()).collect(),
    })
}
