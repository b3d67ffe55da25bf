//! One station and its form: kept as it is typed, refused in words where it can't be planned with.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::Response;
use mend_core::finding::Finding;
use mend_core::heat::display::Shows;
use mend_core::heat::iron_heater::IronHeater;
use mend_core::heat::tool::Blower;
use mend_core::units::{Scale, Temperature};
use mend_formats::station::{self, StationFile};
use mend_store::StationRow;

use super::super::Frame;
use super::super::equipment::KeptNote;
use super::super::number::{degrees, number};
use super::super::word;
use super::known_view::KnownView;
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

const RULE: &str = "station";

pub(super) type StationPath = Path<String>;

/// A choice of the form.
struct StationChoice {
    key: String,
    name: &'static str,
    is: bool,
}

/// The form as it stands.
struct FormView {
    name: String,
    blowers: Vec<StationChoice>,
    set: [String; 2],
    unit: &'static str,
    flow: [String; 2],
    nozzles: String,
    heater: String,
    iron: [String; 2],
    shows: Vec<StationChoice>,
    table: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "stations/edit.html")]
pub(super) struct EditPage {
    frame: Frame,
    id: i64,
    retired: bool,
    former: Vec<String>,
    form: FormView,
    known: KnownView,
}

/// The station of an address.
pub(super) async fn load(app: &App, Path(id): &StationPath) -> Result<StationRow, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("station"))?;
    app.reading(move |read| read.station(id)).await?.ok_or(Refusal::NotFound("station"))
}

pub(super) async fn show(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<EditPage, Refusal> {
    let row = load(&app, &path).await?;
    // What can't be read is shown as a new one would be, with its name: it is set up anew by saving it.
    let file = station::read(row.file.as_bytes())
        .unwrap_or_else(|_| StationFile { name: row.name.clone(), ..super::templates::TEMPLATES[0].file() });
    let (id, name) = (row.id, row.name.clone());
    let mut former = app.reading(move |read| read.names_of_station(id)).await?;
    former.retain(|former| *former != name);
    Ok(EditPage {
        frame: Frame::new(row.name.clone(), visitor.scale, "stations", format!("/stations/{}", row.id)),
        id: row.id,
        retired: row.retired_ms.is_some(),
        former,
        known: KnownView::load(&app, row.id, &file, visitor).await?,
        form: FormView::from_file(&file, visitor.scale),
    })
}

impl FormView {
    fn from_file(file: &StationFile, scale: Scale) -> Self {
        let blower = |(blower, name)| StationChoice { key: word(&blower), name, is: blower == file.blower };
        let shows = |shows: Shows| StationChoice { key: word(&shows), name: shows.name(), is: shows == file.shows };
        let listed = |values: &[f64]| values.iter().map(f64::to_string).collect::<Vec<_>>().join(", ");
        Self {
            name: file.name.clone(),
            blowers: [(Blower::Fan, "a fan"), (Blower::Pump, "a pump")].map(blower).into(),
            set: file.set_c.map(|celsius| degrees(Temperature::celsius(celsius), scale)),
            unit: scale.symbol(),
            flow: file.flow_lpm.map(|lpm| lpm.to_string()),
            nozzles: listed(&file.nozzles_mm),
            heater: file.heater_w.map_or(String::new(), |watts| watts.to_string()),
            iron: [file.iron.most, file.iron.to_tip].map(|value| value.to_string()),
            shows: Shows::ALL.map(shows).into(),
            table: file.display.iter().map(|[shown, lpm]| format!("{shown} {lpm}")).collect::<Vec<_>>().join("\n"),
        }
    }
}

/// The form read over what the station was: what a probe has taught stays.
fn read(sent: &[(String, String)], before: &StationFile, scale: Scale) -> Result<StationFile, Vec<Finding>> {
    let get = |name: &str| sent.iter().find(|(field, _)| field == name).map_or("", |(_, value)| value.trim());
    let mut bad = Vec::new();
    let mut figure = |name: &str| number(RULE, name, get(name), &mut bad);
    let set_c = ["set-low", "set-high"].map(|name| scale.read(figure(name)).in_celsius());
    let flow_lpm = ["flow-low", "flow-high"].map(&mut figure);
    let heater_w = (!get("heater").is_empty()).then(|| figure("heater"));
    let iron = IronHeater { most: figure("iron-most"), to_tip: figure("iron-to-tip") };
    let parts = get("nozzles").split([';', ',', ' ']).map(str::trim).filter(|part| !part.is_empty());
    let nozzles_mm = parts.map(|part| number(RULE, "nozzles", part, &mut bad)).collect();
    let shows = Shows::ALL.into_iter().find(|shows| word(shows) == get("shows")).unwrap_or_default();
    let display = if shows == Shows::Flow { Vec::new() } else { table(get("table"), &mut bad) };
    let blower = if get("blower") == "pump" { Blower::Pump } else { Blower::Fan };
    if !bad.is_empty() {
        return Err(bad);
    }
    let name = get("name").to_owned();
    let file =
        StationFile { name, blower, set_c, flow_lpm, nozzles_mm, heater_w, iron, shows, display, ..before.clone() };
    file.clone().into_station()?;
    Ok(file)
}

/// A row a line: shown value, L/min.
fn table(text: &str, bad: &mut Vec<Finding>) -> Vec<[f64; 2]> {
    let mut rows = Vec::new();
    for (k, line) in text.lines().map(str::trim).filter(|line| !line.is_empty()).enumerate() {
        let words: Vec<&str> = line.split([' ', ';', '\t']).filter(|word| !word.is_empty()).collect();
        match words.as_slice() {
            [shown, lpm] => rows.push([*shown, *lpm].map(|word| number(RULE, "table", word, bad))),
            _ => {
                let object = Finding::written(RULE, format!("table, row {}", k + 1), format!("“{line}” is no row"));
                bad.push(object.hint("two numbers: what is shown, and L/min"));
            }
        }
    }
    rows
}

pub(super) async fn save(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let row = load(&app, &path).await?;
    let usual = || super::templates::TEMPLATES[0].file();
    let before = station::read(row.file.as_bytes()).unwrap_or_else(|_| usual());
    let file = match read(&sent, &before, visitor.scale) {
        Ok(file) => file,
        Err(findings) => return Ok(KeptNote::refused(visitor, &findings)),
    };
    let (id, name, text) = (row.id, file.name.clone(), station::write(&file)?);
    let kept = app.writing(move |w| w.set_station(id, &name, &text)).await?;
    if !kept {
        let taken = Finding::written(RULE, "name", format!("another station is or was called “{}”", file.name));
        return Ok(KeptNote::refused(visitor, &[taken.hint("give this one another name")]));
    }
    list_open_jobs(&app).await?;
    Ok(KeptNote::kept(&app))
}

/// Plans for the station as it was are none any more: the lists say so. A job at a time, so that presses go between.
pub(super) async fn list_open_jobs(app: &App) -> Result<(), Refusal> {
    for listed in app.reading(|read| read.open_jobs()).await? {
        app.writing(move |w| Job::list(w, listed.job_id)).await?;
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sent(changed: &[(&str, &str)]) -> Vec<(String, String)> {
        let usual = [
            ("name", "Tern"),
            ("blower", "pump"),
            ("set-low", "212"),
            ("set-high", "896"),
            ("flow-low", "5"),
            ("flow-high", "40"),
            ("nozzles", "20, 8; 5"),
            ("heater", ""),
            ("iron-most", "80"),
            ("iron-to-tip", "2.5"),
            ("shows", "percent"),
            ("table", "10 5\n100 40"),
        ];
        let value = |(name, usual): (&str, &str)| {
            let value = changed.iter().find(|(field, _)| *field == name).map_or(usual, |(_, value)| *value);
            (name.to_owned(), value.to_owned())
        };
        usual.map(value).into()
    }

    fn read_as(changed: &[(&str, &str)]) -> Result<StationFile, Vec<Finding>> {
        let before = StationFile { jet_scale: 0.9, jet_spread: 0.1, ..super::super::templates::TEMPLATES[0].file() };
        read(&sent(changed), &before, Scale::Fahrenheit)
    }

    #[test]
    fn a_station_is_read_in_the_visitors_degrees_and_keeps_what_a_probe_taught() {
        let file = read_as(&[]).expect("can be kept");
        assert_eq!((file.set_c, file.nozzles_mm.as_slice()), ([100.0, 480.0], &[20.0, 8.0, 5.0][..]));
        assert_eq!((file.jet_scale, file.jet_spread, file.heater_w), (0.9, 0.1, None));
        assert_eq!(file.iron, IronHeater { to_tip: 2.5, most: 80.0 });
        assert_eq!(file.display, [[10.0, 5.0], [100.0, 40.0]]);
        assert_eq!(FormView::from_file(&file, Scale::Fahrenheit).table, "10 5\n100 40");
    }

    #[test]
    fn what_can_not_be_planned_with_is_named() {
        for (field, value, place) in [
            ("set-high", "hot", "set-high"),
            ("nozzles", "20, wide", "nozzles"),
            ("nozzles", "", "nozzles_mm"),
            ("table", "10\n100 40", "table, row 1"),
            ("table", "100 5\n10 40", "display"),
            ("flow-high", "2", "flow_lpm[1]"),
            ("iron-most", "strong", "iron-most"),
            ("iron-to-tip", "0", "iron.to_tip_k_per_w"),
            ("name", " ", "name"),
        ] {
            let found = read_as(&[(field, value)]).expect_err(field);
            assert_eq!(found[0].place, place, "{field} {value}");
        }
    }
}
