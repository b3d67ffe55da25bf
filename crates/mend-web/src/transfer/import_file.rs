//! One file of the open formats into a shop.

use mend_core::finding::Finding;
use mend_formats::record::{self, BoardName};
use mend_formats::{FileKind, board, connector, equipment, file_kind, opening, shop, shop_settings, station};
use mend_store::{NewBoard, Write};

use super::CannotFill;
use super::put_job::{ExportPlaces, put_job};
use crate::App;
use crate::filling::add_one_job;
use crate::refusal::Refusal;

/// What came of a file, in a line.
#[derive(Debug)]
pub struct Imported(pub String);

/// Puts one file into the shop, whatever of our open formats it is of.
pub async fn import_file(app: &App, name: &str, bytes: &[u8]) -> Result<Imported, CannotFill> {
    let taken = match file_kind(bytes) {
        Some(FileKind::Station) => one_station(app, bytes).await,
        Some(FileKind::Board) => one_board(app, bytes).await,
        Some(FileKind::Connector) => one_connector(app, bytes).await,
        Some(FileKind::Equipment) => one_equipment(app, bytes).await,
        Some(FileKind::ShopSettings) => one_shop(app, bytes).await,
        Some(FileKind::JobRecord) => one_job(app, bytes).await,
        Some(FileKind::DemoJob) => one_demo_job(app, bytes).await,
        Some(FileKind::Opening) => one_opening(app, bytes).await,
        None => {
            let known = "a station, board, connector, opening map, equipment, shop or job file of ours";
            Err(vec![Finding::written("import", "format", "it names none that can be imported").hint(known)].into())
        }
    };
    taken.map(Imported).map_err(|refusal| CannotFill::refusal(name, refusal))
}

async fn one_station(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (station, text) = (station::parse(bytes)?, text(bytes)?);
    let name = station.name.clone();
    match app.writing(move |w| w.add_station(&station.name, &text)).await? {
        Some(_) => Ok(format!("station “{name}”")),
        None => Err(taken("station", &name)),
    }
}

/// A new model, or the next version of the model of its name; one that is there already changes nothing.
async fn one_board(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (parsed, file, now) = (board::parse(bytes)?, text(bytes)?, app.now_ms());
    let name = parsed.name;
    let new = NewBoard { name: name.clone(), file, draft: None };
    let write = move |w: &Write<'_>| {
        let all = w.read().all_boards()?;
        let mut own = all.iter().filter(|row| row.name == new.name).peekable();
        let Some(model) = own.peek().map(|row| row.model_id) else { return w.add_board(&new, now) };
        if own.any(|row| row.file == new.file) {
            return Ok(None);
        }
        w.add_version(model, &new, now)
    };
    Ok(match app.writing(write).await? {
        Some(row) => format!("board “{name}”, revision {}", row.version),
        None => format!("board “{name}” is there already"),
    })
}

async fn one_connector(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (parsed, file, now) = (connector::parse(bytes)?, text(bytes)?, app.now_ms());
    let name = parsed.name.clone();
    match app.writing(move |w| w.add_connector(&parsed.name, &file, now)).await? {
        Some(_) => Ok(format!("connector “{name}”")),
        None => Err(taken("connector", &name)),
    }
}

/// The newest version of its device's map; one that is there already changes nothing. Its photographs are another shop's.
async fn one_opening(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let mut file = opening::parse(bytes)?;
    file.pages.iter_mut().for_each(|page| page.photo = None);
    let (text, device, now) = (opening::write(&file)?, file.device.clone(), app.now_ms());
    let name = device.clone();
    let there = app.reading(|read| read.all_openings()).await?;
    if there.iter().any(|row| row.name == device && row.map == text) {
        return Ok(format!("opening map of “{name}” is there already"));
    }
    app.writing(move |w| w.add_opening(&device, &text, now)).await?;
    Ok(format!("opening map of “{name}”"))
}

async fn one_equipment(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    equipment::parse(bytes)?;
    let (file, now) = (text(bytes)?, app.now_ms());
    app.writing(move |w| w.set_equipment(&file, now)).await?;
    Ok("equipment and skill".to_owned())
}

async fn one_shop(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (shop, file, now) = (shop_settings::parse(bytes)?, text(bytes)?, app.now_ms());
    app.writing(move |w| w.set_shop(&file, now)).await?;
    app.set_usual_scale(shop.scale);
    Ok("shop settings".to_owned())
}

async fn one_job(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let record = record::parse(bytes)?;
    let boards = app.reading(|read| read.all_boards()).await?.into_iter();
    let boards = boards.map(|row| (BoardName { model: row.name, version: row.version }, row.id)).collect();
    let device = record.intake.get("device").cloned().unwrap_or_default();
    let now = app.now_ms();
    let id = app.writing(move |w| put_job(w, &record, ExportPlaces::of_boards(&boards), now)).await??;
    Ok(format!("job {id}, {device}"))
}

/// A job whose plan is computed as it is read.
async fn one_demo_job(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let file = shop::parse(bytes)?;
    let device = file.intake.get("device").cloned().unwrap_or_default();
    let id = add_one_job(app, file).await?;
    Ok(format!("job {id}, {device}"))
}

fn taken(what: &str, name: &str) -> Refusal {
    let finding = Finding::written("import", "name", format!("the shop has a {what} “{name}” already"));
    vec![finding.hint("give this one another name in its file")].into()
}

pub(super) fn text(bytes: &[u8]) -> Result<String, Refusal> {
    String::from_utf8(bytes.to_vec()).map_err(|_| Refusal::field("file", "is no text", "UTF-8"))
}
