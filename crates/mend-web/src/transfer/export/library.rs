//! What jobs refer to: settings, instruments, stations, photographs, boards, drafts, opening maps, lessons.

use std::collections::BTreeMap;

use mend_formats::export::{BoardEntry, DraftEntry, InstrumentEntry, LessonEntry, PhotoEntry, StationEntry};
use mend_formats::record::BoardName;
use mend_formats::{draft, opening, renewal};
use mend_store::{InstrumentRow, LessonRow, PhotoRow, StoreError};

use super::{CannotFill, Exporting};

/// A draft's text with its photographs named by their places; as it is where it can't be read.
fn placed_draft(text: &str, photos: &BTreeMap<i64, i64>) -> String {
    let Ok(mut read) = draft::parse(text.as_bytes()) else { return text.to_owned() };
    for photo in &mut read.photos {
        photo.id = photos.get(&photo.id).copied().unwrap_or(photo.id);
    }
    draft::write(&read).unwrap_or_else(|_| text.to_owned())
}

/// The same of an opening map.
fn placed_map(text: String, photos: &BTreeMap<i64, i64>) -> String {
    let Ok(mut read) = opening::parse(text.as_bytes()) else { return text };
    for page in &mut read.pages {
        page.photo = page.photo.and_then(|photo| photos.get(&photo).copied());
    }
    opening::write(&read).unwrap_or(text)
}

impl Exporting<'_> {
    /// What the shop says of itself.
    pub(super) async fn settings(&mut self) -> Result<(), CannotFill> {
        let (shop, equipment) = self.read(|r| Ok((r.shop()?, r.equipment()?))).await?;
        if let Some(text) = shop {
            self.list.shop = Some(self.put("shop.json", text.as_bytes())?);
        }
        if let Some(text) = equipment {
            self.list.equipment = Some(self.put("equipment.json", renewal::equipment(&text).as_bytes())?);
        }
        Ok(())
    }

    pub(super) async fn instruments(&mut self) -> Result<(), CannotFill> {
        let entry = |row: InstrumentRow| {
            let InstrumentRow { name, kind, address, at_bench, .. } = row;
            InstrumentEntry { name, kind, address, at_bench }
        };
        self.list.instruments = self.read(|r| r.instruments()).await?.into_iter().map(entry).collect();
        Ok(())
    }

    pub(super) async fn stations(&mut self) -> Result<(), CannotFill> {
        let rows = self.read(|r| {
            r.stations()?.into_iter().map(|row| Ok((r.names_of_station(row.id)?, row))).collect::<Result<Vec<_>, _>>()
        });
        for (k, (names, row)) in rows.await?.into_iter().enumerate() {
            let file = self.put(&format!("stations/{:03}.json", k + 1), row.file.as_bytes())?;
            self.list.stations.push(StationEntry { file, retired_ms: row.retired_ms, names });
        }
        Ok(())
    }

    pub(super) async fn connectors(&mut self) -> Result<(), CannotFill> {
        for (k, row) in self.read(|r| r.connectors()).await?.iter().enumerate() {
            let file = self.put(&format!("connectors/{:04}.json", k + 1), row.file.as_bytes())?;
            self.list.connectors.push(file);
        }
        Ok(())
    }

    pub(super) async fn photos(&mut self) -> Result<(), CannotFill> {
        for PhotoRow { id, size: size_px } in self.read(|r| r.photos()).await? {
            let Some(jpeg) = self.read(move |r| r.photo(id)).await? else { continue };
            let place = self.list.photos.len() as i64 + 1;
            let file = self.put(&format!("photos/{place:05}.jpg"), &jpeg)?;
            self.list.photos.push(PhotoEntry { file, size_px });
            self.placed.photos.insert(id, place);
        }
        Ok(())
    }

    pub(super) async fn openings(&mut self) -> Result<(), CannotFill> {
        for row in self.read(|r| r.all_openings()).await? {
            let place = self.list.openings.len() as i64 + 1;
            let text = placed_map(row.map, &self.placed.photos);
            let file = self.put(&format!("openings/{place:04}.json"), text.as_bytes())?;
            self.list.openings.push(file);
            self.placed.maps.insert(row.id, place);
        }
        Ok(())
    }

    pub(super) async fn boards(&mut self) -> Result<(), CannotFill> {
        for (k, row) in self.read(|r| r.all_boards()).await?.into_iter().enumerate() {
            let board = BoardName { model: row.name, version: row.version };
            self.placed.boards.insert(row.id, board.clone());
            let file = self.put(&format!("boards/{:04}.json", k + 1), renewal::board(&row.file).as_bytes())?;
            let described = row.draft.map(|text| placed_draft(&text, &self.placed.photos));
            let draft = described.map(|text| self.put(&format!("boards/{:04}.draft.json", k + 1), text.as_bytes()));
            self.list.boards.push(BoardEntry { board, file, draft: draft.transpose()? });
        }
        Ok(())
    }

    pub(super) async fn drafts(&mut self) -> Result<(), CannotFill> {
        let rows = self.read(|r| {
            let rows = r.drafts()?.into_iter().rev();
            let named = rows.map(|row| {
                let model = row.model_id.map(|id| r.model(id)).transpose()?.flatten().map(|model| model.name);
                Ok((row, model))
            });
            named.collect::<Result<Vec<_>, StoreError>>()
        });
        for (k, (row, model)) in rows.await?.into_iter().enumerate() {
            let text = placed_draft(&row.draft, &self.placed.photos);
            let file = self.put(&format!("drafts/{:03}.json", k + 1), text.as_bytes())?;
            let job = row.job_id.and_then(|id| self.placed.job(id));
            self.list.drafts.push(DraftEntry { file, model, job });
        }
        Ok(())
    }

    pub(super) async fn lessons(&mut self) -> Result<(), CannotFill> {
        let (rows, stations) = self.read(|r| Ok((r.lessons()?, r.stations()?))).await?;
        for LessonRow { id, lesson, taught_ms, left_out } in rows {
            let file = self.put(&format!("lessons/{id:05}.json"), lesson.says.as_bytes())?;
            let station = stations.iter().position(|row| row.id == lesson.station_id).unwrap_or_default();
            let entered = serde_json::from_str(&lesson.entered).unwrap_or_default();
            let board = lesson.board_id.and_then(|id| self.placed.boards.get(&id).cloned());
            let job = lesson.job_id.and_then(|id| self.placed.job(id));
            let (kind, nozzle_mm, figures) = (lesson.kind, lesson.nozzle_mm, lesson.figures);
            let entry =
                LessonEntry { file, kind, station, nozzle_mm, board, job, entered, figures, taught_ms, left_out };
            self.list.lessons.push(entry);
        }
        Ok(())
    }
}
