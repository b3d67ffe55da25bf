//! An attempt that somebody is at.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use mend_core::heat::shield::Shield;
use mend_core::practice::attempt::Attempt;
use mend_core::practice::cues::Cues;
use mend_core::practice::hands::Hands;
use mend_formats::practice::{self, SentMove};
use mend_store::{AttemptEnd, AttemptEventRow};

use super::frame::CuesAt;
use super::record::grant;
use crate::App;
use crate::refusal::Refusal;

/// More moves than this in half a second are no hand's: the connection ends, and what is kept stays.
const MOST_UNKEPT: usize = 600;

/// A seat: the attempt, and what of it is not in the store yet.
pub(crate) struct Seat {
    id: i64,
    state: Mutex<SeatState>,
    /// How often somebody has come to it: the last one has it.
    turn: AtomicUsize,
    /// How many look at it.
    watched: AtomicUsize,
}

struct SeatState {
    attempt: Attempt,
    /// The last move that was taken, and the last that is kept.
    taken: u32,
    kept: u32,
    unkept: Vec<AttemptEventRow>,
    /// Somebody has done something: time runs.
    begun: bool,
}

/// Somebody looks at a seat, until it is dropped.
pub(crate) struct Watcher {
    pub(crate) seat: Arc<Seat>,
    turn: usize,
}

impl Drop for Watcher {
    fn drop(&mut self) {
        self.seat.watched.fetch_sub(1, Ordering::Relaxed);
    }
}

impl Watcher {
    /// Has nobody come after?
    pub(crate) fn has_it(&self) -> bool {
        self.seat.turn.load(Ordering::Relaxed) == self.turn
    }
}

/// What hands hold, what is laid on, and the last move that was taken.
pub(crate) struct HeldNow {
    pub(crate) hands: Hands,
    pub(crate) shields: Vec<Shield>,
    pub(crate) taken: u32,
}

impl Seat {
    pub(super) fn new(id: i64, attempt: Attempt, last: u32) -> Self {
        let begun = attempt.ticks() > 0;
        let state = SeatState { attempt, taken: last, kept: last, unkept: Vec::new(), begun };
        Self { id, state: Mutex::new(state), turn: AtomicUsize::new(0), watched: AtomicUsize::new(0) }
    }

    fn state(&self) -> MutexGuard<'_, SeatState> {
        self.state.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Somebody comes to it; whoever was there before goes.
    pub(crate) fn watch(self: Arc<Self>) -> Watcher {
        self.watched.fetch_add(1, Ordering::Relaxed);
        let turn = self.turn.fetch_add(1, Ordering::Relaxed) + 1;
        Watcher { seat: self, turn }
    }

    /// Does anybody look at it?
    pub(super) fn is_watched(&self) -> bool {
        self.watched.load(Ordering::Relaxed) > 0
    }

    /// As it is: a screen that comes back begins with it.
    pub(crate) fn held(&self) -> HeldNow {
        let state = self.state();
        HeldNow { hands: state.attempt.hands, shields: state.attempt.scene.shields.clone(), taken: state.taken }
    }

    /// Something was done. What was taken already is not done twice.
    pub(crate) fn takes(&self, sent: SentMove) -> Result<(), Refusal> {
        let mut state = self.state();
        if sent.seq <= state.taken || state.attempt.finished {
            return Ok(());
        }
        if state.unkept.len() >= MOST_UNKEPT {
            return Err(Refusal::Busy);
        }
        let does = practice::write_move(&sent.does)?;
        let tick = state.attempt.ticks();
        state.unkept.push(AttemptEventRow { seq: sent.seq, tick, does });
        state.attempt.does(sent.does);
        state.taken = sent.seq;
        state.begun |= !sent.does.is_before();
        Ok(())
    }

    /// A step on. On the blocking pool: it computes.
    pub(crate) fn step(&self) -> CuesAt {
        let mut state = self.state();
        if state.begun {
            state.attempt.tick();
        }
        let (tick, kept) = (state.attempt.ticks(), state.kept);
        let laid = state.attempt.scene.shields.clone();
        CuesAt { tick, kept, cues: Cues::of(&state.attempt).bytes(), laid }
    }

    /// Puts what hands did into the store, and the end where it has come. Answers whether it has.
    pub(crate) async fn keep(&self, app: &App) -> Result<bool, Refusal> {
        let (events, ticks, end) = {
            let mut state = self.state();
            let end = ended(&state.attempt, app.now_ms())?;
            (std::mem::take(&mut state.unkept), state.attempt.ticks(), end)
        };
        let (id, last, over) = (self.id, events.last().map(|event| event.seq), end.is_some());
        let kept = events.clone();
        let written = app
            .writing(move |write| {
                write.add_attempt_events(id, &kept)?;
                write.set_attempt_ticks(id, ticks)?;
                end.map_or(Ok(()), |end| {
                    write.end_attempt(id, &end)?;
                    grant(write, id)
                })
            })
            .await;
        let mut state = self.state();
        if let Err(refusal) = written {
            // It is tried again with what comes next.
            state.unkept.splice(0..0, events);
            return Err(refusal);
        }
        state.kept = last.unwrap_or(state.kept);
        Ok(over)
    }

    /// Is there anything to keep?
    pub(crate) fn has_unkept(&self) -> bool {
        let state = self.state();
        !state.unkept.is_empty() || state.attempt.finished
    }
}

fn ended(attempt: &Attempt, at_ms: i64) -> Result<Option<AttemptEnd>, Refusal> {
    if !attempt.finished {
        return Ok(None);
    }
    let harms = practice::write_harms(&attempt.harms)?;
    Ok(Some(AttemptEnd { ticks: attempt.ticks(), at_ms, passed: attempt.passed(), harms }))
}
