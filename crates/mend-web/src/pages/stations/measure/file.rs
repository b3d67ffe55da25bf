//! A logger's file as the readings of a probe: its columns are found by their names, or picked by whoever knows the file.

use axum::extract::{Request, State};
use axum::response::Redirect;
use mend_core::units::{Scale, Temperature};
use mend_formats::readings::{self, Columns, Readings};
use mend_store::{MeasuringKey, TypedField};
use serde::{Deserialize, Serialize};

use super::super::edit::StationPath;
use super::probe::KIND;
use super::{Measuring, scale_key};
use crate::App;
use crate::extract::Form;
use crate::refusal::Refusal;
use crate::upload::{self, SizeLimit};
use crate::visitor::Visitor;

const LIMIT: SizeLimit = SizeLimit { bytes: 32 * 1024 * 1024, what: "a table of readings as text (CSV)" };
/// The file itself is kept apart: the page does not read it.
const FILE_KIND: &str = "probe-file";
const TEXT: &str = "text";
const PICKED: &str = "columns";
/// Lines of a file that become readings: twenty minutes, one a second.
const MOST: usize = 1200;
/// Columns that can be picked from.
const MOST_COLUMNS: usize = 40;

/// The columns of the file, and which were read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub(crate) struct ColumnPicker {
    pub(crate) names: Vec<String>,
    pub(crate) time: usize,
    pub(crate) temperature: usize,
}

impl ColumnPicker {
    /// Of the file that the readings came from; none where they were typed or there is nothing to pick.
    pub(super) fn of(kept: &Measuring) -> Option<Self> {
        serde_json::from_str(kept.get(PICKED)).ok().filter(|picker: &Self| picker.names.len() > 2)
    }
}

/// A logger's file becomes the readings.
pub(crate) async fn upload(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    request: Request,
) -> Result<Redirect, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    let mut form = upload::read(request, &LIMIT).await??;
    let text = String::from_utf8_lossy(&form.bytes("file")).into_owned();
    let found = readings::parse(&text, kept.scale(visitor), None)?;
    let (station, now) = (kept.id, app.now_ms());
    app.writing(move |write| {
        write.set_measuring(MeasuringKey { station, kind: FILE_KIND }, TypedField::new(TEXT, &text), now)
    })
    .await?;
    take(&app, &path, kept.scale(visitor), found).await
}

/// Which columns are meant, from 0.
#[derive(Deserialize)]
pub(crate) struct PickedColumns {
    time: usize,
    temperature: usize,
}

/// The same file by other columns.
pub(crate) async fn pick(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<PickedColumns>,
) -> Result<Redirect, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    let station = kept.id;
    let file = app.reading(move |read| read.measuring(station, FILE_KIND)).await?;
    let text = file.get(TEXT).ok_or(Refusal::NotYet("There is no file: choose the logger's file first"))?;
    let PickedColumns { time, temperature } = sent;
    let found = readings::parse(text, kept.scale(visitor), Some(Columns { time, temperature }))?;
    take(&app, &path, kept.scale(visitor), found).await
}

/// What is kept is what was understood: seconds and degrees on the form's own scale, a reading a second.
async fn take(app: &App, path: &StationPath, scale: Scale, found: Readings) -> Result<Redirect, Refusal> {
    let line = |[at, celsius]: &[f64; 2]| format!("{at:.1}, {:.2}", scale.of(Temperature::celsius(*celsius)));
    let lines = found.readings.iter().take(MOST).map(line).collect::<Vec<_>>().join("\n");
    let Columns { time, temperature } = found.columns;
    let names = found.names.into_iter().take(MOST_COLUMNS).collect();
    let picker = serde_json::to_string(&ColumnPicker { names, time, temperature })?;
    let fields = [("readings", lines), ("scale", scale_key(scale).to_owned()), (PICKED, picker)];
    let fields = fields.into_iter().map(|(field, value)| (field.to_owned(), value)).collect();
    let kept = Measuring::entered(app, path, KIND, fields).await?;
    Ok(Redirect::to(&format!("/stations/{}/probe", kept.id)))
}
