//! Instruments at the bench: where each is, tried at a press.

use std::net::SocketAddr;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::{Path, State};
use axum::response::Redirect;
use axum::routing::{get, post};
use mend_devices::address::{BadAddress, parse};
use mend_store::InstrumentRow;
use serde::Deserialize;

use super::Frame;
use crate::App;
use crate::extract::Form;
use crate::instruments::{FirstValue, tried};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::instrument_fault;

/// Kinds by their keys.
const KINDS: [(&str, &str); 3] =
    [("thermometer", "thermocouple logger"), ("readout", "hot-air station"), ("meter", "meter")];
/// Longest name, characters.
const LONGEST_NAME: usize = 60;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/instruments", get(show).post(add))
        .route("/instruments/{id}", post(change))
        .route("/instruments/{id}/test", post(test))
        .route("/instruments/{id}/remove", post(remove))
}

/// An instrument in the list.
struct InstrumentView {
    row: InstrumentRow,
    kind: &'static str,
}

#[derive(Template, WebTemplate)]
#[template(path = "shop/instruments.html")]
struct InstrumentsPage {
    frame: Frame,
    kinds: [(&'static str, &'static str); 3],
    instruments: Vec<InstrumentView>,
}

async fn show(State(app): State<App>, visitor: Visitor) -> Result<InstrumentsPage, Refusal> {
    let rows = app.reading(|read| read.instruments()).await?;
    let kind =
        |row: &InstrumentRow| KINDS.iter().find(|(key, _)| *key == row.kind).map_or("instrument", |(_, name)| name);
    let instruments = rows.into_iter().map(|row| InstrumentView { kind: kind(&row), row }).collect();
    let frame = Frame::new("Instruments", visitor.scale, "shop", "/instruments".to_owned());
    Ok(InstrumentsPage { frame, kinds: KINDS, instruments })
}

/// What is typed of one.
#[derive(Deserialize)]
struct InstrumentForm {
    name: String,
    #[serde(default)]
    kind: String,
    address: String,
    #[serde(default)]
    at_bench: String,
}

/// Its address as a socket, or what is wrong with it.
pub(crate) fn socket(address: &str) -> Result<SocketAddr, Refusal> {
    parse(address).map_err(|bad| {
        let why = match bad {
            BadAddress::Unread => "is no address",
            BadAddress::Elsewhere => "is not in the shop's own network",
        };
        let hint = "type the instrument's number and port, like 192.168.1.40:5025; its own menu shows them";
        Refusal::field("address", format!("“{address}” {why}"), hint)
    })
}

impl InstrumentForm {
    fn row(&self, id: i64, kind: &str) -> Result<InstrumentRow, Refusal> {
        let name = self.name.trim();
        if !(1..=LONGEST_NAME).contains(&name.chars().count()) {
            return Err(Refusal::field("name", format!("“{name}” is no name"), "give it 1 to 60 characters"));
        }
        let known = KINDS.iter().find(|(key, _)| *key == kind);
        let (kind, _) = known
            .ok_or_else(|| Refusal::field("kind", format!("“{kind}” is no kind"), "thermometer, readout or meter"))?;
        let at_bench = *kind != "meter" && !self.at_bench.is_empty();
        let address = socket(&self.address)?.to_string();
        Ok(InstrumentRow { id, name: name.to_owned(), kind: (*kind).to_owned(), address, at_bench })
    }
}

async fn put(app: &App, row: InstrumentRow) -> Result<Redirect, Refusal> {
    let name = row.name.clone();
    if !app.writing(move |write| write.put_instrument(&row)).await? {
        let hint = "give this one another";
        return Err(Refusal::field("name", format!("another instrument is called “{name}”"), hint));
    }
    Ok(Redirect::to("/instruments"))
}

async fn add(State(app): State<App>, Form(sent): Form<InstrumentForm>) -> Result<Redirect, Refusal> {
    put(&app, sent.row(0, &sent.kind)?).await
}

async fn load(app: &App, Path(id): &Path<String>) -> Result<InstrumentRow, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("instrument"))?;
    app.reading(move |read| read.instrument(id)).await?.ok_or(Refusal::NotFound("instrument"))
}

async fn change(
    State(app): State<App>,
    path: Path<String>,
    Form(sent): Form<InstrumentForm>,
) -> Result<Redirect, Refusal> {
    let row = load(&app, &path).await?;
    put(&app, sent.row(row.id, &row.kind)?).await
}

async fn remove(State(app): State<App>, path: Path<String>) -> Result<Redirect, Refusal> {
    let row = load(&app, &path).await?;
    app.writing(move |write| write.remove_instrument(row.id)).await?;
    Ok(Redirect::to("/instruments"))
}

/// What it answered.
#[derive(Template, WebTemplate)]
#[template(path = "shop/instrument_tried.html")]
struct TriedPart {
    identity: String,
    reading: String,
    sound: bool,
}

/// What stands in the line that is tried, kept or not.
#[derive(Deserialize)]
struct TypedAddress {
    address: String,
}

/// Asks at the address that is typed: it is tried before it is kept, and what the line shows is what was asked.
async fn test(
    State(app): State<App>,
    visitor: Visitor,
    path: Path<String>,
    Form(typed): Form<TypedAddress>,
) -> Result<TriedPart, Refusal> {
    let row = load(&app, &path).await?;
    let at = socket(&typed.address)?;
    let asked = tokio::task::spawn_blocking(move || tried(&row.kind, at)).await;
    let asked = asked.map_err(|error| Refusal::Broken(error.to_string()))?;
    let sound = asked.identity.is_ok() && asked.reading.is_ok();
    let reading = asked.reading.map(|value| in_words(value, visitor));
    let [identity, reading] =
        [asked.identity, reading].map(|said| said.unwrap_or_else(|fault| instrument_fault(&fault)));
    Ok(TriedPart { identity, reading, sound })
}

fn in_words(value: FirstValue, visitor: Visitor) -> String {
    let words = visitor.words();
    match value {
        FirstValue::Celsius(celsius) => words.temperature(celsius),
        FirstValue::Volt(volt) => format!("{volt:.3} V"),
        FirstValue::HotAir(read) => {
            let [outlet, set] = [read.outlet_c, read.set_c].map(|celsius| words.temperature(celsius));
            format!("outlet {outlet}, set {set}, {} on its display", read.shown_flow)
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_instrument_needs_a_name_a_kind_and_an_address_of_the_shops_own() {
        let form = |name: &str, address: &str| InstrumentForm {
            name: name.to_owned(),
            kind: String::new(),
            address: address.to_owned(),
            at_bench: "yes".to_owned(),
        };
        let row = form(" Logger ", "10.0.0.9").row(3, "thermometer").expect("it can be");
        assert_eq!((row.name.as_str(), row.address.as_str(), row.at_bench), ("Logger", "10.0.0.9:5025", true));
        assert!(
            !form("Meter", "10.0.0.9").row(0, "meter").expect("it can be").at_bench,
            "it is no instrument of the heat"
        );
        for (name, address, kind) in
            [("", "10.0.0.9", "meter"), ("Logger", "1.1.1.1", "meter"), ("Logger", "10.0.0.9", "kettle")]
        {
            assert!(matches!(form(name, address).row(0, kind), Err(Refusal::Bad(_))), "{name} {address} {kind}");
        }
    }
}
