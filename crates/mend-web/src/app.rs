//! What every page may use.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

use jiff::ZonedDateTime;
use mend_core::units::Scale;
use mend_store::{Moment, Read, Store, StoreError, Write};

use crate::computing::Computing;
use crate::instruments::Instruments;
use crate::job::Job;
use crate::meter::Meters;
use crate::people::{SignIn, Visit};
use crate::pictures::Pictures;
use crate::practice::PracticeBench;
use crate::refusal::Refusal;
use crate::renewals::Renewals;
use crate::scheduling::KeptBenchPlan;

/// The clocks of the machine, handed in, so that a test can set them.
#[derive(Clone)]
pub struct Clocks {
    /// The time of day in the place's zone: for printing and for dates.
    pub wall: Arc<dyn Fn() -> ZonedDateTime + Send + Sync>,
    /// Milliseconds on a clock that nobody sets: for everything that is measured.
    pub ticks: Arc<dyn Fn() -> i64 + Send + Sync>,
    /// Which such clock: it begins anew when the machine does.
    pub name: String,
}

impl std::fmt::Debug for Clocks {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Clocks").field("name", &self.name).finish_non_exhaustive()
    }
}

/// The application's state. Cheap to clone.
#[derive(Clone)]
pub struct App {
    store: Store,
    clocks: Clocks,
    /// Long computations.
    pub(crate) computing: Arc<Computing>,
    /// Pictures of boards.
    pub(crate) pictures: Arc<Pictures>,
    /// Ensembles of twins, drawn anew.
    pub(crate) renewals: Arc<Renewals>,
    /// Thermometers that are being read.
    pub(crate) instruments: Arc<Instruments>,
    /// Meters that are being listened to.
    pub(crate) meters: Arc<Meters>,
    /// The schedule, until something changes.
    pub(crate) bench_plan: Arc<KeptBenchPlan>,
    /// Attempts that somebody is at.
    pub(crate) practice: Arc<PracticeBench>,
    /// How people sign in.
    pub(crate) sign_in: Arc<SignIn>,
    /// Jobs from files whose plans are still being computed.
    preparing: Arc<AtomicUsize>,
    /// Are temperatures read in °F where a visitor has chosen nothing?
    fahrenheit: Arc<AtomicBool>,
}

impl std::fmt::Debug for App {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("App").field("store", &self.store).finish_non_exhaustive()
    }
}

impl App {
    /// An application on a store, with the machine's clocks.
    pub fn new(store: Store, clocks: Clocks) -> Self {
        let (computing, pictures) = (Arc::new(Computing::new()), Arc::default());
        let (instruments, preparing, fahrenheit) = (Arc::default(), Arc::default(), Arc::default());
        let (renewals, meters, sign_in) = (Arc::default(), Arc::default(), Arc::default());
        let (bench_plan, practice) = (Arc::default(), Arc::default());
        Self {
            store,
            clocks,
            computing,
            pictures,
            renewals,
            instruments,
            meters,
            bench_plan,
            practice,
            sign_in,
            preparing,
            fahrenheit,
        }
    }

    /// Now, in the shop's own zone.
    pub(crate) fn now(&self) -> ZonedDateTime {
        (self.clocks.wall)()
    }

    /// A moment, ms since the epoch, in the shop's own zone.
    pub(crate) fn moment_of(&self, ms: i64) -> ZonedDateTime {
        jiff::Timestamp::from_millisecond(ms).unwrap_or_default().to_zoned_datetime(self.now().time_zone().clone())
    }

    /// Now, ms since the epoch.
    pub(crate) fn now_ms(&self) -> i64 {
        self.now().timestamp().as_millisecond()
    }

    /// The clocks.
    pub(crate) fn clocks(&self) -> &Clocks {
        &self.clocks
    }

    /// Now, ms on a clock that nobody sets.
    pub(crate) fn tick_ms(&self) -> i64 {
        (self.clocks.ticks)()
    }

    /// Now, by both clocks.
    pub(crate) fn moment(&self) -> Moment {
        Moment { wall_ms: self.now_ms(), clock: self.clocks.name.clone(), tick_ms: self.tick_ms() }
    }

    /// Reads from the store.
    pub(crate) async fn reading<T, F>(&self, work: F) -> Result<T, Refusal>
    where
        T: Send + 'static,
        F: FnOnce(Read<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        Ok(self.store.read(work).await?)
    }

    /// Writes to the store: all of it, or nothing. Whoever asks for it, their name stands on it.
    pub(crate) async fn writing<T, F>(&self, work: F) -> Result<T, Refusal>
    where
        T: Send + 'static,
        F: FnOnce(&Write<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        let person = Visit::current().person().map(|person| person.id);
        Ok(self.store.write_as(person, work).await?)
    }

    /// The same by somebody's hand, by their number: what is put down of the past.
    pub(crate) async fn writing_as<T, F>(&self, person: Option<i64>, work: F) -> Result<T, Refusal>
    where
        T: Send + 'static,
        F: FnOnce(&Write<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        Ok(self.store.write_as(person, work).await?)
    }

    /// Changes a job, and what lists show of it, in one transaction.
    pub(crate) async fn changing<T, F>(&self, job: i64, work: F) -> Result<T, Refusal>
    where
        T: Send + 'static,
        F: FnOnce(&Write<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        self.writing(move |write| {
            let answer = work(write)?;
            Job::list(write, job)?;
            Ok(answer)
        })
        .await
    }

    /// The scale of whoever has chosen none.
    pub(crate) fn usual_scale(&self) -> Scale {
        if self.fahrenheit.load(Ordering::Relaxed) { Scale::Fahrenheit } else { Scale::Celsius }
    }

    /// The shop has set its scale.
    pub(crate) fn set_usual_scale(&self, scale: Scale) {
        self.fahrenheit.store(scale == Scale::Fahrenheit, Ordering::Relaxed);
    }

    /// So many jobs from files wait for their plans.
    pub(crate) fn set_preparing(&self, jobs: usize) {
        self.preparing.store(jobs, Ordering::Relaxed);
    }

    /// How many jobs from files still wait for their plans?
    pub(crate) fn preparing(&self) -> usize {
        self.preparing.load(Ordering::Relaxed)
    }

    /// From now on nobody gets in without signing in: the application is reached from other machines. `secure`: over TLS. In a
    /// shop that has nobody yet, answers the path of the link by which its owner comes in, once.
    pub async fn ask_for_names(&self, secure: bool) -> Option<String> {
        self.sign_in.require(secure);
        match crate::pages::people::first_owner_link(self).await {
            Ok(link) => link,
            Err(error) => {
                tracing::error!(?error, "no link for the owner");
                None
            }
        }
    }

    /// Reads what every page needs of the shop's own settings.
    pub async fn start(&self) {
        if let Ok(shop) = crate::pages::settings::load(self).await {
            self.set_usual_scale(shop.scale);
        }
        if self.reading(|read| read.people()).await.is_ok_and(|all| all.iter().any(|row| !row.passphrase.is_empty())) {
            self.sign_in.set_staffed();
        }
    }

    /// Computes the lessons of jobs that were given back and wait for theirs.
    pub fn learn_what_waits(&self) {
        crate::learning::learn_all(self);
    }

    /// Puts jobs of an older version into the lists, a few at a time.
    pub async fn list_missing_jobs(&self) {
        const AT_A_TIME: u32 = 20;
        loop {
            let listed = self
                .writing(|write| {
                    let missing = write.read().unlisted_jobs(AT_A_TIME)?;
                    missing.iter().try_for_each(|id| Job::list(write, *id))?;
                    Ok(missing.len())
                })
                .await;
            match listed {
                Ok(0) => return,
                Ok(_) => {}
                Err(error) => {
                    tracing::error!(?error, "jobs of an older version are in no list");
                    return;
                }
            }
        }
    }

    /// Reviews jobs that were closed before there was a review, or came from a file, a few at a time.
    pub async fn review_missing_jobs(&self) {
        const AT_A_TIME: u32 = 20;
        loop {
            let reviewed = self.writing(|write| {
                let missing = write.read().unreviewed_jobs(AT_A_TIME)?;
                for id in &missing {
                    if let Some(job) = Job::read(write.read(), *id)? {
                        job.keep_outcome(write, job.row.handed_over_ms.unwrap_or_default())?;
                    }
                }
                Ok(missing.len())
            });
            match reviewed.await {
                Ok(0) => return,
                Ok(_) => {}
                Err(error) => return tracing::error!(?error, "jobs of an older version are in no review"),
            }
        }
    }

    /// Forgets customers whose last job is longer ago than the shop keeps them; answers how many.
    pub async fn forget_old_customers(&self) -> usize {
        match crate::pages::customers::forget_old(self).await {
            Ok(forgotten) => forgotten,
            Err(error) => {
                tracing::error!(?error, "old customers are not forgotten");
                0
            }
        }
    }

    /// Calls off everything that is being computed: the application goes down.
    pub fn close(&self) {
        self.computing.close();
    }

    /// Reads all of the database's pages once and logs what is wrong with them.
    pub async fn quick_check(&self) -> Vec<String> {
        match self.store.read(|read| read.quick_check()).await {
            Ok(message) => message,
            Err(error) => vec![error.to_string()],
        }
    }
}
