//! Tables of where parts stand (CSV), as layout programs and assemblers write them: docs/formats/imports.md.
//!
//! A table has no outline and no sizes but those in its package names; what has no size, or letters that say nothing, is
//! left out and listed.

use mend_core::board::{Component, ComponentKind, Face, Point, Rect};
use mend_core::finding::Finding;

use crate::kicad::ImportNotes;
use crate::reading::shown;

const RULE: &str = "placement_file";
/// Larger tables are refused before they are read, bytes.
const LARGEST: usize = 4 * 1024 * 1024;
const MOST_ROWS: usize = 20_000;
/// Longer words are cut, letters.
const WORD: usize = 40;
/// Sizes of chips by their codes, mm (D: inch codes as they are used in package names).
const CHIPS: [(&str, f64, f64); 8] = [
    ("0201", 0.6, 0.3),
    ("0402", 1.0, 0.5),
    ("0603", 1.6, 0.8),
    ("0805", 2.0, 1.25),
    ("1206", 3.2, 1.6),
    ("1210", 3.2, 2.5),
    ("1812", 4.5, 3.2),
    ("2512", 6.4, 3.2),
];

/// A part of the table.
#[derive(Debug, Clone, PartialEq)]
pub struct PlacementRow {
    /// `C12`.
    pub reference: String,
    /// Its package, as named.
    pub package: String,
    /// Where, mm, as the table has it.
    pub at: Point,
    /// Degrees.
    pub turn: f64,
    /// Its face.
    pub face: Face,
}

/// Which column holds what.
struct TableColumns {
    reference: usize,
    package: Option<usize>,
    x: usize,
    y: usize,
    turn: Option<usize>,
    side: Option<usize>,
}

/// Reads a table.
pub fn rows(bytes: &[u8]) -> Result<Vec<PlacementRow>, Vec<Finding>> {
    if bytes.len() > LARGEST {
        let message = format!("{:.0} MB", bytes.len() as f64 / 1e6);
        return Err(vec![Finding::written(RULE, "file", message).hint("tables are up to 4 MB")]);
    }
    let first = bytes.split(|b| *b == b'\n').next().unwrap_or_default();
    let delimiter = [b';', b'\t'].into_iter().find(|d| first.contains(d)).unwrap_or(b',');
    let mut reader =
        csv::ReaderBuilder::new().delimiter(delimiter).flexible(true).trim(csv::Trim::All).from_reader(bytes);
    let broken = |error: csv::Error| {
        vec![Finding::written(RULE, "file", error.to_string()).hint("save the table as CSV in UTF-8")]
    };
    let columns = TableColumns::from_headers(reader.headers().map_err(broken)?)?;
    let mut rows = Vec::new();
    for (k, record) in reader.records().enumerate() {
        if k == MOST_ROWS {
            return Err(vec![Finding::written(RULE, "file", "more than 20 000 rows").hint("cut the table down")]);
        }
        let record = record.map_err(broken)?;
        rows.push(
            columns.row(&record).map_err(|finding| vec![Finding { place: format!("row {}", k + 2), ..finding }])?,
        );
    }
    Ok(rows)
}

impl TableColumns {
    fn from_headers(headers: &csv::StringRecord) -> Result<Self, Vec<Finding>> {
        let plain =
            |name: &str| name.to_ascii_lowercase().chars().filter(char::is_ascii_alphanumeric).collect::<String>();
        let names: Vec<String> = headers.iter().map(plain).collect();
        let find = |words: &[&str]| names.iter().position(|name| words.contains(&name.as_str()));
        let reference = find(&["ref", "reference", "designator", "refdes", "part"]);
        let x = find(&["posx", "x", "midx", "centerx", "centrex", "centerxmm", "xmm", "midxmm"]);
        let y = find(&["posy", "y", "midy", "centery", "centrey", "centerymm", "ymm", "midymm"]);
        let (Some(reference), Some(x), Some(y)) = (reference, x, y) else {
            let message = format!("columns {}", headers.iter().take(12).collect::<Vec<_>>().join(", "));
            let object = Finding::written(RULE, "header", message.chars().take(200).collect::<String>());
            return Err(vec![object.hint("name them Ref, PosX and PosY; Package, Rot and Side help")]);
        };
        Ok(Self {
            reference,
            package: find(&["package", "footprint", "case", "pattern"]),
            x,
            y,
            turn: find(&["rot", "rotation", "angle"]),
            side: find(&["side", "layer", "tb", "face", "topbottom"]),
        })
    }

    fn row(&self, record: &csv::StringRecord) -> Result<PlacementRow, Finding> {
        let cell = |k: Option<usize>| k.and_then(|k| record.get(k)).unwrap_or("");
        let (x, y) = (millimetres("PosX", cell(Some(self.x)))?, millimetres("PosY", cell(Some(self.y)))?);
        let side = cell(self.side).to_ascii_lowercase();
        Ok(PlacementRow {
            reference: shown(cell(Some(self.reference)), WORD),
            package: shown(cell(self.package), 2 * WORD),
            at: Point { x, y },
            turn: cell(self.turn).parse().ok().filter(|turn: &f64| turn.is_finite()).unwrap_or(0.0),
            face: if side.starts_with('b') { Face::Bottom } else { Face::Top },
        })
    }
}

/// A length with its unit; mm where none is written.
fn millimetres(column: &str, text: &str) -> Result<f64, Finding> {
    let (number, factor) = match text.trim().to_ascii_lowercase() {
        t if t.ends_with("mil") => (t.trim_end_matches("mil").trim().to_owned(), 0.0254),
        t if t.ends_with("mm") => (t.trim_end_matches("mm").trim().to_owned(), 1.0),
        t => (t, 1.0),
    };
    let value: Option<f64> = number.parse().ok().map(|value: f64| value * factor).filter(|value| value.abs() <= 2000.0);
    let object = || {
        Finding::written(RULE, column, format!("{column} “{}” is no length", shown(text, WORD)))
            .hint("in mm, up to 2000")
    };
    value.ok_or_else(object)
}

/// The rows as components, shifted; `part` is not one of its own components.
pub fn components(rows: &[PlacementRow], part: &str, by: Point, notes: &mut ImportNotes) -> Vec<Component> {
    rows.iter().filter(|row| row.reference != part).filter_map(|row| component(row, by, notes)).collect()
}

fn component(row: &PlacementRow, by: Point, notes: &mut ImportNotes) -> Option<Component> {
    let Some((width, depth)) = size(&row.package) else {
        notes.leave_out(&format!("{} ({}): no size in its package's name", row.reference, row.package));
        return None;
    };
    let Some(what) = ComponentKind::from_reference(&row.reference) else {
        notes.leave_out(&format!("{}: its letters say nothing of what it is", row.reference));
        return None;
    };
    let across = (row.turn / 90.0).round() as i64 % 2 != 0;
    let (width, depth) = if across { (depth, width) } else { (width, depth) };
    notes.take(&format!("{} by its letters, {} mm high", what.name(), what.height().in_mm()));
    let centre = Point { x: row.at.x + by.x, y: row.at.y + by.y };
    Some(what.at(row.reference.clone(), row.face, Rect { centre, width, depth }))
}

/// `4x4mm`, `7.3x4.3`, else a chip's code.
fn size(package: &str) -> Option<(f64, f64)> {
    let plain = package.to_ascii_lowercase();
    let chip = CHIPS.iter().find(|(code, ..)| plain.contains(code));
    written(&plain).or(chip.map(|(_, width, depth)| (*width, *depth)))
}

/// The first two numbers with an x between them that are a body's size.
fn written(plain: &str) -> Option<(f64, f64)> {
    let digit = |c: char| c.is_ascii_digit() || c == '.';
    plain.match_indices('x').find_map(|(at, _)| {
        let before: String = plain[..at].chars().rev().take_while(|c| digit(*c)).collect();
        let width: f64 = before.chars().rev().collect::<String>().parse().ok()?;
        let depth: f64 = plain[at + 1..].chars().take_while(|c| digit(*c)).collect::<String>().parse().ok()?;
        let fits = |side: f64| (0.1..=100.0).contains(&side);
        (fits(width) && fits(depth)).then_some((width, depth))
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::finding::problem::Problem;

    const TABLE: &str = "Ref,Val,Package,PosX,PosY,Rot,Side\n\
        J1,video,port,10.0,5.0,0,top\n\
        C3,100n,C_0402,12.5,8.0,90,top\n\
        U2,controller,QFN-24_4x4.5mm,400mil,-2.0mm,0,bottom\n\
        U9,mystery,package,1,1,0,top\n\
        TP1,pad,1x1mm,1,1,0,top\n";

    #[test]
    fn parts_with_a_size_become_components_and_the_others_are_listed() {
        let rows = rows(TABLE.as_bytes()).expect("sound");
        let mut notes = ImportNotes::default();
        let found = components(&rows, "J1", Point { x: 20.0, y: 0.0 }, &mut notes);
        let names: Vec<&str> = found.iter().map(|n| n.name.as_str()).collect();
        assert_eq!(names, ["C3", "U2"]);
        assert_eq!((found[0].body.width, found[0].body.depth), (0.5, 1.0), "turned by a quarter");
        assert!((found[1].body.centre.x - 30.16).abs() < 1e-9, "400 mil and 20 mm");
        assert_eq!((found[1].face, found[1].body.depth), (Face::Bottom, 4.5));
        assert_eq!(notes.left_out.len(), 2, "{notes:?}");
    }

    #[test]
    fn what_can_not_be_read_names_row_and_remedy() {
        let broken = TABLE.replace("12.5", "far");
        let found = rows(broken.as_bytes()).expect_err("no length");
        let far = |message: &str| message.contains("“far”");
        assert_eq!(found[0].place, "row 3");
        assert!(matches!(&found[0].problem, Problem::Written { message, .. } if far(message)), "{found:?}");
        assert_eq!(rows(b"a,b\n1,2\n").expect_err("no columns")[0].place, "header");
        assert!(rows(&[0xff, 0xfe, b'\n', 0xff]).is_err());
        assert!(rows(TABLE.replace(',', ";").as_bytes()).is_ok());
    }
}
