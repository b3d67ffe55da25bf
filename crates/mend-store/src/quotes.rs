//! Tables `quotes` and `job_times`.

use rusqlite::{Row, params};

use crate::{CustomerWord, Read, StoreError, Write};

/// A quote as it was given.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct QuoteRow {
    /// Its number.
    pub id: i64,
    /// Its lines, JSON.
    pub says: String,
    /// What it comes to, `85.00`.
    pub total: String,
    /// When it was made, ms since the epoch.
    pub made_ms: i64,
    /// `accepted` or `declined`; empty: not answered yet.
    pub answer: String,
    /// Who answered.
    pub who: String,
    /// When it was answered.
    pub answered_ms: Option<i64>,
}

/// What a stop of a job took.
#[derive(Debug, Clone, PartialEq)]
pub struct TimeRow {
    /// As in its address.
    pub stop: String,
    /// s.
    pub seconds: f64,
    /// What was to be expected before anything was learnt, s.
    pub prior_s: f64,
    /// Connector and method.
    pub kind: String,
    /// Who did most of it; empty: not known.
    pub person: String,
}

/// The newest so many jobs teach: what was years ago says nothing of today.
const TEACH: u32 = 400;

impl Read<'_> {
    /// A job's quotes, oldest first.
    pub fn quotes(&self, job: i64) -> Result<Vec<QuoteRow>, StoreError> {
        let sql = "SELECT id, says, total, made_ms, answer, who, answered_ms FROM quotes WHERE job_id = ?1 ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| {
            Ok(QuoteRow {
                id: row.get(0)?,
                says: row.get(1)?,
                total: row.get(2)?,
                made_ms: row.get(3)?,
                answer: row.get(4)?,
                who: row.get(5)?,
                answered_ms: row.get(6)?,
            })
        };
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// What stops of the newest jobs took.
    pub fn past_times(&self) -> Result<Vec<TimeRow>, StoreError> {
        let sql = "SELECT stop, seconds, prior_s, kind, person FROM job_times
                   WHERE job_id IN (SELECT DISTINCT job_id FROM job_times ORDER BY job_id DESC LIMIT ?1) ORDER BY job_id, stop";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| {
            let (kind, person) = (row.get(3)?, row.get(4)?);
            Ok(TimeRow { stop: row.get(0)?, seconds: row.get(1)?, prior_s: row.get(2)?, kind, person })
        };
        let rows = statement.query_map([TEACH], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// A quote to keep.
#[derive(Debug, Clone, Copy)]
pub struct NewQuote<'a> {
    /// What it says, JSON.
    pub says: &'a str,
    /// What it comes to.
    pub total: &'a str,
    /// When it was made, ms since the epoch.
    pub made_ms: i64,
}

impl Write<'_> {
    /// Keeps a quote; answers its number.
    pub fn add_quote(&self, job: i64, NewQuote { says, total, made_ms }: NewQuote<'_>) -> Result<i64, StoreError> {
        let sql = "INSERT INTO quotes (job_id, says, total, made_ms, answer, who) VALUES (?1, ?2, ?3, ?4, '', '')";
        self.0.prepare_cached(sql)?.execute(params![job, says, total, made_ms])?;
        Ok(self.0.last_insert_rowid())
    }

    /// Keeps a quote with its answer, from a file; of a job that may be closed.
    pub fn put_quote(&self, job: i64, row: &QuoteRow) -> Result<(), StoreError> {
        self.while_open(job, |write| {
            let id = write.add_quote(job, NewQuote { says: &row.says, total: &row.total, made_ms: row.made_ms })?;
            let sql = "UPDATE quotes SET answer = ?2, who = ?3, answered_ms = ?4 WHERE id = ?1";
            write.0.prepare_cached(sql)?.execute(params![id, row.answer, row.who, row.answered_ms])?;
            Ok(())
        })
    }

    /// The customer's word on the newest quote of a job; false where it is not the newest, or has its answer.
    pub fn answer_quote(&self, job: i64, id: i64, word: CustomerWord<'_>) -> Result<bool, StoreError> {
        let CustomerWord { answer, who, at_ms } = word;
        let sql = "UPDATE quotes SET answer = ?3, who = ?4, answered_ms = ?5
                   WHERE job_id = ?1 AND id = ?2 AND answer = '' AND id = (SELECT max(id) FROM quotes WHERE job_id = ?1)";
        Ok(self.0.prepare_cached(sql)?.execute(params![job, id, answer, who, at_ms])? == 1)
    }

    /// Keeps what a stop took; what was kept before counts no more.
    pub fn set_job_time(&self, job: i64, row: &TimeRow, at_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO job_times (job_id, stop, seconds, prior_s, kind, person, at_ms) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)
                   ON CONFLICT (job_id, stop) DO UPDATE SET seconds = excluded.seconds, prior_s = excluded.prior_s,
                   kind = excluded.kind, person = excluded.person, at_ms = excluded.at_ms";
        let TimeRow { stop, seconds, prior_s, kind, person } = row;
        self.0.prepare_cached(sql)?.execute(params![job, stop, seconds, prior_s, kind, person, at_ms])?;
        Ok(())
    }
}
