//! Tables `people`, `devices`, `sessions` and `invitations`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// Somebody who works here.
#[derive(Clone, Default, PartialEq, Eq)]
pub struct PersonRow {
    /// Their number.
    pub id: i64,
    /// Their name.
    pub name: String,
    /// `owner`, `technician`, `trainee` or `counter`.
    pub role: String,
    /// `learning`, `trained` or `practised`.
    pub level: String,
    /// When they work, JSON; empty: while the shop is open.
    pub hours: String,
    /// Their passphrase, hashed; empty: none yet.
    pub passphrase: String,
    /// Their PIN, hashed; empty: none.
    pub pin: String,
    /// When they left, ms since the epoch.
    pub left_ms: Option<i64>,
}

impl std::fmt::Debug for PersonRow {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("PersonRow").field("id", &self.id).field("name", &self.name).finish_non_exhaustive()
    }
}

/// Somebody to be added.
#[derive(Debug, Clone)]
pub struct NewPerson {
    /// Their name.
    pub name: String,
    /// Their role.
    pub role: String,
    /// Their level.
    pub level: String,
}

/// A session to be kept.
#[derive(Debug, Clone)]
pub struct NewSession {
    /// The hash of its token.
    pub hash: String,
    /// Whose it is.
    pub person: i64,
    /// At which browser, by the hash of its token.
    pub device: String,
    /// When it begins, ms since the epoch.
    pub begun_ms: i64,
    /// When it ends.
    pub ends_ms: i64,
}

/// Whom an invitation is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Invited {
    /// Whoever owns a shop that has nobody yet.
    FirstOwner,
    /// Somebody, by their number.
    Person(i64),
}

const COLUMNS: &str = "p.id, p.name, p.role, p.level, p.hours, p.passphrase, p.pin, p.left_ms";

fn of(row: &Row<'_>) -> rusqlite::Result<PersonRow> {
    Ok(PersonRow {
        id: row.get(0)?,
        name: row.get(1)?,
        role: row.get(2)?,
        level: row.get(3)?,
        hours: row.get(4)?,
        passphrase: row.get(5)?,
        pin: row.get(6)?,
        left_ms: row.get(7)?,
    })
}

impl Read<'_> {
    /// Everybody, also who has left, in the order of their coming.
    pub fn people(&self) -> Result<Vec<PersonRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("SELECT {COLUMNS} FROM people p ORDER BY p.id"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One of them.
    pub fn person(&self, id: i64) -> Result<Option<PersonRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("SELECT {COLUMNS} FROM people p WHERE p.id = ?1"))?;
        Ok(statement.query_row([id], of).optional()?)
    }

    /// One of them by name, in capitals or not, who has not left.
    pub fn person_named(&self, name: &str) -> Result<Option<PersonRow>, StoreError> {
        let sql = format!("SELECT {COLUMNS} FROM people p WHERE p.name = ?1 AND p.left_ms IS NULL");
        Ok(self.0.prepare_cached(&sql)?.query_row([name], of).optional()?)
    }

    /// Whose the session of a token's hash is: one that has not ended, of somebody who has not left.
    pub fn session(&self, hash: &str, now_ms: i64) -> Result<Option<PersonRow>, StoreError> {
        let sql = format!(
            "SELECT {COLUMNS} FROM sessions s JOIN people p ON p.id = s.person_id
             WHERE s.hash = ?1 AND s.ends_ms > ?2 AND p.left_ms IS NULL"
        );
        Ok(self.0.prepare_cached(&sql)?.query_row(params![hash, now_ms], of).optional()?)
    }

    /// Has somebody signed in at the browser of this hash with a passphrase?
    pub fn knows_device(&self, hash: &str) -> Result<bool, StoreError> {
        Ok(self.0.prepare_cached("SELECT 1 FROM devices WHERE hash = ?1")?.exists([hash])?)
    }

    /// Whom an invitation that has not ended is for.
    pub fn invitation(&self, hash: &str, now_ms: i64) -> Result<Option<Invited>, StoreError> {
        let sql = "SELECT person_id FROM invitations WHERE hash = ?1 AND ends_ms > ?2";
        let of = |row: &Row<'_>| Ok(row.get::<_, Option<i64>>(0)?.map_or(Invited::FirstOwner, Invited::Person));
        Ok(self.0.prepare_cached(sql)?.query_row(params![hash, now_ms], of).optional()?)
    }
}

impl Write<'_> {
    /// Adds somebody; none where the name is taken.
    pub fn add_person(&self, person: &NewPerson, now_ms: i64) -> Result<Option<i64>, StoreError> {
        let sql = "INSERT INTO people (name, role, level, hours, passphrase, pin, added_ms) VALUES (?1, ?2, ?3, '', '', '', ?4)
                   ON CONFLICT (name) DO NOTHING";
        let NewPerson { name, role, level } = person;
        let added = self.0.prepare_cached(sql)?.execute(params![name, role, level, now_ms])?;
        Ok((added == 1).then(|| self.0.last_insert_rowid()))
    }

    /// Changes name, role, level and hours; false where the name is another's.
    pub fn change_person(&self, row: &PersonRow) -> Result<bool, StoreError> {
        let PersonRow { id, name, role, level, hours, .. } = row;
        let before = self.read().person(*id)?.map(|row| row.name);
        let sql = "UPDATE OR IGNORE people SET name = ?2, role = ?3, level = ?4, hours = ?5 WHERE id = ?1";
        let changed = self.0.prepare_cached(sql)?.execute(params![id, name, role, level, hours])? == 1;
        if let Some(before) = before.filter(|before| changed && before != name) {
            self.rename_in_the_past(&before, name)?;
        }
        Ok(changed)
    }

    /// What the past says of somebody goes by their name, which nobody else has: it goes along.
    fn rename_in_the_past(&self, before: &str, name: &str) -> Result<(), StoreError> {
        for sql in [
            "UPDATE job_outcomes SET person = ?2 WHERE person = ?1",
            "UPDATE job_times SET person = ?2 WHERE person = ?1",
        ] {
            self.0.prepare_cached(sql)?.execute([before, name])?;
        }
        Ok(())
    }

    /// Keeps the hash of a passphrase; whoever is signed in with the old one is not any more.
    pub fn set_passphrase(&self, person: i64, hash: &str) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE people SET passphrase = ?2 WHERE id = ?1")?.execute(params![person, hash])?;
        self.end_sessions_of(person)
    }

    /// Keeps the hash of a PIN; empty: none any more.
    pub fn set_pin(&self, person: i64, hash: &str) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE people SET pin = ?2 WHERE id = ?1")?.execute(params![person, hash])?;
        Ok(())
    }

    /// Somebody leaves, or comes back. Who leaves is signed out everywhere.
    pub fn set_left(&self, person: i64, left_ms: Option<i64>) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE people SET left_ms = ?2 WHERE id = ?1")?.execute(params![person, left_ms])?;
        self.end_sessions_of(person)
    }

    /// Begins a session; its browser is known from now on. Sessions that have ended go.
    pub fn begin_session(&self, session: &NewSession) -> Result<(), StoreError> {
        let NewSession { hash, person, device, begun_ms, ends_ms } = session;
        self.0.prepare_cached("DELETE FROM sessions WHERE ends_ms <= ?1")?.execute([begun_ms])?;
        let known = "INSERT INTO devices (hash, added_ms) VALUES (?1, ?2) ON CONFLICT (hash) DO NOTHING";
        self.0.prepare_cached(known)?.execute(params![device, begun_ms])?;
        let sql = "INSERT INTO sessions (hash, person_id, device_id, begun_ms, ends_ms)
                   SELECT ?1, ?2, id, ?4, ?5 FROM devices WHERE hash = ?3";
        self.0.prepare_cached(sql)?.execute(params![hash, person, device, begun_ms, ends_ms])?;
        Ok(())
    }

    /// Ends one session.
    pub fn end_session(&self, hash: &str) -> Result<(), StoreError> {
        self.0.prepare_cached("DELETE FROM sessions WHERE hash = ?1")?.execute([hash])?;
        Ok(())
    }

    /// Keeps an invitation by the hash of its token; one that the same person had before is worth nothing any more.
    pub fn invite(&self, hash: &str, invited: Invited, ends_ms: i64) -> Result<(), StoreError> {
        let person = match invited {
            Invited::FirstOwner => None,
            Invited::Person(id) => Some(id),
        };
        self.0.prepare_cached("DELETE FROM invitations WHERE person_id IS ?1")?.execute([person])?;
        let sql = "INSERT INTO invitations (hash, person_id, ends_ms) VALUES (?1, ?2, ?3)";
        self.0.prepare_cached(sql)?.execute(params![hash, person, ends_ms])?;
        Ok(())
    }

    /// An invitation has been used. False where it had been used before.
    pub fn use_invitation(&self, hash: &str) -> Result<bool, StoreError> {
        Ok(self.0.prepare_cached("DELETE FROM invitations WHERE hash = ?1")?.execute([hash])? == 1)
    }

    fn end_sessions_of(&self, person: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("DELETE FROM sessions WHERE person_id = ?1")?.execute([person])?;
        Ok(())
    }
}

#[cfg(test)]
#[allow(clippy::unwrap_used)]
mod tests {
    use crate::TypedField;
    use mend_core::shop::review::JobOutcome;

    use crate::{NewPerson, NewSession, PersonRow, Store};

    fn opened() -> (tempfile::TempDir, Store) {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(&folder.path().join("shop.db")).unwrap();
        (folder, store)
    }

    fn ann() -> NewPerson {
        NewPerson { name: "Ann Reed".to_owned(), role: "technician".to_owned(), level: "trained".to_owned() }
    }

    fn session(person: i64) -> NewSession {
        let [hash, device] = ["h", "d"].map(str::to_owned);
        NewSession { hash, person, device, begun_ms: 0, ends_ms: 100 }
    }

    #[tokio::test]
    async fn what_is_written_keeps_whose_hand_it_was() {
        let (_folder, store) = opened();
        let person = store.write(|w| w.add_person(&ann(), 0)).await.unwrap();
        let mine = store.write_as(person, |w| w.add_job(1)).await.unwrap();
        let nobodys = store.write(|w| w.add_job(2)).await.unwrap();
        store.write_as(person, move |w| w.set_intake(mine, TypedField::new("device", "Quay"), 3)).await.unwrap();
        store.write(move |w| w.set_intake(mine, TypedField::new("device", "Brook"), 4)).await.unwrap();
        let whose = store
            .read(move |read| {
                let job = |id: i64| read.0.query_row("SELECT person_id FROM jobs WHERE id = ?1", [id], |r| r.get(0));
                let field = read.0.query_row("SELECT person_id FROM intake", [], |r| r.get(0))?;
                Ok([job(mine)?, job(nobodys)?, field])
            })
            .await;
        let whose: [Option<i64>; 3] = whose.unwrap();
        assert_eq!(whose, [person, None, None], "the last hand counts");
    }

    #[tokio::test]
    async fn whoever_is_renamed_keeps_their_past() {
        let (_folder, store) = opened();
        let past = store.write(|w| {
            let id = w.add_person(&ann(), 0)?.unwrap();
            let row = w.read().person(id)?.unwrap();
            let job = w.add_job(1)?;
            w.set_outcome(&JobOutcome { job, person: row.name.clone(), ..JobOutcome::default() }, 2)?;
            assert!(w.change_person(&PersonRow { name: "Ann Quill".to_owned(), ..row })?);
            w.read().outcomes()
        });
        assert_eq!(past.await.unwrap()[0].person, "Ann Quill");
    }

    #[tokio::test]
    async fn a_session_ends_with_the_shift_with_a_new_passphrase_and_with_who_leaves() {
        let (_folder, store) = opened();
        let person = store.write(|w| w.add_person(&ann(), 0)).await.unwrap().unwrap();
        let at = |now: i64| store.read(move |read| Ok(read.session("h", now)?.is_some()));
        let begin = || store.write(move |w| w.begin_session(&session(person)));
        begin().await.unwrap();
        assert!(at(99).await.unwrap() && !at(100).await.unwrap());
        store.write(move |w| w.set_passphrase(person, "x")).await.unwrap();
        assert!(!at(1).await.unwrap());
        begin().await.unwrap();
        store.write(move |w| w.set_left(person, Some(2))).await.unwrap();
        assert!(!at(1).await.unwrap() && store.read(|r| r.knows_device("d")).await.unwrap());
    }

    #[tokio::test]
    async fn a_name_is_one_persons() {
        let (_folder, store) = opened();
        let first = store.write(|w| w.add_person(&ann(), 0)).await.unwrap();
        let again = NewPerson { name: "ann reed".to_owned(), ..ann() };
        assert!(first.is_some() && store.write(move |w| w.add_person(&again, 0)).await.unwrap().is_none());
        assert_eq!(store.read(|r| r.person_named("ANN REED")).await.unwrap().unwrap().id, first.unwrap());
    }
}
