//! `urgent-mend plan FILE --compare` and `--search`: the families of methods on one bundle's board.

use std::path::Path;
use std::process::ExitCode;

use mend_core::finding::Finding;
use mend_core::method::MethodFamily;
use mend_core::method::reason::Obstacle;
use mend_core::planning::compare::{Comparison, Lane, compare as compared};
use mend_core::planning::difficulty::{Difficulty, difficulty};
use mend_core::planning::order::Unplanned;
use mend_core::planning::search::request::{Effort, SearchRequest};
use mend_core::planning::search::{SearchResult, search_all};
use mend_core::watch::Watch;
use mend_formats::comparison;
use mend_web::words::{Words, advice, damaged, go};

use crate::plan_command::{BAD_INPUT, objection, print, read};

/// Prints the comparison.
pub(crate) fn compare(file: &Path, json: bool) -> anyhow::Result<ExitCode> {
    answer(read(file).and_then(|bundle| {
        let subject = bundle.subject();
        let found = compared(&subject, bundle.ambient, &Watch::new()).map_err(Unplanned::objections)?;
        let reading = difficulty(&subject, found.best().into(), 0);
        Ok(if json { comparison::write(&found, &reading) } else { Ok(describe(&found, &reading)) })
    }))
}

/// Prints the best settings of every family.
pub(crate) fn search(file: &Path, json: bool) -> anyhow::Result<ExitCode> {
    answer(read(file).and_then(|bundle| {
        let (subject, watch) = (bundle.subject(), Watch::new());
        let sought =
            SearchRequest { subject: &subject, ambient: bundle.ambient, effort: Effort::Thorough, watch: &watch };
        let found = search_all(&sought).map_err(Unplanned::objections)?;
        let words = || found.iter().map(|(family, found)| line(*family, found)).collect::<Vec<_>>().join("\n");
        Ok(if json { comparison::write_searches(&found) } else { Ok(words()) })
    }))
}

pub(crate) fn answer(made: Result<Result<String, serde_json::Error>, Vec<Finding>>) -> anyhow::Result<ExitCode> {
    match made {
        Ok(text) => print(&text?),
        Err(findings) => {
            findings.iter().for_each(objection);
            return Ok(ExitCode::from(BAD_INPUT));
        }
    }
    Ok(ExitCode::SUCCESS)
}

fn line(family: MethodFamily, found: &Result<SearchResult, Vec<Obstacle>>) -> String {
    let words = Words::default();
    let name = words.method(family).name;
    match found {
        Err(why) => format!(
            "{name:<24} does not apply: {}",
            why.iter().map(|reason| words.obstacle(reason)).collect::<Vec<_>>().join("; ")
        ),
        Ok(found) => {
            let limit = found.limited_by().map_or(String::new(), |limit| words.search_limit(&limit));
            format!("{name:<24} {} candidates. {limit}", found.candidates)
        }
    }
}

fn describe(found: &Comparison, reading: &Difficulty) -> String {
    let words = Words::default();
    let mut lines = vec![words.recommendation(&found.reason), format!("{}: {}", go(reading.go), advice(reading))];
    lines.extend(reading.reasons.iter().map(|hardship| format!("  {}", words.hardship(hardship))));
    lines.extend(found.lanes.iter().map(lane));
    lines.extend(found.ruled_out.iter().map(|ruled| line(ruled.family, &Err(ruled.fit.against.clone()))));
    lines.join("\n")
}

fn lane(lane: &Lane) -> String {
    let tight =
        lane.tightest.as_ref().map_or("nothing".to_owned(), |t| format!("{:.0} K at {}", t.headroom_k, damaged(&t.of)));
    let name = Words::default().method(lane.choice.family).name;
    let release = lane.plan.release.mid_s.map_or("never".to_owned(), |t| format!("{t:.0} s"));
    let (minutes, chance) = (lane.total_s.mid / 60.0, lane.plan.chance * 100.0);
    format!("{name:<24} {minutes:>4.0} min, {chance:>3.0} %, away after {release:>6}, tightest {tight}")
}
