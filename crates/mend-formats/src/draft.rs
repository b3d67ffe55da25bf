//! A board while it is described, as the shop keeps every step of it: `urgent-mend/draft/2`.

use mend_core::board::draft::{Draft, DraftPart, Looked, Photo};
use mend_core::board::library::Values;
use mend_core::board::photo::Placement;
use mend_core::board::{Face, Outline, Point, Turn};
use mend_core::finding::Finding;
use serde::{Deserialize, Serialize};

use crate::board::component::ComponentFile;
use crate::board::connector::ConnectorFile;
use crate::board::file::{Copper, point, xy};
use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/draft/2";
const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/draft/1"] };
const RULE: &str = "draft_file";

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct DraftFile {
    format: String,
    name: String,
    maker: String,
    outline_mm: Vec<[f64; 2]>,
    thickness_mm: f64,
    copper: Copper,
    looked: Looked,
    #[serde(skip_serializing_if = "Option::is_none")]
    part: Option<DraftPartFile>,
    #[serde(alias = "neighbours")]
    components: Vec<ComponentFile>,
    photos: Vec<PhotoFile>,
    marks_mm: Vec<[f64; 2]>,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct DraftPartFile {
    made: ConnectorFile,
    #[serde(skip_serializing_if = "Option::is_none")]
    from: Option<(String, Values)>,
    at_mm: [f64; 2],
    turn: Turn,
    face: Face,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct PhotoFile {
    id: i64,
    face: Face,
    size_px: (u32, u32),
    placement: Placement,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    lined_up_mm: Option<f64>,
}

/// Reads a draft. What is missing in it is no objection.
pub fn parse(bytes: &[u8]) -> Result<Draft, Vec<Finding>> {
    let file: DraftFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    let part = file.part.map(DraftPartFile::into_part).transpose()?;
    let photo = |p: PhotoFile| {
        let PhotoFile { id, face, size_px, placement, lined_up_mm } = p;
        Photo { id, face, size: size_px, placement, lined_up_mm }
    };
    Ok(Draft {
        name: file.name,
        maker: file.maker,
        outline: Outline { corners: file.outline_mm.into_iter().map(point).collect() },
        stack: file.copper.into_stack(file.thickness_mm),
        looked: file.looked,
        part,
        components: file.components.into_iter().map(ComponentFile::into_component).collect(),
        photos: file.photos.into_iter().map(photo).collect(),
        marks: file.marks_mm.into_iter().map(point).collect(),
    })
}

/// Writes a draft.
pub fn write(draft: &Draft) -> Result<String, serde_json::Error> {
    let all = |points: &[Point]| points.iter().map(|p| xy(*p)).collect();
    let photo = |p: &Photo| {
        let Photo { id, face, size, placement, lined_up_mm } = *p;
        PhotoFile { id, face, size_px: size, placement, lined_up_mm }
    };
    let file = DraftFile {
        format: FORMAT.to_owned(),
        name: draft.name.clone(),
        maker: draft.maker.clone(),
        outline_mm: all(&draft.outline.corners),
        thickness_mm: draft.stack.thickness.in_mm(),
        copper: Copper::from_stack(&draft.stack),
        looked: draft.looked.clone(),
        part: draft.part.as_ref().map(DraftPartFile::from_part),
        components: draft.components.iter().map(ComponentFile::from_component).collect(),
        photos: draft.photos.iter().map(photo).collect(),
        marks_mm: all(&draft.marks),
    };
    serde_json::to_string(&file)
}

impl DraftPartFile {
    fn from_part(part: &DraftPart) -> Self {
        let DraftPart { made, from, at, turn, face } = part;
        Self { made: ConnectorFile::from_connector(made), from: from.clone(), at_mm: xy(*at), turn: *turn, face: *face }
    }

    fn into_part(self) -> Result<DraftPart, Vec<Finding>> {
        let Self { made, from, at_mm, turn, face } = self;
        Ok(DraftPart { made: made.into_connector()?, from, at: point(at_mm), turn, face })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn drafts_come_back_whole_whether_empty_or_full() {
        let board = include_bytes!("../../../demo/boards/osprake-quay-14.json");
        let full = Draft::from_board(&crate::board::parse(board).expect("a board"));
        let placement = Placement::over((1200, 800), Point { x: 30.0, y: 20.0 }, 90.0, true);
        let photo = Photo { id: 3, face: Face::Bottom, size: (1200, 800), placement, lined_up_mm: Some(0.3) };
        let marks = vec![Point { x: 1.0, y: 2.0 }];
        let looked = Looked { known: Some(("Quay".to_owned(), 0.004)), ..Looked::default() };
        let full = Draft { photos: vec![photo], marks, looked, ..full };
        for draft in [Draft::new("none yet"), full] {
            assert_eq!(parse(write(&draft).expect("can be written").as_bytes()).expect("a draft"), draft);
        }
    }
}
