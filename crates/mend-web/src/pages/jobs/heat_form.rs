//! The heat plan's form: what is set, as fields.

use std::collections::BTreeSet;

use mend_core::board::{Board, Face, KeepIntact};
use mend_core::heat::iron::{EVERY_ROW, Iron};
use mend_core::heat::motion::Motion;
use mend_core::heat::preheater::Coupling;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::{HeatingAids, HeatingStage, Held, Recipe};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::station::Station;
use mend_core::heat::tool::{ComesNearWhen, HotAir};
use mend_core::method::JobKind;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::units::{Flow, Scale, Temperature};
use mend_formats::bundle::USUAL_AMBIENT_C;

use crate::job::HeatWork;
use crate::pages::number::degrees;

/// Fields of some hot air; their names begin with `at`.
pub(crate) struct AirView {
    pub(crate) set: String,
    pub(crate) flow: String,
    pub(crate) nozzle: String,
    pub(crate) distance: String,
    pub(crate) face_is_top: bool,
    pub(crate) motion: Motion,
    pub(crate) aim: [String; 2],
    /// From where it comes near, mm, and within how many seconds; empty where it begins at its distance.
    pub(crate) approach: [String; 2],
    pub(crate) approach_when: ComesNearWhen,
    /// How it leans and where it blows to, degrees; empty where it stands upright.
    pub(crate) tilt: [String; 2],
}

pub(crate) struct PreheaterView {
    pub(crate) set: String,
    pub(crate) coupling: Coupling,
    pub(crate) side: String,
    pub(crate) face_is_top: bool,
}

pub(crate) struct IronView {
    pub(crate) set: String,
    pub(crate) tip: String,
    pub(crate) row: String,
    pub(crate) dwell: String,
}

pub(crate) struct HelpersView {
    pub(crate) preheater: Option<PreheaterView>,
    pub(crate) iron: Option<IronView>,
    pub(crate) second_iron: Option<IronView>,
}

pub(crate) struct StageView {
    pub(crate) name: &'static str,
    pub(crate) air: Option<AirView>,
    pub(crate) during: HelpersView,
    pub(crate) lasts: String,
    pub(crate) change: String,
}

pub(crate) struct ShieldView {
    pub(crate) kind: &'static str,
    pub(crate) name: String,
    /// Layers, gap or height, with its unit; none where there is nothing to say.
    pub(crate) amount: Option<(String, &'static str)>,
    pub(crate) face_is_top: bool,
    pub(crate) at: [String; 2],
    pub(crate) size: [String; 2],
}

/// The settings as they stand in the form.
pub(crate) struct Settings {
    pub(crate) air: Option<AirView>,
    pub(crate) set_range: [String; 2],
    pub(crate) flow_range: [f64; 2],
    pub(crate) unit: &'static str,
    pub(crate) longest: String,
    pub(crate) held: Held,
    /// How warm the board is before the first tool; empty: ambient.
    pub(crate) begins_at: String,
    /// Is the part levered up joint by joint?
    pub(crate) levered: bool,
    /// Ambient temperature, which an empty field means.
    pub(crate) ambient: String,
    /// Is the new part set on liquid joints?
    pub(crate) is_set_on: bool,
    pub(crate) preheat: Vec<StageView>,
    pub(crate) during: HelpersView,
    pub(crate) shields: Vec<ShieldView>,
    pub(crate) keep_intact: KeepIntact,
    /// Is that a choice in this kind of job?
    pub(crate) keeps_what_is_chosen: bool,
    /// The runs of heat that it has.
    pub(crate) works: Vec<HeatWork>,
    pub(crate) station: String,
    pub(crate) nozzles: Vec<String>,
    pub(crate) stations: Vec<String>,
    pub(crate) rows: Vec<String>,
    /// Wire and solder that join the joints.
    pub(crate) bridge: Option<[String; 2]>,
}

/// What the form is filled from besides the inputs.
pub(crate) struct FormContext<'a> {
    pub(crate) stations: &'a [Station],
    pub(crate) board: &'a Board,
    pub(crate) scale: Scale,
    pub(crate) kind: JobKind,
}

impl Settings {
    /// Tools that come and go at a press; a second iron is for whoever holds one already.
    pub(crate) fn tools(&self) -> Vec<(&'static str, &'static str)> {
        let mut tools = vec![("air", "Air"), ("preheater", "Preheater"), ("iron", "Iron")];
        tools.extend((self.has("iron") || self.has("second-iron")).then_some(("second-iron", "Second iron")));
        tools.push(("bridge", "Bridge"));
        tools
    }

    /// Is this tool at work in the last stage?
    pub(crate) fn has(&self, tool: &str) -> bool {
        match tool {
            "air" => self.air.is_some(),
            "preheater" => self.during.preheater.is_some(),
            "iron" => self.during.iron.is_some(),
            "second-iron" => self.during.second_iron.is_some(),
            _ => self.bridge.is_some(),
        }
    }

    pub(crate) fn from_inputs(inputs: &PlanInputs, shop: &FormContext<'_>) -> Self {
        let recipe = &inputs.settings;
        let scale = shop.scale;
        let station = shop.stations.iter().find(|s| s.name == inputs.station);
        let sets = station.map(|s| s.set_range).or(recipe.air.map(|air| (air.set, air.set)));
        let flows = station.map(|s| s.flow_range).or(recipe.air.map(|air| (air.flow, air.flow)));
        Self {
            air: recipe.air.as_ref().map(|air| air_view(air, scale)),
            set_range: sets
                .map_or([String::new(), String::new()], |(a, b)| [a, b].map(|t| format!("{:.0}", scale.of(t)))),
            flow_range: flows.map_or([0.0; 2], |(a, b)| [a, b].map(Flow::in_litres_per_minute)),
            unit: scale.symbol(),
            longest: recipe.longest.in_seconds().to_string(),
            held: recipe.held,
            begins_at: recipe.begins_at.map_or(String::new(), |begins| degrees(begins, scale)),
            levered: recipe.levered,
            ambient: degrees(Temperature::celsius(USUAL_AMBIENT_C), scale),
            is_set_on: inputs.purpose == Purpose::SetOn,
            preheat: recipe.preheat.iter().map(|stage| stage_view(stage, scale)).collect(),
            during: helpers_view(&recipe.during, scale),
            shields: recipe.shields.iter().map(shield_view).collect(),
            keep_intact: inputs.keep_intact,
            keeps_what_is_chosen: shop.kind.keep_intact().is_none(),
            works: HeatWork::of_kind(shop.kind),
            station: inputs.station.clone(),
            nozzles: nozzles(recipe, shop.stations),
            stations: shop.stations.iter().map(|s| s.name.clone()).collect(),
            rows: rows(recipe, shop.board),
            bridge: recipe.bridge.map(|b| [b.wire_mm.to_string(), b.bead_mm2.to_string()]),
        }
    }
}

/// What an iron can be held on: rows that it gets to, every joint, and the single joints that it is held on already.
fn rows(recipe: &Recipe, board: &Board) -> Vec<String> {
    let mut rows: Vec<String> = board.connector.joints.iter().filter(|j| !j.hidden).map(|j| j.row.clone()).collect();
    rows.push(EVERY_ROW.to_owned());
    let helpers = recipe.preheat.iter().map(|stage| &stage.during).chain([&recipe.during]);
    rows.extend(helpers.flat_map(HeatingAids::irons).map(|iron| iron.row.clone()));
    let mut seen = BTreeSet::new();
    rows.retain(|row| seen.insert(row.clone()));
    rows
}

/// The nozzles of every station: one that this station lacks is planned on, and said to be missing.
fn nozzles(recipe: &Recipe, stations: &[Station]) -> Vec<String> {
    let airs = recipe.airs();
    let mut nozzles: Vec<f64> = stations.iter().flat_map(|s| &s.nozzles).map(|n| n.in_mm()).collect();
    nozzles.extend(airs.map(|air| air.nozzle.in_mm()));
    nozzles.sort_by(|a, b| b.total_cmp(a));
    nozzles.dedup();
    nozzles.iter().map(f64::to_string).collect()
}

/// Two fields that nobody has filled.
const NOTHING: [String; 2] = [String::new(), String::new()];

fn air_view(air: &HotAir, scale: Scale) -> AirView {
    AirView {
        set: degrees(air.set, scale),
        flow: air.flow.in_litres_per_minute().to_string(),
        nozzle: air.nozzle.in_mm().to_string(),
        distance: air.distance.in_mm().to_string(),
        face_is_top: air.face == Face::Top,
        motion: air.motion,
        aim: air.aim.map(|mm| mm.to_string()),
        approach: air.approach.map_or(NOTHING, |a| [a.from.in_mm(), a.over.in_seconds()].map(|v| v.to_string())),
        approach_when: air.approach.map_or(ComesNearWhen::AtOnce, |approach| approach.when),
        tilt: air.tilt.map_or(NOTHING, |tilt| [tilt.lean_deg, tilt.towards_deg].map(|v| v.to_string())),
    }
}

fn helpers_view(with: &HeatingAids, scale: Scale) -> HelpersView {
    let set = |t: Temperature| degrees(t, scale);
    let preheater = with.preheater.as_ref().map(|preheater| PreheaterView {
        set: set(preheater.set),
        coupling: preheater.coupling,
        side: preheater.side.in_mm().to_string(),
        face_is_top: preheater.face == Face::Top,
    });
    let iron = |iron: &Iron| IronView {
        set: set(iron.set),
        tip: iron.tip.in_mm().to_string(),
        row: iron.row.clone(),
        dwell: iron.dwell.in_seconds().to_string(),
    };
    HelpersView { preheater, iron: with.iron.as_ref().map(iron), second_iron: with.second_iron.as_ref().map(iron) }
}

fn stage_view(stage: &HeatingStage, scale: Scale) -> StageView {
    StageView {
        name: stage.name(),
        air: stage.air.as_ref().map(|air| air_view(air, scale)),
        during: helpers_view(&stage.during, scale),
        lasts: stage.lasts.in_seconds().to_string(),
        change: stage.change.in_seconds().to_string(),
    }
}

fn shield_view(shield: &Shield) -> ShieldView {
    let (kind, amount) = match shield.kind {
        ShieldKind::Polyimide { layers } => ("polyimide", Some((layers.to_string(), "layers"))),
        ShieldKind::AluminiumTape => ("aluminium-tape", None),
        ShieldKind::HolderJaw => ("holder-jaw", None),
        ShieldKind::Finger => ("finger", None),
        ShieldKind::FoilTent { gap_mm } => ("foil-tent", Some((gap_mm.to_string(), "mm gap"))),
        ShieldKind::MetalBlock { height_mm } => ("metal-block", Some((height_mm.to_string(), "mm high"))),
    };
    ShieldView {
        kind,
        name: crate::words::shield(shield.kind),
        amount,
        face_is_top: shield.face == Face::Top,
        at: shield.at_mm.map(|mm| mm.to_string()),
        size: [shield.width_mm, shield.depth_mm].map(|mm| mm.to_string()),
    }
}
