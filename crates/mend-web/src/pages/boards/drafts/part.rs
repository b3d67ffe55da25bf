//! The part, taken from the library of kinds or from the shop's own.

use axum::extract::{Path, State};
use axum::response::Redirect;
use mend_core::board::draft::{Draft, DraftPart};
use mend_core::board::library::{self, Values};
use mend_core::board::{Face, Point, Turn};
use serde::Deserialize;

use super::{adding, change, number};
use crate::App;
use crate::extract::Form;
use crate::refusal::Refusal;

/// Which one: `usb-c-top`, or `own 3`.
#[derive(Deserialize)]
pub(super) struct PartForm {
    kind: String,
    #[serde(default)]
    token: String,
}

pub(super) async fn take(
    State(app): State<App>,
    Path(id): Path<String>,
    Form(wanted): Form<PartForm>,
) -> Result<Redirect, Refusal> {
    let id = number(&id)?;
    let part = part(&app, &wanted.kind).await?;
    let put = move |draft: &Draft| {
        let place = draft.part.as_ref().map_or_else(|| first_place(draft), |old| (old.at, old.turn, old.face));
        let (at, turn, face) = place;
        Ok(Draft { part: Some(DraftPart { at, turn, face, ..part }), ..draft.clone() })
    };
    let token = if wanted.token.is_empty() { format!("part-{:?}", app.moment()) } else { wanted.token };
    change(&app, id, adding(token), put).await??;
    Ok(Redirect::to(&format!("/boards/drafts/{id}?show=part")))
}

async fn part(app: &App, wanted: &str) -> Result<DraftPart, Refusal> {
    let nowhere = (Point { x: 0.0, y: 0.0 }, Turn::None, Face::Top);
    let (made, from) = match wanted.strip_prefix("own ") {
        Some(own) => {
            let own: i64 = own.parse().map_err(|_| Refusal::NotFound("connector"))?;
            let row = app.reading(move |read| read.connector(own)).await?.ok_or(Refusal::NotFound("connector"))?;
            (mend_formats::connector::parse(row.file.as_bytes())?, None)
        }
        None => {
            let kind = library::kind(wanted).ok_or(Refusal::NotFound("connector"))?;
            (kind.make(&Values::new())?, Some((wanted.to_owned(), Values::new())))
        }
    };
    let (at, turn, face) = nowhere;
    Ok(DraftPart { made, from, at, turn, face })
}

/// In the middle of the near rim, its mouth over it; where there is no rim, where the map begins.
fn first_place(draft: &Draft) -> (Point, Turn, Face) {
    let bounds = draft.outline.bounds();
    let at = if bounds.width.is_finite() {
        Point { x: (bounds.centre.x * 10.0).round() / 10.0, y: bounds.near() + 4.0 }
    } else {
        Point { x: 50.0, y: 10.0 }
    };
    (at, Turn::None, Face::Top)
}
