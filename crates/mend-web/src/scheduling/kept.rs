//! The schedule as everything stands now, kept until something changes.

use std::sync::{Arc, Mutex, PoisonError};

use super::hours::Hours;
use super::making::{SharedTools, Stored, make};
use super::plan::BenchPlan;
use crate::App;
use crate::refusal::Refusal;

/// A schedule is as old as this at most, min.
const RENEWED: i64 = 5;

/// The last that was made, with what it was made from.
#[derive(Debug, Default)]
pub(crate) struct KeptBenchPlan(Mutex<Option<(String, Arc<BenchPlan>)>>);

impl Stored {
    /// What the schedule is made from: while it is the same, the schedule is.
    fn key(&self, hours: &str) -> String {
        let jobs: Vec<&str> = self.jobs.iter().map(|job| job.summary.as_str()).collect();
        let people: Vec<String> = self
            .people
            .iter()
            .map(|p| format!("{} {} {} {} {:?}", p.id, p.name, p.level, p.hours, p.left_ms))
            .collect();
        format!("{hours} {} {people:?} {:?} {}", jobs.join("\n"), self.pins, self.times.len())
    }
}

/// The schedule as everything stands now.
pub(crate) async fn bench_plan(app: &App) -> Result<Arc<BenchPlan>, Refusal> {
    let stored = app.reading(|read| {
        let (jobs, people) = (read.open_jobs()?, read.people()?);
        Ok(Stored { jobs, people, pins: read.task_pins()?, times: read.past_times()? })
    });
    let (stored, shop, now) = (stored.await?, crate::pages::settings::load(app).await?, app.now());
    let equipment = crate::planner::equipment(app).await?;
    let shared = SharedTools { bath: equipment.bath, microscope: equipment.shared_microscope };
    let turn = now.timestamp().as_second() / (60 * RENEWED);
    let key = stored.key(&format!("{turn} {:?} {:?} {shared:?}", shop.hours, shop.days));
    let kept = &app.bench_plan.0;
    if let Some((known, plan)) = &*kept.lock().unwrap_or_else(PoisonError::into_inner)
        && *known == key
    {
        return Ok(plan.clone());
    }
    let made = tokio::task::spawn_blocking(move || make(stored, Hours::new(&shop, now), shared)).await;
    let made = Arc::new(made.map_err(|error| Refusal::Broken(error.to_string()))?);
    *kept.lock().unwrap_or_else(PoisonError::into_inner) = Some((key, made.clone()));
    Ok(made)
}
