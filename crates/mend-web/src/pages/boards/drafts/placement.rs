//! Components from a table of where parts stand.

use std::sync::{Arc, Mutex, PoisonError};

use axum::extract::{Path, Request, State};
use axum::response::{IntoResponse, Response};
use mend_core::board::draft::{Draft, MOST_COMPONENTS};
use mend_core::board::{Component, Point};
use mend_core::finding::Finding;
use mend_formats::kicad::ImportNotes;
use mend_formats::placement::{self, PlacementRow};

use super::trace::{DraftPlace, refused};
use super::{adding, change, number};
use crate::App;
use crate::pages::boards::import_notes::Report;
use crate::refusal::Refusal;
use crate::upload::{self, SizeLimit};
use crate::visitor::Visitor;

const TABLE: SizeLimit = SizeLimit { bytes: 4 * 1024 * 1024, what: "a placement table (CSV)" };
/// What stands further from the part is not heated with it, mm (E).
const NEAR_MM: f64 = 45.0;

pub(super) async fn add(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    request: Request,
) -> Result<Response, Refusal> {
    let id = number(&id)?;
    let mut sent = match upload::read(request, &TABLE).await? {
        Ok(sent) => sent,
        Err(findings) => return refused(&app, visitor, DraftPlace { id, show: "components" }, &findings).await,
    };
    let reference = sent.text("reference").trim().to_owned();
    let rows = match placement::rows(&sent.bytes("table")) {
        Ok(rows) => rows,
        Err(findings) => return refused(&app, visitor, DraftPlace { id, show: "components" }, &findings).await,
    };
    // What came of it is told by the act itself, which sees the draft as it is.
    let told = Arc::new(Mutex::new((0, ImportNotes::default())));
    let tell = told.clone();
    let add = move |draft: &Draft| {
        let (by, mut draft, mut notes) = (shift(draft, &rows, &reference)?, draft.clone(), ImportNotes::default());
        let found = placement::components(&rows, &reference, by, &mut notes);
        let added = take_over(&mut draft, found);
        *tell.lock().unwrap_or_else(PoisonError::into_inner) = (added, notes);
        Ok(draft)
    };
    if let Err(findings) = change(&app, id, adding(format!("table-{:?}", app.moment())), add).await? {
        return refused(&app, visitor, DraftPlace { id, show: "components" }, &findings).await;
    }
    let (added, notes) = std::mem::take(&mut *told.lock().unwrap_or_else(PoisonError::into_inner));
    let frame_back = format!("/boards/drafts/{id}?show=components");
    Ok(Report::new(&format!("{added} components from the table"), &notes, visitor, frame_back).into_response())
}

/// From the table's places to the board's: by the part, which is in both.
fn shift(draft: &Draft, rows: &[PlacementRow], reference: &str) -> Result<Point, Vec<Finding>> {
    if reference.is_empty() {
        return Ok(Point { x: 0.0, y: 0.0 });
    }
    let object = |message: String, hint: &str| vec![Finding::written("placement", "reference", message).hint(hint)];
    let row = rows.iter().find(|row| row.reference == reference);
    let row = row.ok_or_else(|| {
        object(format!("“{reference}” is not in the table"), "the part's number as the table writes it")
    })?;
    let part = draft.part.as_ref().ok_or_else(|| object("there is no part yet".to_owned(), "take the part first"))?;
    Ok(Point { x: part.at.x - row.at.x, y: part.at.y - row.at.y })
}

/// Those near the part that have a name of their own, as many as there is room for. Answers how many.
fn take_over(draft: &mut Draft, found: Vec<Component>) -> usize {
    let before = draft.components.len();
    let at = draft.part.as_ref().map(|part| part.at);
    let near = |n: &Component| at.is_none_or(|at| (n.body.centre.x - at.x).hypot(n.body.centre.y - at.y) <= NEAR_MM);
    for component in found.into_iter().filter(near) {
        let taken = draft.components.iter().any(|n| n.name == component.name);
        if !taken && draft.components.len() < MOST_COMPONENTS {
            draft.components.push(component);
        }
    }
    draft.components.len() - before
}

#[cfg(test)]
mod tests {
    use mend_core::board::{ComponentKind, Face, Rect};

    use super::*;
    use crate::fixture::power_board;

    fn row(reference: &str, x: f64) -> PlacementRow {
        PlacementRow {
            reference: reference.to_owned(),
            package: String::new(),
            at: Point { x, y: 5.0 },
            turn: 0.0,
            face: Face::Top,
        }
    }

    #[test]
    fn the_table_is_shifted_by_the_part_which_is_in_both() {
        let draft = Draft::from_board(&power_board());
        let at = power_board().connector.body.centre;
        let by = shift(&draft, &[row("C1", 0.0), row("J7", 3.0)], "J7").expect("both have it");
        assert_eq!(by, Point { x: at.x - 3.0, y: at.y - 5.0 });
        assert_eq!(shift(&draft, &[], ""), Ok(Point { x: 0.0, y: 0.0 }));
        let places = [shift(&draft, &[], "J7"), shift(&Draft::new("x"), &[row("J7", 3.0)], "J7")];
        assert!(places.into_iter().all(|refused| refused.is_err_and(|f| f[0].place == "reference")));
    }

    #[test]
    fn what_is_near_and_new_is_taken_over() {
        let mut draft = Draft::from_board(&power_board());
        let at = power_board().connector.body.centre;
        let thing = |name: &str, away: f64| {
            let centre = Point { x: at.x + away, y: at.y };
            ComponentKind::Chip.at(name, Face::Top, Rect { centre, width: 2.0, depth: 2.0 })
        };
        let taken = draft.components[0].name.clone();
        assert_eq!(take_over(&mut draft, vec![thing("new", 20.0), thing("far", 80.0), thing(&taken, 10.0)]), 1);
        assert_eq!(draft.components.last().map(|n| n.name.as_str()), Some("new"));
    }
}
