//! The alloy desk: two solders, a slider between them, and what the mix melts at. No job needed.

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use mend_core::finding::Finding;
use mend_core::materials::{ALLOYS, Composition, Metal};
use mend_core::solder::{MeltCurve, MeltTarget, flags, melt_curve};
use mend_core::units::{TempDelta, Temperature};
use serde::Deserialize;

use super::Frame;
use super::jobs::alloy_view::banded;
use crate::App;
use crate::draw::melt_picture::{MeltDiagram, MeltPicture, melt_picture};
use crate::extract::Query;
use crate::visitor::Visitor;
use crate::words::{FindingView, Words};

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/alloys", get(show))
}

/// What is asked.
#[derive(Deserialize)]
pub(crate) struct MixQuery {
    #[serde(default = "first_metal")]
    a: String,
    #[serde(default = "second_metal")]
    b: String,
    #[serde(default = "first_share")]
    share: String,
}

fn first_metal() -> String {
    "SAC305".to_owned()
}
fn second_metal() -> String {
    "Sn42Bi58".to_owned()
}
fn first_share() -> String {
    "40".to_owned()
}

/// What the desk says.
struct MixView {
    works: String,
    made: String,
    liquidus: String,
    solidus: String,
    last: String,
    last_why: String,
    density: String,
    picture: MeltPicture,
    findings: Vec<FindingView>,
    notes: Vec<String>,
    confidence: &'static str,
}

#[derive(Template, WebTemplate)]
#[template(path = "alloys.html")]
struct AlloysPage {
    frame: Frame,
    alloys: Vec<&'static str>,
    asked: MixQuery,
    view: Result<MixView, Vec<FindingView>>,
}

async fn show(visitor: Visitor, Query(asked): Query<MixQuery>) -> Response {
    let words = visitor.words();
    let view = mix(&asked).map(|(first, mix)| view(&asked.a, &first, &mix, words));
    let view = view.map_err(|findings| words.findings(&findings));
    let status = if view.is_ok() { StatusCode::OK } else { StatusCode::UNPROCESSABLE_ENTITY };
    let frame = Frame::new("Alloys", visitor.scale, "alloys", "/alloys".to_owned());
    (status, AlloysPage { frame, alloys: ALLOYS.iter().map(|a| a.name).collect(), asked, view }).into_response()
}

fn mix(asked: &MixQuery) -> Result<(Composition, Composition), Vec<Finding>> {
    let first = Metal::parse("a", &asked.a)?.composition;
    if asked.b.trim().is_empty() {
        return Ok((first, first));
    }
    let second = Metal::parse("b", &asked.b)?.composition;
    let share: f64 = asked.share.trim().replace(',', ".").parse().unwrap_or(f64::NAN);
    if !(0.0..=100.0).contains(&share) {
        let object = Finding::written("desk", "share", format!("“{}” is no share", asked.share));
        return Err(vec![object.hint("a number between 0 and 100 %")]);
    }
    Ok((first, Composition::mixed(&[(first, 100.0 - share), (second, share)]).unwrap_or(first)))
}

fn view(name: &str, first: &Composition, mix: &Composition, words: Words) -> MixView {
    let scale = words.scale;
    let (curve, plain) = (melt_curve(mix), melt_curve(first));
    let at = |t: Option<Temperature>, spread: TempDelta| {
        let target = t.map(|melted| MeltTarget::straight(melted, melted, spread));
        target.map_or("not computed".to_owned(), |target| banded(&target, scale))
    };
    let MeltCurve { band, .. } = curve;
    let end = curve.scheil_end;
    let scene = MeltDiagram {
        mix: &curve,
        factory: (mix != first).then_some((name, &plain)),
        works: curve.t98.map(|t| (t, band.liquidus)),
        joints: None,
        scale,
    };
    MixView {
        works: at(curve.t98, band.liquidus),
        made: mix.summary(),
        liquidus: at(curve.liquidus, band.liquidus),
        solidus: at(curve.solidus, band.freezing),
        last: at(end.map(|end| end.at), band.freezing),
        last_why: end.map_or(String::new(), |end| format!("{:.2} % of it, cooled quickly", end.moles * 100.0)),
        density: format!("{:.2} g/cm³", mix.density()),
        picture: melt_picture(&scene),
        findings: words.findings(&flags(mix)),
        notes: curve.notes().iter().map(|note| words.melt_note(note)).collect(),
        confidence: band.family,
    }
}
