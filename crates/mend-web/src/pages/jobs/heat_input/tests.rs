use super::super::heat_form::{FormContext, Settings};
use super::*;
use crate::fixture::{gull, planned, power_board};
use crate::words::Words;
use mend_core::heat::motion::Motion;
use mend_core::heat::recipe::HeatingStage;
use mend_core::heat::shield::ShieldKind;
use mend_core::heat::tool::{ComesNearWhen, Tilt};
use mend_core::method::JobKind;
use mend_core::units::Length;

const FULL: &[(&str, &str)] = &[
    ("set", "752"),
    ("flow", "90"),
    ("nozzle", "22"),
    ("distance", "25"),
    ("face", "bottom"),
    ("motion", "along-row"),
    ("aim-x", "-2,5"),
    ("aim-y", "1"),
    ("longest", "180"),
    ("station", "Gull, bench 1"),
    ("keep_intact", "both"),
    ("stage-0-lasts", "30"),
    ("stage-0-change", "5"),
    ("stage-0-set", "572"),
    ("stage-0-flow", "96"),
    ("stage-0-nozzle", "22"),
    ("stage-0-distance", "25"),
    ("stage-0-face", "bottom"),
    ("stage-0-motion", "still"),
    ("stage-1-lasts", "20"),
    ("stage-1-change", "0"),
    ("preheater", "yes"),
    ("preheater-set", "356"),
    ("preheater-coupling", "gap"),
    ("preheater-face", "bottom"),
    ("preheater-side", "120"),
    ("iron", "yes"),
    ("iron-set", "716"),
    ("iron-tip", "4"),
    ("iron-row", "legs"),
    ("shield-0-kind", "polyimide"),
    ("shield-0-amount", "2"),
    ("shield-0-face", "top"),
    ("shield-0-x", "14"),
    ("shield-0-y", "18"),
    ("shield-0-width", "9"),
    ("shield-0-depth", "9"),
    ("shield-1-kind", "aluminium-tape"),
    ("shield-1-face", "top"),
    ("shield-1-x", "44"),
    ("shield-1-y", "8"),
    ("shield-1-width", "12"),
    ("shield-1-depth", "6"),
];

fn sent(scale: Scale, changed: &[(&str, &str)]) -> FormInput {
    let value = |(name, usual): &(&str, &str)| {
        let typed = changed.iter().find(|(field, _)| field == name).map_or(*usual, |(_, typed)| typed);
        ((*name).to_owned(), typed.to_owned())
    };
    FormInput::new(FULL.iter().map(value).collect(), scale)
}

#[test]
fn a_whole_form_is_read_in_the_visitors_degrees() {
    let inputs = sent(Scale::Fahrenheit, &[]).inputs().expect("can be read");
    let recipe = &inputs.settings;
    assert!(inputs.keep_intact == KeepIntact::Both);
    assert_eq!(
        recipe.air.map(|air| (air.set.in_celsius().round(), air.motion, air.aim)),
        Some((400.0, Motion::AlongRow, [-2.5, 1.0]))
    );
    let stages: Vec<&str> = recipe.preheat.iter().map(HeatingStage::name).collect();
    assert_eq!(stages, ["air", "pause"]);
    let preheater = recipe.during.preheater.expect("a preheater");
    assert!((preheater.set.in_celsius() - 180.0).abs() < 1e-9);
    assert_eq!(recipe.during.iron.as_ref().map(|iron| iron.row.as_str()), Some("legs"));
    let kinds: Vec<ShieldKind> = recipe.shields.iter().map(|s| s.kind).collect();
    assert_eq!(kinds, [ShieldKind::Polyimide { layers: 2 }, ShieldKind::AluminiumTape]);
}

#[test]
fn what_is_seldom_set_is_read_where_it_is_and_nothing_where_it_is_left_empty() {
    let rare = [
        ("approach-from", "80"),
        ("approach-over", "20"),
        ("approach-when", "flux-smokes"),
        ("lean", ""),
        ("towards", ""),
        ("begins-at", "212"),
        ("second-iron", "yes"),
        ("second-iron-set", "662"),
        ("second-iron-tip", "2"),
        ("second-iron-row", "every joint"),
        ("second-iron-dwell", "3"),
        ("purpose", "set-on"),
    ];
    let fields = FULL.iter().chain(&rare).map(|(name, value)| ((*name).to_owned(), (*value).to_owned()));
    let inputs = FormInput::new(fields.collect(), Scale::Fahrenheit).inputs().expect("can be read");
    let (recipe, air) = (&inputs.settings, inputs.settings.air.expect("hot air"));
    assert_eq!(
        air.approach.map(|approach| (approach.from, approach.over, approach.when)),
        Some((Length::mm(80.0), Duration::seconds(20.0), ComesNearWhen::FluxSmokes))
    );
    assert_eq!((air.tilt, inputs.purpose), (None, Purpose::SetOn));
    assert!(recipe.begins_at.is_some_and(|begins| (begins.in_celsius() - 100.0).abs() < 1e-9));
    let second = recipe.during.second_iron.as_ref().expect("a second iron");
    assert_eq!((second.row.as_str(), second.dwell_s()), ("every joint", 3));
    let half = FULL.iter().chain(&[("lean", "30"), ("towards", "")]);
    let half = half.map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect();
    let inputs = FormInput::new(half, Scale::Celsius).inputs().expect("can be read");
    let tilt = inputs.settings.air.and_then(|air| air.tilt);
    assert_eq!(tilt, Some(Tilt { lean_deg: 30.0, towards_deg: 0.0 }), "to the right, where nothing is said");
}

#[test]
fn everything_that_can_not_be_read_is_named_at_once() {
    let slips = [
        ("set", "hot"),
        ("face", "left"),
        ("stage-1-lasts", ""),
        ("preheater-coupling", "glue"),
        ("shield-0-amount", "1.5"),
        ("shield-1-width", "NaN"),
    ];
    let found = sent(Scale::Celsius, &slips).inputs().expect_err("slips");
    let places: Vec<&str> = found.iter().map(|f| f.place.as_str()).collect();
    for (place, typed) in slips {
        let finding = found.iter().find(|f| f.place == place).unwrap_or_else(|| panic!("{place} in {places:?}"));
        let view = Words::default().finding(finding);
        assert!(view.message.contains(&format!("“{typed}”")) && !view.hint.is_empty(), "{view:?}");
    }
    assert_eq!(found.len(), slips.len(), "{places:?}");
}

#[test]
fn a_form_that_leaves_out_the_aim_means_the_middle() {
    let fields = FULL.iter().filter(|(name, _)| !name.starts_with("aim"));
    let fields = fields.map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect();
    let inputs = FormInput::new(fields, Scale::Celsius).inputs().expect("can be read");
    assert_eq!(inputs.settings.air.map(|air| air.aim), Some([0.0, 0.0]));
}

#[test]
fn the_form_shows_what_is_set_and_offers_what_the_shop_owns() {
    let (inputs, _) = planned();
    let (stations, board) = ([gull()], power_board());
    let shop = FormContext { stations: &stations, board: &board, scale: Scale::Fahrenheit, kind: JobKind::Replace };
    let settings = Settings::from_inputs(inputs, &shop);
    let air = inputs.settings.air.expect("the demo heats with air");
    let set = f64::round(air.set.in_celsius() * 1.8 + 32.0);
    assert_eq!((settings.air.map(|air| air.set), settings.unit), (Some(set.to_string()), "°F"));
    assert_eq!(settings.rows, ["pins", "anchors", "every joint"]);
    assert!(settings.nozzles.iter().any(|n| *n == air.nozzle.in_mm().to_string()));
    assert!(settings.preheat.is_empty() && settings.shields.is_empty());
}
