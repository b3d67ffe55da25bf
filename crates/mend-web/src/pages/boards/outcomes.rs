//! What became of the jobs on each board: how what was predicted and what was stamped at the bench agreed.

use std::collections::BTreeMap;

use crate::App;
use crate::draw::agreement::{Agreement, Release};
use crate::job::Job;
use crate::refusal::Refusal;

/// The jobs of a board model.
#[derive(Default)]
pub(crate) struct Outcomes {
    /// Jobs on it, open ones too.
    pub(crate) jobs: usize,
    /// Those whose part came away at the bench, oldest first.
    pub(crate) releases: Vec<Release>,
}

impl Outcomes {
    /// In words.
    pub(crate) fn said(&self) -> String {
        let jobs = match self.jobs {
            0 => return "no job yet".to_owned(),
            1 => "1 job".to_owned(),
            jobs => format!("{jobs} jobs"),
        };
        let (done, within) = (self.releases.len(), self.releases.iter().filter(|r| r.is_within()).count());
        match done {
            0 => jobs,
            _ => format!("{jobs}; {within} of {done} came away within the band"),
        }
    }

    /// As a picture, where anything came away.
    pub(crate) fn picture(&self) -> Option<Agreement> {
        Agreement::of(&self.releases)
    }
}

/// By model.
pub(crate) async fn outcomes(app: &App) -> Result<BTreeMap<i64, Outcomes>, Refusal> {
    let jobs = Job::all(app).await?;
    let mut found: BTreeMap<i64, Outcomes> = BTreeMap::new();
    for job in jobs.iter().rev() {
        let Some(model) = job.model else { continue };
        let outcome = found.entry(model).or_default();
        outcome.jobs += 1;
        outcome.releases.extend(release(job));
    }
    Ok(found)
}

fn release(job: &Job) -> Option<Release> {
    let bench = job.bench.as_ref()?;
    let stamp = bench.state.release()?;
    let band = bench.planned.plan.release;
    let predicted = band.low_s.zip(band.mid_s).map(|(low, mid)| (low, mid, band.high_s));
    Some(Release { name: job.device().to_owned(), job: job.row.id, predicted, actual_s: stamp.seconds })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_became_of_the_jobs_is_said_in_one_line() {
        let release =
            |actual_s| Release { name: "x".to_owned(), job: 1, predicted: Some((20.0, 30.0, Some(40.0))), actual_s };
        let said = |jobs, releases: Vec<Release>| Outcomes { jobs, releases }.said();
        assert_eq!(said(0, vec![]), "no job yet");
        assert_eq!(said(1, vec![]), "1 job");
        assert_eq!(said(3, vec![release(25.0), release(90.0)]), "3 jobs; 1 of 2 came away within the band");
    }
}
