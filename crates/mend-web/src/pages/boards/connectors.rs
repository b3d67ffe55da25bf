//! The library of connectors: kinds, and the shop's own, each drawn at its usual sizes.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::board::library::{KINDS, LibraryConnector, Values};
use mend_core::board::{Connector, Role};

use crate::App;
use crate::draw::part_picture::PartPicture;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// A connector as a picture.
struct ConnectorCard {
    name: String,
    known_by: String,
    joints: String,
    sizes: Vec<String>,
    tests: Vec<String>,
    picture: PartPicture,
}

#[derive(Template, WebTemplate)]
#[template(path = "boards/connectors.html")]
pub(super) struct ConnectorsPage {
    frame: Frame,
    own: Vec<ConnectorCard>,
    kinds: Vec<ConnectorCard>,
}

impl ConnectorCard {
    fn from_connector(connector: &Connector, known_by: String, sizes: Vec<String>) -> Self {
        let count = |what: fn(&mend_core::board::Joint) -> bool| connector.joints.iter().filter(|j| what(j)).count();
        let pins = count(|j| j.role != Role::Anchor);
        let holes = count(|j| j.shape.is_hole());
        let summary = [
            (pins, "pins"),
            (connector.joints.len() - pins, "anchors"),
            (holes, "through holes"),
            (count(|j| j.hidden), "hidden"),
            (connector.pegs as usize, "pegs"),
        ];
        let summary = summary.iter().filter(|(count, _)| *count > 0).map(|(count, what)| format!("{count} {what}"));
        Self {
            name: connector.name.clone(),
            known_by,
            joints: format!("{}; {}", summary.collect::<Vec<_>>().join(", "), connector.material.name()),
            sizes,
            tests: connector.tests.clone(),
            picture: PartPicture::from_connector(connector),
        }
    }

    fn from_kind(kind: &LibraryConnector) -> Option<Self> {
        let made = kind.make(&Values::new()).ok()?;
        let sizes = kind.params.iter().map(|param| param.label.to_owned()).collect();
        Some(Self::from_connector(&made, kind.known_by.to_owned(), sizes))
    }
}

pub(super) async fn show(State(app): State<App>, visitor: Visitor) -> Result<ConnectorsPage, Refusal> {
    let rows = app.reading(|read| read.connectors()).await?;
    let own = rows.iter().filter_map(|row| {
        let connector = mend_formats::connector::parse(row.file.as_bytes()).ok()?;
        Some(ConnectorCard::from_connector(&connector, String::new(), vec![]))
    });
    Ok(ConnectorsPage {
        frame: Frame::new("Connectors", visitor.scale, "boards", "/boards/connectors".to_owned()),
        own: own.collect(),
        kinds: KINDS.iter().filter_map(ConnectorCard::from_kind).collect(),
    })
}
