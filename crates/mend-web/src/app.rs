//! What every page may use.

use std::sync::Arc;

use jiff::ZonedDateTime;
use mend_store::{Read, Store, Write};

use crate::planner::Computing;
use crate::refusal::Refusal;

/// Tells the time and the place's zone. Handed in, so that a test can stand still.
pub type Clock = Arc<dyn Fn() -> ZonedDateTime + Send + Sync>;

/// The application's state. Cheap to clone.
#[derive(Clone)]
pub struct App {
    store: Store,
    clock: Clock,
    /// What is being computed, and what was lately.
    pub(crate) computing: Arc<Computing>,
}

impl std::fmt::Debug for App {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("App").field("store", &self.store).finish_non_exhaustive()
    }
}

impl App {
    /// An application on a store, with a clock.
    pub fn new(store: Store, clock: Clock) -> Self {
        Self { store, clock, computing: Arc::default() }
    }

    /// Now, in the shop's own zone.
    pub(crate) fn now(&self) -> ZonedDateTime {
        (self.clock)()
    }

    /// Now, ms since the epoch.
    pub(crate) fn now_ms(&self) -> i64 {
        self.now().timestamp().as_millisecond()
    }

    /// Reads from the store.
    pub(crate) async fn reading<T, F>(&self, work: F) -> Result<T, Refusal>
    where
        T: Send + 'static,
        F: FnOnce(Read<'_>) -> Result<T, mend_store::StoreError> + Send + 'static,
    {
        Ok(self.store.read(work).await?)
    }

    /// Writes to the store: all of it, or nothing.
    pub(crate) async fn writing<T, F>(&self, work: F) -> Result<T, Refusal>
    where
        T: Send + 'static,
        F: FnOnce(&Write<'_>) -> Result<T, mend_store::StoreError> + Send + 'static,
    {
        Ok(self.store.write(work).await?)
    }
}
