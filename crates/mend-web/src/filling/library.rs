//! What a shop has before its first job: stations, boards with their photographs and drafts, opening maps, what it says of itself.

use std::collections::BTreeMap;

use mend_formats::{board, equipment, opening, shop_settings, station};
use mend_store::{NewBoard, Write};

use super::{CannotFill, ShopFiles};
use crate::App;
use crate::photograph;
use crate::refusal::Refusal;

/// What jobs name by its place or its name.
pub(super) struct Library {
    /// Numbers of boards by the name of their file.
    pub(super) boards: BTreeMap<String, i64>,
    /// Numbers of photographs, in order.
    pub(super) photos: Vec<i64>,
}

/// Puts all of it down.
pub(super) async fn fill(app: &App, files: &ShopFiles) -> Result<Library, CannotFill> {
    add_stations(app, files).await?;
    add_settings(app, files).await?;
    let mut boards = add_boards(app, files).await?;
    let photos = add_photos(app, files).await?;
    for (name, text) in &files.drafts {
        let id = add_draft(app, text, &photos).await.map_err(|r| CannotFill::refusal(name, r))?;
        boards.insert(name.clone(), id);
    }
    add_openings(app, files).await?;
    Ok(Library { boards, photos })
}

async fn add_settings(app: &App, files: &ShopFiles) -> Result<(), CannotFill> {
    let now = app.now_ms();
    if let Some(file) = files.equipment.clone() {
        equipment::parse(file.as_bytes()).map_err(|f| CannotFill::findings("equipment", &f))?;
        app.writing(move |w| w.set_equipment(&file, now)).await.map_err(|r| CannotFill::refusal("equipment", r))?;
    }
    if let Some(file) = files.settings.clone() {
        shop_settings::parse(file.as_bytes()).map_err(|f| CannotFill::findings("shop", &f))?;
        app.writing(move |w| w.set_shop(&file, now)).await.map_err(|r| CannotFill::refusal("shop", r))?;
    }
    Ok(())
}

async fn add_openings(app: &App, files: &ShopFiles) -> Result<(), CannotFill> {
    for (name, text) in &files.openings {
        let file = opening::parse(text.as_bytes()).map_err(|f| CannotFill::findings(name, &f))?;
        let (text, now) = (text.clone(), app.now_ms());
        let added = app.writing(move |w| w.add_opening(&file.device, &text, now)).await;
        added.map_err(|r| CannotFill::refusal(name, r))?;
    }
    Ok(())
}

async fn add_stations(app: &App, files: &ShopFiles) -> Result<(), CannotFill> {
    for (name, file) in &files.stations {
        let station = station::parse(file.as_bytes()).map_err(|f| CannotFill::findings(name, &f))?;
        let file = file.clone();
        let added = app.writing(move |w| w.add_station(&station.name, &file)).await;
        added.map_err(|r| CannotFill::refusal(name, r))?;
    }
    Ok(())
}

async fn add_boards(app: &App, files: &ShopFiles) -> Result<BTreeMap<String, i64>, CannotFill> {
    let mut boards = BTreeMap::new();
    for (name, text) in &files.boards {
        let parsed = board::parse(text.as_bytes()).map_err(|f| CannotFill::findings(name, &f))?;
        let (new, now) = (NewBoard { name: parsed.name, file: text.clone(), draft: None }, app.now_ms());
        let added = app.writing(move |w| w.add_board(&new, now)).await;
        if let Some(row) = added.map_err(|r| CannotFill::refusal(name, r))? {
            boards.insert(name.clone(), row.id);
        }
    }
    Ok(boards)
}

/// Their numbers in the shop, in order.
async fn add_photos(app: &App, files: &ShopFiles) -> Result<Vec<i64>, CannotFill> {
    let mut numbers = Vec::new();
    for (name, jpeg) in &files.photos {
        let photo = photograph::decode(jpeg.clone()).await.map_err(|r| CannotFill::refusal(name, r))?;
        let photo = photo.map_err(|f| CannotFill::findings(name, &f))?;
        let now = app.now_ms();
        let added = app.writing(move |w| w.add_photo(&photo, now)).await;
        numbers.push(added.map_err(|r| CannotFill::refusal(name, r))?);
    }
    Ok(numbers)
}

async fn add_draft(app: &App, text: &str, photos: &[i64]) -> Result<i64, Refusal> {
    let mut draft = mend_formats::draft::parse(text.as_bytes())?;
    for photo in &mut draft.photos {
        let place = usize::try_from(photo.id - 1).ok();
        photo.id = place.and_then(|k| photos.get(k)).copied().ok_or(Refusal::NotFound("photograph"))?;
    }
    let board = draft.board()?;
    let (name, file) = (board.name.clone(), board::write(&board)?);
    let new = NewBoard { name: name.clone(), file, draft: Some(mend_formats::draft::write(&draft)?) };
    let now = app.now_ms();
    let write = move |w: &Write<'_>| match w.read().models()?.into_iter().find(|row| row.name == name) {
        Some(row) => w.add_version(row.id, &new, now),
        None => w.add_board(&new, now),
    };
    app.writing(write).await?.map(|row| row.id).ok_or(Refusal::NotFound("board"))
}
