//! What an import took for what, and what it left out.

use std::collections::BTreeMap;

use askama::Template;
use askama_web::WebTemplate;
use mend_formats::kicad::ImportNotes;

use crate::pages::Frame;
use crate::visitor::Visitor;

/// One kind of thing and how often.
pub(crate) struct BoardLine {
    pub(crate) what: String,
    pub(crate) times: usize,
}

/// The page after an import.
#[derive(Template, WebTemplate)]
#[template(path = "boards/report.html")]
pub(crate) struct Report {
    frame: Frame,
    title: String,
    taken: Vec<BoardLine>,
    left_out: Vec<BoardLine>,
    onward: String,
}

/// Most first.
pub(crate) fn lines(counted: &BTreeMap<String, usize>) -> Vec<BoardLine> {
    let mut lines: Vec<BoardLine> =
        counted.iter().map(|(what, times)| BoardLine { what: what.clone(), times: *times }).collect();
    lines.sort_by(|a, b| b.times.cmp(&a.times).then_with(|| a.what.cmp(&b.what)));
    lines
}

impl Report {
    pub(crate) fn new(title: &str, summary: &ImportNotes, visitor: Visitor, onward: String) -> Self {
        let frame = Frame::new(title, visitor.scale, "boards", onward.clone());
        Self {
            frame,
            title: title.to_owned(),
            taken: lines(&summary.taken),
            left_out: lines(&summary.left_out),
            onward,
        }
    }
}
