//! What an import took for what, and what it left out.

use std::collections::BTreeMap;

use askama::Template;
use askama_web::WebTemplate;
use mend_formats::kicad::Said;

use crate::pages::Frame;
use crate::visitor::Visitor;

/// One kind of thing and how often.
pub(crate) struct Line {
    pub(crate) what: String,
    pub(crate) times: usize,
}

/// The page after an import.
#[derive(Template, WebTemplate)]
#[template(path = "boards/report.html")]
pub(crate) struct Report {
    frame: Frame,
    title: String,
    taken: Vec<Line>,
    left_out: Vec<Line>,
    onward: String,
}

/// Most first.
pub(crate) fn lines(counted: &BTreeMap<String, usize>) -> Vec<Line> {
    let mut lines: Vec<Line> = counted.iter().map(|(what, times)| Line { what: what.clone(), times: *times }).collect();
    lines.sort_by(|a, b| b.times.cmp(&a.times).then_with(|| a.what.cmp(&b.what)));
    lines
}

impl Report {
    pub(crate) fn new(title: &str, said: &Said, (visitor, onward): (Visitor, String)) -> Self {
        let frame = Frame::new(title, visitor.scale, "boards", onward.clone());
        Self { frame, title: title.to_owned(), taken: lines(&said.taken), left_out: lines(&said.left_out), onward }
    }
}
