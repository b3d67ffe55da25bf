//! Equipment and skill: what the shop has and can, kept as it is ticked, for every job.

use std::collections::BTreeSet;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use mend_core::finding::Finding;
use mend_core::materials::ALLOYS;
use mend_core::method::equipment::{SkillLevel, Sucker};
use mend_core::method::usual::SHIELDS;
use mend_formats::equipment::{EquipmentFile, FORMAT, write};

use super::Frame;
use crate::App;
use crate::extract::Form;
use crate::pages::{number::number as read_number, word};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

/// A choice of the form.
pub(crate) struct Option_ {
    pub(crate) key: String,
    pub(crate) name: &'static str,
    pub(crate) is: bool,
}

/// The form as it stands.
pub(crate) struct MeansView {
    pub(crate) levels: Vec<Option_>,
    pub(crate) suckers: Vec<Option_>,
    pub(crate) shields: Vec<Option_>,
    pub(crate) tips: String,
    pub(crate) alloys: String,
    pub(crate) preheater: bool,
    pub(crate) wire: bool,
    pub(crate) bath: bool,
    pub(crate) shared_microscope: bool,
    pub(crate) names: Vec<&'static str>,
}

/// What is answered to a change: that it is kept, or what can't be read.
#[derive(Template, WebTemplate)]
#[template(path = "shop/kept.html")]
pub(crate) struct KeptNote {
    at: String,
    findings: Vec<FindingView>,
}

impl KeptNote {
    /// It is kept, now.
    pub(crate) fn kept(app: &App) -> Response {
        Self { at: app.now().strftime("%H:%M:%S").to_string(), findings: Vec::new() }.into_response()
    }

    /// It is not kept, and why.
    pub(crate) fn refused(visitor: Visitor, findings: &[Finding]) -> Response {
        let findings = visitor.words().findings(findings);
        (StatusCode::UNPROCESSABLE_ENTITY, Self { at: String::new(), findings }).into_response()
    }
}

#[derive(Template, WebTemplate)]
#[template(path = "shop/equipment.html")]
struct EquipmentPage {
    frame: Frame,
    equipment: MeansView,
}

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/equipment", get(show).post(keep))
}

async fn show(State(app): State<App>, visitor: Visitor) -> Result<EquipmentPage, Refusal> {
    let file = crate::planner::equipment(&app).await?;
    let frame = Frame::new("Equipment and skill", visitor.scale, "shop", "/equipment".to_owned());
    Ok(EquipmentPage { frame, equipment: MeansView::from_file(&file) })
}

impl MeansView {
    pub(crate) fn from_file(file: &EquipmentFile) -> Self {
        let levels =
            SkillLevel::ALL.map(|level| Option_ { key: word(&level), name: level.name(), is: level == file.level });
        let suckers = [(Sucker::None, "braid alone"), (Sucker::Pump, "spring pump"), (Sucker::Vacuum, "vacuum iron")];
        let suckers = suckers.map(|(s, name)| Option_ { key: word(&s), name, is: s == file.sucker });
        let shields = SHIELDS.map(|(key, name, _)| Option_ {
            key: key.to_owned(),
            name,
            is: file.shields.iter().any(|have| have == key),
        });
        let tips = file.tips_mm.iter().map(f64::to_string).collect::<Vec<_>>().join(", ");
        Self {
            levels: levels.into(),
            suckers: suckers.into(),
            shields: shields.into(),
            alloys: file.alloys.join(", "),
            tips,
            preheater: file.preheater,
            wire: file.wire,
            bath: file.bath,
            shared_microscope: file.shared_microscope,
            names: ALLOYS.iter().map(|alloy| alloy.name).collect(),
        }
    }
}

/// In a line, beside what is weighed with it.
pub(crate) fn summary(file: &EquipmentFile) -> String {
    let mut have = vec![format!("{} hands", file.level.name()), format!("{} tips", file.tips_mm.len())];
    have.extend(file.preheater.then(|| "preheater".to_owned()));
    have.extend(
        (file.sucker != Sucker::None).then(|| format!("{} iron", word(&file.sucker)).replace("pump iron", "pump")),
    );
    have.extend(file.wire.then(|| "wire".to_owned()));
    have.extend(file.bath.then(|| "bath".to_owned()));
    have.push(format!("{} kinds of shield", file.shields.len()));
    have.push(file.alloys.join(", "));
    have.join(" · ")
}

/// Reads the form; everything that can't be read is objected to by its name, with what was typed.
fn read(sent: &[(String, String)]) -> Result<EquipmentFile, Vec<Finding>> {
    let get = |name: &str| sent.iter().find(|(field, _)| field == name).map_or("", |(_, value)| value.as_str());
    let mut bad = Vec::new();
    let usual = EquipmentFile::default();
    let level = SkillLevel::ALL.into_iter().find(|level| word(level) == get("level")).unwrap_or(usual.level);
    let suckers = [Sucker::None, Sucker::Pump, Sucker::Vacuum];
    let sucker = suckers.into_iter().find(|s| word(s) == get("sucker")).unwrap_or(usual.sucker);
    let listed = |text: &str| {
        text.split(';').flat_map(|part| part.split(", ")).map(str::trim).map(str::to_owned).collect::<Vec<_>>()
    };
    let tips = listed(get("tips")).into_iter().filter(|tip| !tip.is_empty());
    let tips_mm = tips.map(|tip| read_number("equipment", "tips", &tip, &mut bad)).collect();
    let mut seen = BTreeSet::new();
    let alloys =
        listed(get("alloys")).into_iter().filter(|name| !name.is_empty() && seen.insert(name.clone())).collect();
    let shields = sent.iter().filter(|(field, _)| field == "shield").map(|(_, key)| key.clone()).collect();
    let file = EquipmentFile {
        format: FORMAT.to_owned(),
        level,
        tips_mm,
        preheater: !get("preheater").is_empty(),
        sucker,
        wire: !get("wire").is_empty(),
        bath: !get("bath").is_empty(),
        shared_microscope: !get("microscope").is_empty(),
        shields,
        alloys,
    };
    if !bad.is_empty() {
        return Err(bad);
    }
    file.equipment()?;
    Ok(file)
}

async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let file = match read(&sent) {
        Ok(file) => file,
        Err(findings) => {
            return Ok(KeptNote::refused(visitor, &findings));
        }
    };
    let (text, now) = (write(&file)?, app.now_ms());
    app.writing(move |w| w.set_equipment(&text, now)).await?;
    Ok(KeptNote::kept(&app))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::words::Words;

    #[test]
    fn the_form_comes_back_as_it_was_typed_and_what_can_not_be_read_is_named() {
        let sent =
            |pairs: &[(&str, &str)]| pairs.iter().map(|(a, b)| ((*a).to_owned(), (*b).to_owned())).collect::<Vec<_>>();
        let typed = [
            ("level", "practised"),
            ("sucker", "vacuum"),
            ("tips", "1, 2.5; 4"),
            ("preheater", "yes"),
            ("bath", "yes"),
            ("shield", "foil-tent"),
        ];
        let mut all = sent(&typed);
        all.extend(sent(&[("alloys", "SAC305, Sn63Pb37, SAC305")]));
        let file = read(&all).expect("can be read");
        assert_eq!(
            (file.level, file.sucker, [file.preheater, file.bath, file.wire, file.shared_microscope]),
            (SkillLevel::Practised, Sucker::Vacuum, [true, true, false, false])
        );
        assert_eq!((file.tips_mm.as_slice(), file.alloys.len()), (&[1.0, 2.5, 4.0][..], 2));
        assert_eq!(MeansView::from_file(&file).tips, "1, 2.5, 4");
        let findings = read(&sent(&[("tips", "wide"), ("alloys", "")])).expect_err("no number");
        assert!(Words::default().first(&findings).contains("“wide”"), "{findings:?}");
        let findings = read(&sent(&[("alloys", "Mithril")])).expect_err("no alloy");
        assert!(findings[0].place.starts_with("alloys"), "{findings:?}");
    }
}
