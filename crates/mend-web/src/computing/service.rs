//! The queue: who asks, who waits, what is cancelled, what is kept.

use std::any::Any;
use std::collections::{BTreeSet, HashMap, VecDeque};
use std::sync::{Arc, Condvar, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

use mend_core::watch::Watch;
use moka::sync::Cache;
use tokio::sync::watch::{Receiver, Sender, channel};

use super::key::{Bare, Key, Viewer};
use super::{Failed, Result_, Stand, worker};

/// A request waits this long before it answers with how far it is.
const PATIENCE: Duration = Duration::from_millis(350);
/// What nobody has asked for in so long is cancelled.
const INTEREST: Duration = Duration::from_secs(10);
/// A failure is told to whoever asks within so long; then it is forgotten.
const REMEMBERED: Duration = Duration::from_secs(300);
/// Computations that may wait: more are refused in words.
const LONGEST_QUEUE: usize = 200;
/// Results are kept up to this many bytes, the least used go first.
const KEPT_BYTES: u64 = 64 * 1024 * 1024;

type AnyResult = Arc<dyn Any + Send + Sync>;
pub(super) type Ended = Result<AnyResult, Failed>;
pub(super) type Computation = Box<dyn FnOnce(&Watch) -> Ended + Send>;

/// A result in the cache.
#[derive(Clone)]
struct StoredResult {
    result: AnyResult,
    bytes: usize,
}

/// A computation that waits, runs or has failed.
struct Queued {
    work: Option<Computation>,
    watch: Arc<Watch>,
    ended: Sender<Option<Ended>>,
    asked: Instant,
    /// Places that show it.
    places: BTreeSet<Viewer>,
    /// Somebody pressed "cancel": it stays so until it is begun again.
    called_off: bool,
    bytes_of: fn(&AnyResult) -> usize,
}

#[derive(Default)]
pub(super) struct Queue {
    waiting: VecDeque<Bare>,
    tasks: HashMap<Bare, Queued>,
    /// What a place shows of a kind.
    shown: HashMap<(Viewer, &'static str), Bare>,
    closing: bool,
}

pub(super) struct Shared {
    queue: Mutex<Queue>,
    wake: Condvar,
    results: Cache<Bare, StoredResult>,
}

/// The service. Its workers end when it is dropped or closed.
pub(crate) struct Computing {
    shared: Arc<Shared>,
}

impl Computing {
    /// A service with a worker for each core.
    pub(crate) fn new() -> Self {
        let weigh = |_: &Bare, kept: &StoredResult| u32::try_from(kept.bytes).unwrap_or(u32::MAX);
        let results = Cache::builder().weigher(weigh).max_capacity(KEPT_BYTES).build();
        let shared = Arc::new(Shared { queue: Mutex::default(), wake: Condvar::new(), results });
        worker::start(&shared);
        Self { shared }
    }

    /// The computation with this key: its result, or the one under way, else a new one. Answers when it ends, or after a
    /// moment with how far it is.
    pub(crate) async fn compute<T: Result_>(
        &self,
        place: Viewer,
        key: &Key<T>,
        work: impl FnOnce(&Watch) -> Result<T, Failed> + Send + 'static,
    ) -> Stand<T> {
        if let Some(kept) = self.shared.results.get(&key.bare) {
            self.shared.lock().turn(place, &key.bare);
            return typed(Ok(kept.result));
        }
        let work: Computation = Box::new(move |watch| Ok(Arc::new(work(watch)?)));
        let begun = self.shared.begin(place, &key.bare, WantedWork { work, bytes_of: bytes_of::<T> });
        let (watch, mut ended) = match begun {
            Ok(begun) => begun,
            Err(failed) => return Stand::Ended(Err(failed)),
        };
        let end = tokio::time::timeout(PATIENCE, ended.wait_for(Option::is_some)).await;
        match end {
            // Whoever asked last may have turned away just when this request came: it is told to ask again.
            Ok(Ok(end)) if matches!(*end, Some(Err(Failed::Cancelled))) && !self.shared.is_called_off(&key.bare) => {
                Stand::Running(0.0)
            }
            Ok(Ok(end)) => end.clone().map_or(Stand::Running(1.0), typed),
            Ok(Err(_)) => Stand::Running(0.0),
            Err(_) => Stand::Running(watch.share()),
        }
    }

    /// The result, where it has been computed and is still kept; nothing is begun.
    pub(crate) fn known<T: Result_>(&self, key: &Key<T>) -> Option<Arc<T>> {
        match typed(Ok(self.shared.results.get(&key.bare)?.result)) {
            Stand::Ended(end) => end.ok(),
            Stand::Running(_) => None,
        }
    }

    /// The result of a computation, asked for again and again until it has ended.
    pub(crate) async fn whole<T: Result_>(
        &self,
        place: Viewer,
        key: &Key<T>,
        work: impl Fn(&Watch) -> Result<T, Failed> + Clone + Send + 'static,
    ) -> Result<Arc<T>, Failed> {
        loop {
            if let Stand::Ended(end) = self.compute(place, key, work.clone()).await {
                return end;
            }
        }
    }

    /// Ends what is under way for a key. It stays cancelled until it is begun anew with [`Self::forget`].
    pub(crate) fn cancel<T>(&self, key: &Key<T>) {
        let mut queue = self.shared.lock();
        if let Some(task) = queue.tasks.get_mut(&key.bare) {
            task.called_off = true;
            queue.drop_task(&key.bare);
        }
    }

    /// Forgets a cancelled or failed computation, so that the next to ask begins it anew.
    pub(crate) fn forget<T>(&self, key: &Key<T>) {
        let mut queue = self.shared.lock();
        let failed = queue.tasks.get(&key.bare).is_some_and(|task| matches!(*task.ended.borrow(), Some(Err(_))));
        if failed {
            queue.tasks.remove(&key.bare);
        }
    }

    /// Takes no more work and calls off what there is.
    pub(crate) fn close(&self) {
        self.shared.close();
    }
}

impl Drop for Computing {
    fn drop(&mut self) {
        self.shared.close();
    }
}

fn typed<T: Result_>(ended: Ended) -> Stand<T> {
    Stand::Ended(ended.and_then(|result| {
        result.downcast::<T>().map_err(|_| Failed::Broken("a key named a result of another type".to_owned()))
    }))
}

fn bytes_of<T: Result_>(result: &AnyResult) -> usize {
    result.downcast_ref::<T>().map_or(0, T::bytes)
}

impl Queue {
    /// Calls a task off: one that waits ends at once, one that runs when it next looks.
    fn drop_task(&mut self, key: &Bare) {
        let Some(task) = self.tasks.get_mut(key) else { return };
        task.watch.cancel();
        if task.work.take().is_some() {
            task.ended.send_replace(Some(Err(Failed::Cancelled)));
            self.waiting.retain(|waiting| waiting != key);
        }
    }

    /// A place shows this key now; what it showed before is called off where no other place shows it.
    fn turn(&mut self, place: Viewer, key: &Bare) {
        let before = self.shown.insert((place, key.kind()), key.clone());
        let Some(before) = before.filter(|before| before != key) else { return };
        if let Some(task) = self.tasks.get_mut(&before) {
            task.places.remove(&place);
            if task.places.is_empty() && task.ended.borrow().is_none() {
                self.drop_task(&before);
            }
        }
    }

    /// Calls off what nobody asks for, forgets what ended long ago.
    fn sweep(&mut self, now: Instant) {
        let since = |task: &Queued| now.saturating_duration_since(task.asked);
        let left: Vec<Bare> =
            self.tasks.iter().filter(|(_, task)| since(task) > INTEREST).map(|(key, _)| key.clone()).collect();
        left.iter().for_each(|key| self.drop_task(key));
        self.tasks.retain(|_, task| task.ended.borrow().is_none() || since(task) < REMEMBERED);
        let tasks = &self.tasks;
        self.shown.retain(|_, key| tasks.contains_key(key));
    }
}

/// A computation that somebody wants, and how large its result is.
struct WantedWork {
    work: Computation,
    bytes_of: fn(&AnyResult) -> usize,
}

impl Shared {
    pub(super) fn lock(&self) -> MutexGuard<'_, Queue> {
        self.queue.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn begin(
        &self,
        place: Viewer,
        key: &Bare,
        WantedWork { work, bytes_of }: WantedWork,
    ) -> Result<(Arc<Watch>, Receiver<Option<Ended>>), Failed> {
        let mut queue = self.lock();
        queue.turn(place, key);
        // What was called off because nobody wanted it is wanted again.
        queue.tasks.remove_if(key, |task| !task.called_off && task.watch.is_cancelled());
        if let Some(task) = queue.tasks.get_mut(key) {
            task.asked = Instant::now();
            task.places.insert(place);
            return Ok((task.watch.clone(), task.ended.subscribe()));
        }
        if queue.closing || queue.waiting.len() >= LONGEST_QUEUE {
            return Err(Failed::Busy);
        }
        let (tell, ended) = channel(None);
        let watch = Arc::new(Watch::new());
        let task = Queued {
            work: Some(work),
            watch: watch.clone(),
            ended: tell,
            asked: Instant::now(),
            places: BTreeSet::from([place]),
            called_off: false,
            bytes_of,
        };
        queue.tasks.insert(key.clone(), task);
        queue.waiting.push_back(key.clone());
        self.wake.notify_one();
        Ok((watch, ended))
    }

    fn is_called_off(&self, key: &Bare) -> bool {
        self.lock().tasks.get(key).is_some_and(|task| task.called_off)
    }

    /// The next piece of work, waited for; none when the service closes.
    pub(super) fn next(&self) -> Option<(Bare, Computation, Arc<Watch>)> {
        let mut queue = self.lock();
        loop {
            if queue.closing {
                return None;
            }
            while let Some(key) = queue.waiting.pop_front() {
                let taken = queue.tasks.get_mut(&key).and_then(|task| Some((task.work.take()?, task.watch.clone())));
                if let Some((work, watch)) = taken {
                    return Some((key, work, watch));
                }
            }
            queue = self.wake.wait(queue).unwrap_or_else(PoisonError::into_inner);
        }
    }

    /// Tells whoever waits, and keeps a result. `watch` says which run of the key it was: one that was begun anew meanwhile is
    /// not ended by the old one.
    pub(super) fn end(&self, key: &Bare, ended: Ended, watch: &Arc<Watch>) {
        let mut queue = self.lock();
        let Some(task) = queue.tasks.get(key).filter(|task| Arc::ptr_eq(&task.watch, watch)) else { return };
        if let Ok(result) = &ended {
            let bytes = (task.bytes_of)(result);
            self.results.insert(key.clone(), StoredResult { result: result.clone(), bytes });
        }
        let done = ended.is_ok();
        task.ended.send_replace(Some(ended));
        if done {
            queue.tasks.remove(key);
        }
    }

    /// Looks after what nobody wants any more. False when the service closes.
    pub(super) fn sweep(&self) -> bool {
        let mut queue = self.lock();
        queue.sweep(Instant::now());
        !queue.closing
    }

    fn close(&self) {
        let mut queue = self.lock();
        queue.closing = true;
        let all: Vec<Bare> = queue.tasks.keys().cloned().collect();
        all.iter().for_each(|key| queue.drop_task(key));
        self.wake.notify_all();
    }
}

/// Removes what a condition holds for.
trait RemoveIf {
    fn remove_if(&mut self, key: &Bare, condition: impl FnOnce(&Queued) -> bool);
}

impl RemoveIf for HashMap<Bare, Queued> {
    fn remove_if(&mut self, key: &Bare, condition: impl FnOnce(&Queued) -> bool) {
        if self.get(key).is_some_and(condition) {
            self.remove(key);
        }
    }
}

#[cfg(test)]
mod tests;
