//! The threads that compute: one for each core, each with a pool of its own, so that two computations never wait for each
//! other's pieces. They are nicer than the threads that answer requests: a press is kept at once whatever is computed.

use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::{Arc, Weak};
use std::time::Duration;

use super::Failed;
use super::service::Shared;

/// How often it is looked whether anybody still asks.
const LOOK: Duration = Duration::from_secs(1);

/// How many computations run at a time.
pub(super) fn count() -> usize {
    std::thread::available_parallelism().map_or(2, usize::from)
}

/// Starts the workers of a service. They end when it closes.
pub(super) fn start(shared: &Arc<Shared>) {
    for k in 0..count() {
        let shared = shared.clone();
        let begun = std::thread::Builder::new().name(format!("compute-{k}")).spawn(move || work(&shared));
        if let Err(error) = begun {
            tracing::error!(%error, "a worker can't be started");
        }
    }
    let weak = Arc::downgrade(shared);
    let begun = std::thread::Builder::new().name("compute-sweep".to_owned()).spawn(move || sweep(&weak));
    if let Err(error) = begun {
        tracing::error!(%error, "nothing looks after what nobody wants");
    }
}

fn work(shared: &Shared) {
    be_nice();
    let pool = rayon::ThreadPoolBuilder::new().num_threads(count()).start_handler(|_| be_nice()).build();
    while let Some((key, work, watch)) = shared.next() {
        let run = || match &pool {
            Ok(pool) => pool.install(|| work(&watch)),
            Err(_) => work(&watch),
        };
        // The work owns all that it touches: nothing half done is seen by others.
        let ended = catch_unwind(AssertUnwindSafe(run));
        let ended = ended.unwrap_or_else(|_| Err(Failed::Broken("a computation panicked".to_owned())));
        shared.end(&key, ended, &watch);
    }
}

fn sweep(shared: &Weak<Shared>) {
    while shared.upgrade().is_some_and(|shared| shared.sweep()) {
        std::thread::sleep(LOOK);
    }
}

/// On Linux each thread has a niceness of its own; elsewhere it is the whole process's and stays.
fn be_nice() {
    #[cfg(target_os = "linux")]
    if let Err(error) = rustix::process::nice(10) {
        tracing::warn!(%error, "a worker is no nicer than the rest");
    }
}
