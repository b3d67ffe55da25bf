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

#[cfg(test)]
mod tests {
    use mend_store::{AttemptEnd, NewPerson, Store};

    use super::*;

    #[tokio::test]
    async fn whoever_passes_the_first_four_twice_is_trained_and_nobody_loses_a_level() {
        let folder = tempfile::tempdir().expect("a folder");
        let store = Store::open(&folder.path().join("shop.db")).expect("a shop");
        let add = |name: &str, level: &str| NewPerson {
            name: name.to_owned(),
            role: "trainee".to_owned(),
            level: level.to_owned(),
        };
        let (tilda, tam) = (add("Tilda Roe", "learning"), add("Tam Birk", "practised"));
        let people = store.write(move |w| Ok([w.add_person(&tilda, 1)?, w.add_person(&tam, 1)?])).await.expect("added");
        for person in people.into_iter().flatten() {
            for (round, task) in (0..2).flat_map(|round| course().iter().take(4).map(move |task| (round, task.key))) {
                store
                    .write_as(Some(person), move |w| {
                        let id = w.begin_attempt(mend_store::NewAttempt { task, job: None, of: "{}", at_ms: 1 })?;
                        let end = AttemptEnd { ticks: 9, at_ms: 2 + round, passed: true, harms: "[]".to_owned() };
                        w.end_attempt(id, &end)?;
                        grant(w, id)
                    })
                    .await
                    .expect("kept");
            }
        }
        let levels = store.read(|r| r.people()).await.expect("people").into_iter().map(|row| row.level);
        assert_eq!(levels.collect::<Vec<_>>(), ["trained", "practised"]);
    }
}
