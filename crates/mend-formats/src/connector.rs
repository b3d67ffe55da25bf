//! A connector of the shop's own library, `urgent-mend/connector/1`: docs/formats/connector.md. Its body's middle is the
//! origin, its mouth towards the reader.

use mend_core::board::{Connector, Face, Point, Pose, Turn};
use mend_core::finding::Finding;
use serde::{Deserialize, Serialize};

use crate::board::connector::ConnectorFile;
use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/connector/1";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
const RULE: &str = "connector_file";

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct OwnFile {
    format: String,
    connector: ConnectorFile,
}

/// Reads a connector.
pub fn parse(bytes: &[u8]) -> Result<Connector, Vec<Finding>> {
    let file: OwnFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    let connector = file.connector.into_connector()?;
    if connector.joints.is_empty() {
        return Err(vec![Finding::written(RULE, "connector.joints", "no joints").hint("list at least one joint")]);
    }
    Ok(connector)
}

/// Writes a connector about its body's middle, on the top face.
pub fn write(connector: &Connector) -> Result<String, serde_json::Error> {
    let middle = connector.placed(Pose { at: Point { x: 0.0, y: 0.0 }, turn: Turn::None, face: Face::Top });
    let file = OwnFile { format: FORMAT.to_owned(), connector: ConnectorFile::from_connector(&middle) };
    Ok(serde_json::to_string_pretty(&file)? + "\n")
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::board::library::{KINDS, Values};
    use mend_core::finding::problem::Problem;

    #[test]
    fn every_kind_of_the_library_is_written_and_read_back() {
        for kind in KINDS {
            let made = kind.make(&Values::new()).expect("usual sizes");
            let moved = made.placed(Pose { at: Point { x: 12.0, y: 7.5 }, turn: Turn::None, face: Face::Top });
            let read = parse(write(&moved).expect("can be written").as_bytes()).expect(kind.key);
            assert_eq!((read.joints.len(), &read.tests), (made.joints.len(), &made.tests));
            assert_eq!(write(&read).ok(), write(&made).ok(), "{}", kind.key);
        }
    }

    #[test]
    fn a_file_of_another_kind_is_refused_by_name() {
        let found = parse(br#"{"format": "urgent-mend/board/1", "connector": {}}"#).expect_err("no connector");
        assert!(matches!(&found[0].problem, Problem::Written { hint, .. } if !hint.is_empty()), "{found:?}");
    }
}
