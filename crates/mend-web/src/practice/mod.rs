//! Attempts at the practice bench that somebody is at: a seat each, fifty of them. The state is stepped on the blocking pool; what
//! hands did is kept in the store, and a seat that is lost is made again from it.
//!
//! - [`seat`]: an attempt that goes on; [`frame`]: what its screen is sent; [`subject`]: what it is of; [`record`]: what somebody has passed

pub(crate) mod frame;
pub(crate) mod record;
pub(crate) mod seat;
pub(crate) mod subject;

use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};

use mend_core::practice::attempt::Attempt;
use mend_core::practice::hands::HandEvent;
use mend_formats::practice;
use mend_store::AttemptRow;

use self::seat::Seat;
use crate::App;
use crate::refusal::Refusal;

/// So many attempts go on at once.
pub(crate) const SEATS: usize = 50;

/// The seats.
#[derive(Default)]
pub(crate) struct PracticeBench {
    seats: Mutex<HashMap<i64, Arc<Seat>>>,
}

impl PracticeBench {
    /// The seat of an attempt, made again from what was kept where there is none; a refusal where every seat is taken.
    pub(crate) async fn seat(&self, app: &App, row: &AttemptRow) -> Result<Arc<Seat>, Refusal> {
        if let Some(seat) = self.taken(row.id) {
            return Ok(seat);
        }
        let attempt = replayed(app, row).await?;
        let id = row.id;
        let kept = app.reading(move |read| read.attempt_events(id)).await?;
        let last = kept.last().map_or(0, |event| event.seq);
        let mut seats = self.seats.lock().unwrap_or_else(PoisonError::into_inner);
        // Whoever has gone makes room; what they did is kept.
        if seats.len() >= SEATS {
            seats.retain(|_, seat| seat.is_watched());
        }
        if seats.len() >= SEATS && !seats.contains_key(&id) {
            return Err(Refusal::NotYet("The practice bench is full: fifty are at it. Try again in a few minutes"));
        }
        Ok(Arc::clone(seats.entry(id).or_insert_with(|| Arc::new(Seat::new(id, attempt, last)))))
    }

    fn taken(&self, id: i64) -> Option<Arc<Seat>> {
        self.seats.lock().unwrap_or_else(PoisonError::into_inner).get(&id).cloned()
    }

    /// The attempt is over.
    pub(crate) fn leave(&self, id: i64) {
        self.seats.lock().unwrap_or_else(PoisonError::into_inner).remove(&id);
    }
}

/// An attempt as it stands after all that was kept of it.
pub(crate) async fn replayed(app: &App, row: &AttemptRow) -> Result<Attempt, Refusal> {
    let scene = subject::scene(app, row).await?;
    let id = row.id;
    let kept = app.reading(move |read| read.attempt_events(id)).await?;
    let events: Vec<HandEvent> = kept.iter().filter_map(|event| practice::event(event.tick, &event.does)).collect();
    let until = if row.ended_ms.is_some() { row.ticks } else { events.last().map_or(0, |event| event.tick) };
    let attempt = tokio::task::spawn_blocking(move || Attempt::replayed(scene, &events, until)).await;
    let attempt = attempt.map_err(|error| Refusal::Broken(error.to_string()))?;
    attempt.ok_or(Refusal::NotYet("The metal of these joints can't be computed"))
}
