//! The machine's clocks.

use std::sync::Arc;

use mend_web::Clocks;

/// The time of day, and a monotonic clock that goes on while the machine sleeps and across restarts of this program.
pub(crate) fn clocks() -> Clocks {
    let (name, ticks) = monotonic();
    Clocks { wall: Arc::new(jiff::ZonedDateTime::now), ticks, name }
}

type Ticks = Arc<dyn Fn() -> i64 + Send + Sync>;

/// Linux counts from the boot and names each boot, so two runs of this program on one boot share their clock.
#[cfg(target_os = "linux")]
fn monotonic() -> (String, Ticks) {
    use rustix::time::{ClockId, clock_gettime};
    let boot = std::fs::read_to_string("/proc/sys/kernel/random/boot_id").unwrap_or_default();
    let ticks = || {
        let now = clock_gettime(ClockId::Boottime);
        now.tv_sec * 1000 + now.tv_nsec / 1_000_000
    };
    (format!("boot {}", boot.trim()), Arc::new(ticks))
}

/// Elsewhere each run of this program has a clock of its own.
#[cfg(not(target_os = "linux"))]
fn monotonic() -> (String, Ticks) {
    let begun = std::time::Instant::now();
    let name = format!("run {} {}", std::process::id(), jiff::Timestamp::now().as_nanosecond());
    (name, Arc::new(move || i64::try_from(begun.elapsed().as_millis()).unwrap_or(i64::MAX)))
}
