//! Somebody's record in the course, and the level that it gives them.

use mend_core::method::equipment::SkillLevel;
use mend_core::practice::course::{course, level};
use mend_store::{AttemptRow, StoreError, Write};

use crate::pages::word;

/// Attempts at a task.
pub(crate) fn count(attempts: &[AttemptRow], task: &str, which: impl Fn(&AttemptRow) -> bool) -> u32 {
    let of = attempts.iter().filter(|attempt| attempt.task == task && which(attempt)).count();
    u32::try_from(of).unwrap_or(u32::MAX)
}

/// How often each task was passed.
pub(crate) fn passed(attempts: &[AttemptRow]) -> Vec<u32> {
    course().iter().map(|task| count(attempts, task.key, |attempt| attempt.passed)).collect()
}

/// Whoever is learning and has passed what makes somebody trained is trained: methods ask for it, and the schedule heeds it. For the
/// transaction that ends an attempt.
pub(super) fn grant(write: &Write<'_>, attempt: i64) -> Result<(), StoreError> {
    let person = write.read().attempt(attempt)?.and_then(|row| row.person);
    let Some(mut row) = person.map(|id| write.read().person(id)).transpose()?.flatten() else { return Ok(()) };
    let gained = level(&passed(&write.read().attempts_of(person)?));
    if let Some(gained) = gained.filter(|_| row.level == word(&SkillLevel::Learning)) {
        row.level = word(&gained);
        write.change_person(&row)?;
    }
    Ok(())
}
