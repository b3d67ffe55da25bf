//! Long computations: one of a kind at a time for each job, on blocking threads, watched and cancelled from the page. What was
//! computed stays here for whoever asks for the same again.

use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use mend_core::finding::Finding;
use mend_core::planning::plan::Unplanned;
use mend_core::watch::Watch;
use tokio::sync::watch::{Receiver, channel};

use crate::refusal::Refusal;

/// So many results of a kind are kept; the oldest goes first.
const KEPT: usize = 12;
/// A request waits this long before it answers with how far it is.
const PATIENCE: Duration = Duration::from_millis(350);

/// How a computation ended without a result.
#[derive(Debug, Clone)]
pub(crate) enum Failed {
    /// The inputs can't be computed on.
    Objections(Vec<Finding>),
    /// Somebody said so.
    Cancelled,
    /// Our fault.
    Broken(String),
}

impl From<Unplanned> for Failed {
    fn from(error: Unplanned) -> Self {
        match error {
            Unplanned::Objections(findings) => Self::Objections(findings),
            Unplanned::Cancelled(_) => Self::Cancelled,
        }
    }
}

type Ended<T> = Result<Arc<T>, Failed>;

/// Where a computation is.
#[derive(Debug)]
pub(crate) enum Stand<T> {
    /// Done, or failed.
    Ended(Ended<T>),
    /// Under way: share of it done, 0-1.
    Running(f64),
}

/// A part of a page that shows a computation.
#[derive(Debug)]
pub(crate) enum Part<R> {
    /// It is there, ready to lay out.
    Ready(R),
    /// Per cent done.
    Computing(u32),
    /// Somebody cancelled it.
    Cancelled,
}

impl<T> Stand<T> {
    /// The part of a page that shows it, laid out by `ready` once it is there.
    pub(crate) fn shown<R>(self, ready: impl FnOnce(Arc<T>) -> R) -> Result<Part<R>, Refusal> {
        match self {
            Self::Ended(Ok(result)) => Ok(Part::Ready(ready(result))),
            Self::Ended(Err(Failed::Cancelled)) => Ok(Part::Cancelled),
            Self::Ended(Err(Failed::Objections(findings))) => Err(Refusal::Bad(findings)),
            Self::Ended(Err(Failed::Broken(cause))) => Err(Refusal::Broken(cause)),
            Self::Running(share) => Ok(Part::Computing((share * 100.0) as u32)),
        }
    }
}

struct Task<T> {
    key: String,
    begun: u64,
    /// Did somebody cancel it? One that another took the place of is only begun again.
    called_off: bool,
    watch: Arc<Watch>,
    ended: Receiver<Option<Ended<T>>>,
}

impl<T> Task<T> {
    /// Ended because another took its place.
    fn is_displaced(&self) -> bool {
        !self.called_off && self.watch.is_cancelled()
    }
}

/// All computations of a kind, the newest of each job.
pub(crate) struct Tasks<T> {
    of_job: Mutex<(u64, HashMap<i64, Task<T>>)>,
}

impl<T> Default for Tasks<T> {
    fn default() -> Self {
        Self { of_job: Mutex::new((0, HashMap::new())) }
    }
}

impl<T: Send + Sync + 'static> Tasks<T> {
    /// The computation of this job with this key: the one under way or ended, else a new one in place of the old.
    /// Answers when it ends, or after a moment with how far it is.
    pub(crate) async fn of<W>(&self, (job, key): (i64, String), work: W) -> Stand<T>
    where
        W: FnOnce(&Watch) -> Result<T, Failed> + Send + 'static,
    {
        let (watch, mut ended) = self.begin((job, key.clone()), work);
        let end = tokio::time::timeout(PATIENCE, ended.wait_for(Option::is_some)).await;
        match end {
            // Another took its place while this request waited: whoever asks again is told of that one.
            Ok(Ok(end)) if matches!(*end, Some(Err(Failed::Cancelled))) && !self.is_called_off((job, &key)) => {
                Stand::Running(0.0)
            }
            Ok(Ok(end)) => end.clone().map_or(Stand::Running(1.0), Stand::Ended),
            Ok(Err(_)) => Stand::Ended(Err(Failed::Broken("a computation ended without a word".to_owned()))),
            Err(_) => Stand::Running(watch.share()),
        }
    }

    fn begin<W>(&self, (job, key): (i64, String), work: W) -> (Arc<Watch>, Receiver<Option<Ended<T>>>)
    where
        W: FnOnce(&Watch) -> Result<T, Failed> + Send + 'static,
    {
        let mut guard = self.of_job.lock().unwrap_or_else(PoisonError::into_inner);
        let (count, tasks) = &mut *guard;
        if let Some(task) = tasks.get(&job).filter(|task| task.key == key && !task.is_displaced()) {
            return (task.watch.clone(), task.ended.clone());
        }
        let (tell, ended) = channel(None);
        let watch = Arc::new(Watch::new());
        let watched = watch.clone();
        tokio::task::spawn_blocking(move || {
            let end = work(&watched).map(Arc::new);
            tell.send_replace(Some(end));
        });
        *count += 1;
        let task = Task { key, begun: *count, called_off: false, watch: watch.clone(), ended: ended.clone() };
        if let Some(old) = tasks.insert(job, task) {
            old.watch.cancel();
        }
        if tasks.len() > KEPT
            && let Some(oldest) = tasks.iter().min_by_key(|(_, task)| task.begun).map(|(job, _)| *job)
            && let Some(old) = tasks.remove(&oldest)
        {
            old.watch.cancel();
        }
        (watch, ended)
    }

    /// Ends what is under way for a job. It stays as cancelled until it is begun anew with [`Self::forget`].
    pub(crate) fn cancel(&self, job: i64) {
        let mut guard = self.of_job.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(task) = guard.1.get_mut(&job) {
            task.called_off = true;
            task.watch.cancel();
        }
    }

    fn is_called_off(&self, (job, key): (i64, &str)) -> bool {
        let guard = self.of_job.lock().unwrap_or_else(PoisonError::into_inner);
        guard.1.get(&job).is_some_and(|task| task.key == key && task.called_off)
    }

    /// Forgets a cancelled or failed computation of a job, so that the next to ask begins it anew.
    pub(crate) fn forget(&self, job: i64) {
        let mut guard = self.of_job.lock().unwrap_or_else(PoisonError::into_inner);
        let failed = guard.1.get(&job).is_some_and(|task| matches!(*task.ended.borrow(), Some(Err(_))));
        if failed {
            guard.1.remove(&job);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn spin(watch: &Watch) -> Result<u32, Failed> {
        while !watch.is_cancelled() {
            std::thread::yield_now();
        }
        Err(Failed::Cancelled)
    }

    #[tokio::test]
    async fn the_same_key_is_computed_once_and_another_takes_its_place() {
        let tasks: Tasks<u32> = Tasks::default();
        let first = tasks.of((1, "a".to_owned()), |_| Ok(5)).await;
        assert!(matches!(first, Stand::Ended(Ok(value)) if *value == 5));
        let again = tasks.of((1, "a".to_owned()), |_| Ok(6)).await;
        assert!(matches!(again, Stand::Ended(Ok(value)) if *value == 5), "kept");
        let other = tasks.of((1, "b".to_owned()), |_| Ok(6)).await;
        assert!(matches!(other, Stand::Ended(Ok(value)) if *value == 6));
    }

    #[tokio::test]
    async fn a_long_one_says_how_far_it_is_and_can_be_cancelled_and_begun_again() {
        let tasks: Tasks<u32> = Tasks::default();
        let long = tasks.of((1, "a".to_owned()), spin).await;
        assert!(matches!(long, Stand::Running(share) if share == 0.0));
        tasks.cancel(1);
        let ended = tasks.of((1, "a".to_owned()), |_| Ok(1)).await;
        assert!(matches!(ended, Stand::Ended(Err(Failed::Cancelled))));
        tasks.forget(1);
        assert!(matches!(tasks.of((1, "a".to_owned()), |_| Ok(1)).await, Stand::Ended(Ok(_))));
    }

    #[tokio::test]
    async fn who_waits_for_one_that_another_displaced_is_not_told_that_it_was_cancelled() {
        let tasks: Arc<Tasks<u32>> = Arc::default();
        let waiting = tokio::spawn({
            let tasks = tasks.clone();
            async move { tasks.of((1, "a".to_owned()), spin).await }
        });
        tokio::task::yield_now().await;
        tasks.of((1, "b".to_owned()), |_| Ok(2)).await;
        assert!(matches!(waiting.await.expect("ends"), Stand::Running(_)));
        assert!(matches!(tasks.of((1, "a".to_owned()), |_| Ok(3)).await, Stand::Ended(Ok(value)) if *value == 3));
    }

    #[tokio::test]
    async fn a_new_key_cancels_what_is_under_way() {
        let tasks: Tasks<u32> = Tasks::default();
        let (_, mut ended) = tasks.begin((1, "a".to_owned()), spin);
        tasks.of((1, "b".to_owned()), |_| Ok(2)).await;
        let end = ended.wait_for(Option::is_some).await.expect("ends");
        assert!(matches!(*end, Some(Err(Failed::Cancelled))));
    }
}
