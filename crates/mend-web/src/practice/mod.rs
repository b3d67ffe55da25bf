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
use mend_core::practice::scene::PracticeScene;
use mend_formats::practice;
use mend_store::AttemptRow;

use self::seat::Seat;
use crate::App;
use crate::refusal::Refusal;

/// So many attempts go on at once.
pub(crate) const SEATS: usize = 50;
const FULL: Refusal = Refusal::NotYet("The practice bench is full: fifty are at it. Try again in a few minutes");

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
        self.expect_room(row.id)?;
        let (id, kept) = (row.id, KeptAttempt::load(app, row).await?);
        let last = kept.last;
        let attempt = on_the_pool(kept).await?;
        let mut seats = self.seats.lock().unwrap_or_else(PoisonError::into_inner);
        if !has_room(&mut seats, id) {
            return Err(FULL);
        }
        Ok(Arc::clone(seats.entry(id).or_insert_with(|| Arc::new(Seat::new(id, attempt, last)))))
    }

    /// A refusal where every seat is taken, and none of them by this attempt.
    pub(crate) fn expect_room(&self, id: i64) -> Result<(), Refusal> {
        let mut seats = self.seats.lock().unwrap_or_else(PoisonError::into_inner);
        if has_room(&mut seats, id) { Ok(()) } else { Err(FULL) }
    }

    fn taken(&self, id: i64) -> Option<Arc<Seat>> {
        self.seats.lock().unwrap_or_else(PoisonError::into_inner).get(&id).cloned()
    }

    /// The attempt is over.
    pub(crate) fn leave(&self, id: i64) {
        self.seats.lock().unwrap_or_else(PoisonError::into_inner).remove(&id);
    }
}

/// Is there a seat for an attempt? Whoever has gone makes room; what they did is kept.
fn has_room(seats: &mut HashMap<i64, Arc<Seat>>, id: i64) -> bool {
    if seats.len() >= SEATS {
        seats.retain(|_, seat| seat.is_watched());
    }
    seats.len() < SEATS || seats.contains_key(&id)
}

/// All that was kept of an attempt: it gives the attempt again.
pub(crate) struct KeptAttempt {
    scene: PracticeScene,
    events: Vec<HandEvent>,
    ticks: u32,
    /// The last move, as the browser counts.
    last: u32,
}

impl KeptAttempt {
    pub(crate) async fn load(app: &App, row: &AttemptRow) -> Result<Self, Refusal> {
        let scene = subject::scene(app, row).await?;
        let id = row.id;
        let kept = app.reading(move |read| read.attempt_events(id)).await?;
        let events: Vec<HandEvent> = kept.iter().filter_map(|event| practice::event(event.tick, &event.does)).collect();
        let ticks = events.last().map_or(0, |event| event.tick).max(row.ticks);
        let last = kept.last().map_or(0, |event| event.seq);
        Ok(Self { scene, events, ticks, last })
    }

    /// The attempt as it stood. On the blocking pool: it computes. None where the metal of its joints can't be computed.
    pub(crate) fn replayed(self) -> Option<Attempt> {
        Attempt::replayed(self.scene, &self.events, self.ticks)
    }
}

/// An attempt as it stands after all that was kept of it.
pub(crate) async fn replayed(app: &App, row: &AttemptRow) -> Result<Attempt, Refusal> {
    on_the_pool(KeptAttempt::load(app, row).await?).await
}

async fn on_the_pool(kept: KeptAttempt) -> Result<Attempt, Refusal> {
    let attempt = tokio::task::spawn_blocking(move || kept.replayed()).await;
    let attempt = attempt.map_err(|error| Refusal::Broken(error.to_string()))?;
    attempt.ok_or(Refusal::NotYet("The metal of these joints can't be computed"))
}

#[cfg(test)]
mod tests {
    use mend_core::practice::course::course;
    use mend_core::practice::hands::HandMove;
    use mend_formats::practice::SentMove;

    use super::*;

    fn seat(id: i64) -> Arc<Seat> {
        let scene = course()[0].scene(1).expect("of the library");
        Arc::new(Seat::new(id, Attempt::begin(scene).expect("its alloy is known"), 0))
    }

    #[test]
    fn the_bench_is_full_with_fifty_who_are_there_and_whoever_goes_makes_room() {
        let seats: Vec<Arc<Seat>> = (1..=50).map(seat).collect();
        let mut taken: HashMap<i64, Arc<Seat>> = (1..=50).zip(seats.iter().cloned()).collect();
        let mut watchers: Vec<_> = seats.into_iter().map(Seat::watch).collect();
        assert!(!has_room(&mut taken, 51) && has_room(&mut taken, 7), "who has a seat comes back to it");
        watchers.pop();
        assert!(has_room(&mut taken, 51) && taken.len() == 49);
    }

    #[test]
    fn a_move_that_is_sent_twice_is_done_once_and_the_clock_waits_for_the_first() {
        let seat = seat(1);
        assert_eq!((seat.step().tick, seat.step().tick), (0, 0));
        let sent = |seq, mm| SentMove { seq, does: HandMove::Distance { mm } };
        seat.takes(sent(1, 20.0)).expect("taken");
        seat.takes(sent(1, 40.0)).expect("taken already");
        let seat::HeldNow { hands, taken, .. } = seat.held();
        assert_eq!((hands.distance_mm, taken, seat.step().tick), (20.0, 1, 1));
        assert!(seat.has_unkept());
    }

    #[test]
    fn whoever_comes_last_has_the_seat() {
        let first = seat(1).watch();
        assert!(first.has_it());
        let second = Arc::clone(&first.seat).watch();
        assert!(!first.has_it() && second.has_it());
    }
}
