//! What became of the jobs on each board: how what was predicted and what was stamped at the bench agreed. Read off columns that
//! each job keeps up to date, however many there are.

use mend_store::{ModelRow, ReleaseRow};

use crate::draw::agreement::{Agreement, Release};

/// The jobs of a model in a line.
pub(super) fn summary(model: &ModelRow) -> String {
    let jobs = match model.jobs {
        0 => return "no job yet".to_owned(),
        1 => "1 job".to_owned(),
        jobs => format!("{jobs} jobs"),
    };
    match model.released {
        0 => jobs,
        released => format!("{jobs}; {} of {released} released within the band", model.within),
    }
}

/// Its newest releases as a picture, where anything came away.
pub(super) fn picture(releases: &[ReleaseRow]) -> Option<Agreement> {
    let releases: Vec<Release> = releases.iter().map(release).collect();
    Agreement::from_releases(&releases)
}

fn release(row: &ReleaseRow) -> Release {
    let [low, mid, high] = row.predicted;
    let predicted = low.zip(mid).map(|(low, mid)| (low, mid, high));
    Release { name: row.device.clone(), job: row.job_id, predicted, actual_s: row.actual_s }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_became_of_the_jobs_is_said_in_one_line() {
        let summary = |jobs, released, within| {
            summary(&ModelRow { id: 1, name: String::new(), board_id: 1, version: 1, jobs, released, within })
        };
        assert_eq!(summary(0, 0, 0), "no job yet");
        assert_eq!(summary(1, 0, 0), "1 job");
        assert_eq!(summary(3, 2, 1), "3 jobs; 1 of 2 released within the band");
    }
}
