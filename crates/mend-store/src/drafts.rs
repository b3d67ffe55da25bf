//! Tables `drafts` and `draft_steps`.

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

/// Steps that can be undone; older ones go.
const KEPT_STEPS: i64 = 300;

/// A draft to be begun.
#[derive(Debug, Clone)]
pub struct NewDraft {
    /// The model that it will be a version of.
    pub model_id: Option<i64>,
    /// The job whose board it is.
    pub job_id: Option<i64>,
    /// The draft, `urgent-mend/draft/1`.
    pub draft: String,
}

/// A draft as it stands.
#[derive(Debug, Clone)]
pub struct DraftRow {
    /// Its number.
    pub id: i64,
    /// The model that it is a version of, where it is.
    pub model_id: Option<i64>,
    /// The job whose board it is, where it was begun from one.
    pub job_id: Option<i64>,
    /// The draft, `urgent-mend/draft/1`.
    pub draft: String,
    /// Steps that can be undone.
    pub back: i64,
    /// Steps that can be done again.
    pub forward: i64,
    /// Goes up with every act: what an act was made on.
    pub revision: i64,
}

/// Who does something to a draft, and on which state of it.
#[derive(Debug, Clone)]
pub struct DraftAct {
    /// Made by the browser: the same act sent again has the same one.
    pub token: String,
    /// The page that did it.
    pub client: String,
    /// The revision that it was looking at; none: it adds to whatever there is.
    pub on: Option<i64>,
}

/// An act, and when it is done, ms since the epoch.
#[derive(Debug, Clone, Copy)]
pub struct DoneAct<'a> {
    /// By whom, on what.
    pub act: &'a DraftAct,
    /// When.
    pub at_ms: i64,
}

/// May an act be done?
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ActState {
    /// It may.
    Fresh,
    /// It has been done already: the answer was lost.
    Done,
    /// Somebody else has changed the draft since.
    Outdated,
}

const SELECT: &str = "SELECT d.id, d.model_id, d.job_id, s.draft, d.revision,
    (SELECT count(*) FROM draft_steps o WHERE o.draft_id = d.id AND o.step < d.step),
    (SELECT count(*) FROM draft_steps o WHERE o.draft_id = d.id AND o.step > d.step)
    FROM drafts d JOIN draft_steps s ON s.draft_id = d.id AND s.step = d.step";

fn of(row: &rusqlite::Row<'_>) -> rusqlite::Result<DraftRow> {
    let (id, model_id, job_id, draft) = (row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?);
    Ok(DraftRow { id, model_id, job_id, draft, revision: row.get(4)?, back: row.get(5)?, forward: row.get(6)? })
}

impl Read<'_> {
    /// One draft.
    pub fn draft(&self, id: i64) -> Result<Option<DraftRow>, StoreError> {
        Ok(self.0.prepare_cached(&format!("{SELECT} WHERE d.id = ?1"))?.query_row([id], of).optional()?)
    }

    /// May this act be done on this draft?
    pub fn standing(&self, draft: i64, act: &DraftAct) -> Result<ActState, StoreError> {
        let done = "SELECT 1 FROM draft_acts WHERE draft_id = ?1 AND token = ?2";
        if self.0.prepare_cached(done)?.exists(params![draft, act.token])? {
            return Ok(ActState::Done);
        }
        let Some(on) = act.on else { return Ok(ActState::Fresh) };
        let others = "SELECT 1 FROM draft_acts WHERE draft_id = ?1 AND revision > ?2 AND client <> ?3";
        let outdated = self.0.prepare_cached(others)?.exists(params![draft, on, act.client])?;
        Ok(if outdated { ActState::Outdated } else { ActState::Fresh })
    }

    /// All drafts, last touched first.
    pub fn drafts(&self) -> Result<Vec<DraftRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} ORDER BY d.touched_ms DESC, d.id DESC"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Begins a draft.
    pub fn add_draft(&self, new: &NewDraft, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "INSERT INTO drafts (model_id, job_id, step, last_token, touched_ms) VALUES (?1, ?2, 0, '', ?3)";
        self.0.prepare_cached(sql)?.execute(params![new.model_id, new.job_id, now_ms])?;
        let id = self.0.last_insert_rowid();
        let sql = "INSERT INTO draft_steps (draft_id, step, draft) VALUES (?1, 0, ?2)";
        self.0.prepare_cached(sql)?.execute(params![id, new.draft])?;
        Ok(id)
    }

    fn note_act(&self, id: i64, DoneAct { act, at_ms }: DoneAct<'_>) -> Result<(), StoreError> {
        let sql = "UPDATE drafts SET revision = revision + 1, touched_ms = ?2 WHERE id = ?1";
        self.0.prepare_cached(sql)?.execute(params![id, at_ms])?;
        let sql = "INSERT INTO draft_acts (draft_id, revision, client, token)
                   SELECT id, revision, ?2, ?3 FROM drafts WHERE id = ?1";
        self.0.prepare_cached(sql)?.execute(params![id, act.client, act.token])?;
        Ok(())
    }

    /// Keeps the draft after an act. What had been undone before it can't be done again.
    pub fn add_draft_step(&self, id: i64, draft: &str, done: DoneAct<'_>) -> Result<(), StoreError> {
        self.note_act(id, done)?;
        self.0.prepare_cached("UPDATE drafts SET step = step + 1 WHERE id = ?1")?.execute([id])?;
        let outdated = "DELETE FROM draft_steps WHERE draft_id = ?1 AND (
                            step >= (SELECT step FROM drafts WHERE id = ?1)
                            OR step < (SELECT step FROM drafts WHERE id = ?1) - ?2)";
        self.0.prepare_cached(outdated)?.execute(params![id, KEPT_STEPS])?;
        let sql = "INSERT INTO draft_steps (draft_id, step, draft) SELECT id, step, ?2 FROM drafts WHERE id = ?1";
        self.0.prepare_cached(sql)?.execute(params![id, draft])?;
        Ok(())
    }

    /// Goes back or forward where there is a step to go to.
    pub fn move_draft(&self, id: i64, by: i64, done: DoneAct<'_>) -> Result<(), StoreError> {
        let sql = "UPDATE drafts SET step = step + ?2 WHERE id = ?1 AND EXISTS
                   (SELECT 1 FROM draft_steps s WHERE s.draft_id = drafts.id AND s.step = drafts.step + ?2)";
        self.0.prepare_cached(sql)?.execute(params![id, by])?;
        self.note_act(id, done)
    }

    /// Ends a draft: it has become a version, or nobody wants it.
    pub fn end_draft(&self, id: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("DELETE FROM drafts WHERE id = ?1")?.execute([id])?;
        Ok(())
    }
}
