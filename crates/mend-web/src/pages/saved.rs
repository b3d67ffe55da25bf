//! What is saved as a file instead of shown.

use axum::http::header;
use axum::response::{IntoResponse, Response};

/// Kinds of files.
pub(crate) const CSV: &str = "text/csv; charset=utf-8";
pub(crate) const CALENDAR: &str = "text/calendar; charset=utf-8";
pub(crate) const JSON: &str = "application/json; charset=utf-8";

/// A file of that kind and name.
pub(crate) fn saved(kind: &'static str, name: &str, text: String) -> Response {
    let disposition = format!("attachment; filename=\"{name}\"");
    ([(header::CONTENT_TYPE, kind.to_owned()), (header::CONTENT_DISPOSITION, disposition)], text).into_response()
}

/// Rows of a table as lines of a CSV file.
pub(crate) fn rows(rows: &[Vec<String>]) -> String {
    rows.iter().map(|row| row.iter().map(|field| quoted(field)).collect::<Vec<_>>().join(",") + "\r\n").collect()
}

/// A field as RFC 4180 writes it. What a spreadsheet would take for a formula is no formula.
fn quoted(field: &str) -> String {
    let plain = if field.starts_with(['=', '+', '-', '@']) { format!("'{field}") } else { field.to_owned() };
    format!("\"{}\"", plain.replace('"', "\"\""))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_field_is_quoted_and_no_formula() {
        let row = ["a \"b\"", "=1+1", "x, y"].map(str::to_owned).to_vec();
        assert_eq!(rows(&[row]), "\"a \"\"b\"\"\",\"'=1+1\",\"x, y\"\r\n");
    }
}
