//! Photographs: brought in, and shown.

use axum::extract::{Path, Request, State};
use axum::http::header;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::board::Face;
use mend_core::board::draft::{Draft, MOST_PHOTOS, Photo};
use mend_core::board::photo::Placement;
use mend_core::finding::Finding;

use super::trace::{DraftPlace, refused};
use super::{adding, change, number};
use crate::App;
use crate::photograph;
use crate::refusal::Refusal;
use crate::upload;
use crate::visitor::Visitor;

/// How wide a photograph lies before its scale is set, mm, where there is no rim yet.
const FIRST_WIDTH_MM: f64 = 120.0;

pub(super) async fn add(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    request: Request,
) -> Result<Response, Refusal> {
    let id = number(&id)?;
    let mut sent = match upload::read(request, &photograph::FILE).await? {
        Ok(sent) => sent,
        Err(findings) => return refused(&app, visitor, DraftPlace { id, show: "photo" }, &findings).await,
    };
    let face = if sent.text("face") == "bottom" { Face::Bottom } else { Face::Top };
    let bytes = sent.bytes("photo");
    // Decoded before the draft is opened: that takes a second, in which others go on.
    let photo = match photograph::decode(bytes).await? {
        Ok(photo) => photo,
        Err(findings) => return refused(&app, visitor, DraftPlace { id, show: "photo" }, &findings).await,
    };
    let (size, now) = (photo.size, app.now_ms());
    let number = app.writing(move |write| write.add_photo(&photo, now)).await?;
    let add = move |draft: &Draft| {
        if draft.photos.len() >= MOST_PHOTOS {
            let full = Finding::written("photograph", "photograph", format!("there are {MOST_PHOTOS} already"));
            return Err(vec![full.hint("remove one first")]);
        }
        let mut draft = draft.clone();
        let placement = first_place(&draft, size, face);
        draft.photos.push(Photo { id: number, face, size, placement, lined_up_mm: None });
        Ok(draft)
    };
    if let Err(findings) = change(&app, id, adding(format!("photo-{number}")), add).await? {
        return refused(&app, visitor, DraftPlace { id, show: "photo" }, &findings).await;
    }
    Ok(Redirect::to(&format!("/boards/drafts/{id}?show=photo")).into_response())
}

/// Over the rim where there is one; a far face mirrored, as one looks through the board.
fn first_place(draft: &Draft, size: (u32, u32), face: Face) -> Placement {
    let bounds = draft.outline.bounds();
    let mirrored = face == Face::Bottom;
    if bounds.width.is_finite() {
        return Placement::over(size, bounds.centre, bounds.width, mirrored);
    }
    let height = FIRST_WIDTH_MM * f64::from(size.1) / f64::from(size.0.max(1));
    let middle = mend_core::board::Point { x: FIRST_WIDTH_MM / 2.0, y: height / 2.0 };
    Placement::over(size, middle, FIRST_WIDTH_MM, mirrored)
}

pub(super) async fn serve(State(app): State<App>, Path(id): Path<String>) -> Result<Response, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("photograph"))?;
    let jpeg = app.reading(move |read| read.photo(id)).await?.ok_or(Refusal::NotFound("photograph"))?;
    // A number is never given to another picture.
    let headers =
        [(header::CONTENT_TYPE, "image/jpeg"), (header::CACHE_CONTROL, "private, max-age=31536000, immutable")];
    Ok((headers, jpeg).into_response())
}
