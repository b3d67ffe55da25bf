//! The heat plan's form: what is set, as fields; and what was sent, as inputs.

use std::str::FromStr;

use mend_core::board::{Board, Face};
use mend_core::finding::Finding;
use mend_core::heat::iron::Iron;
use mend_core::heat::motion::Motion;
use mend_core::heat::plate::{Coupling, Plate};
use mend_core::heat::recipe::{Helpers, Pass, Recipe};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::tool::{HotAir, Station};
use mend_core::units::{Duration, Flow, Length, Scale, Temperature};
use mend_formats::shop::PlanInputs;

use crate::pages::number::number;

/// More passes or shields than this are not read.
const MOST_ROWS: usize = 64;

/// Fields of some hot air; their names begin with `at`.
pub(crate) struct AirView {
    pub(crate) set: String,
    pub(crate) flow: String,
    pub(crate) nozzle: String,
    pub(crate) distance: String,
    pub(crate) face_is_top: bool,
    pub(crate) motion: Motion,
    pub(crate) aim: [String; 2],
}

pub(crate) struct PlateView {
    pub(crate) set: String,
    pub(crate) coupling: Coupling,
    pub(crate) side: String,
    pub(crate) face_is_top: bool,
}

pub(crate) struct IronView {
    pub(crate) set: String,
    pub(crate) tip: String,
    pub(crate) row: String,
}

pub(crate) struct HelpersView {
    pub(crate) plate: Option<PlateView>,
    pub(crate) iron: Option<IronView>,
}

pub(crate) struct PassView {
    pub(crate) name: &'static str,
    pub(crate) air: Option<AirView>,
    pub(crate) with: HelpersView,
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
    pub(crate) air: AirView,
    pub(crate) set_range: [String; 2],
    pub(crate) flow_range: [f64; 2],
    pub(crate) unit: &'static str,
    pub(crate) longest: String,
    pub(crate) before: Vec<PassView>,
    pub(crate) with: HelpersView,
    pub(crate) shields: Vec<ShieldView>,
    pub(crate) must_live: bool,
    pub(crate) station: String,
    pub(crate) nozzles: Vec<String>,
    pub(crate) stations: Vec<String>,
    pub(crate) rows: Vec<String>,
}

/// What the form is filled from besides the inputs.
pub(crate) struct Shop<'a> {
    pub(crate) stations: &'a [Station],
    pub(crate) board: &'a Board,
    pub(crate) scale: Scale,
}

impl Settings {
    pub(crate) fn of(inputs: &PlanInputs, shop: &Shop<'_>) -> Self {
        let recipe = &inputs.settings;
        let scale = shop.scale;
        let station = shop.stations.iter().find(|s| s.name == inputs.station);
        let sets = station.map_or((recipe.air.set, recipe.air.set), |s| s.set_range);
        let flows = station.map_or((recipe.air.flow, recipe.air.flow), |s| s.flow_range);
        let mut rows: Vec<String> = shop.board.connector.joints.iter().map(|j| j.row.clone()).collect();
        rows.dedup();
        Self {
            air: air_view(&recipe.air, scale),
            set_range: [sets.0, sets.1].map(|t| format!("{:.0}", scale.of(t))),
            flow_range: [flows.0, flows.1].map(Flow::in_litres_per_minute),
            unit: scale.symbol(),
            longest: recipe.longest.in_seconds().to_string(),
            before: recipe.before.iter().map(|pass| pass_view(pass, scale)).collect(),
            with: helpers_view(&recipe.with, scale),
            shields: recipe.shields.iter().map(shield_view).collect(),
            must_live: inputs.part_must_live,
            station: inputs.station.clone(),
            nozzles: nozzles(recipe, shop.stations),
            stations: shop.stations.iter().map(|s| s.name.clone()).collect(),
            rows,
        }
    }
}

/// The outlets of every station: one that this station lacks is planned on, and said to be missing.
fn nozzles(recipe: &Recipe, stations: &[Station]) -> Vec<String> {
    let airs = recipe.before.iter().filter_map(|pass| pass.air.as_ref()).chain([&recipe.air]);
    let mut nozzles: Vec<f64> = stations.iter().flat_map(|s| &s.nozzles).map(|n| n.in_mm()).collect();
    nozzles.extend(airs.map(|air| air.nozzle.in_mm()));
    nozzles.sort_by(|a, b| b.total_cmp(a));
    nozzles.dedup();
    nozzles.iter().map(f64::to_string).collect()
}

fn air_view(air: &HotAir, scale: Scale) -> AirView {
    AirView {
        set: format!("{:.0}", scale.of(air.set)),
        flow: air.flow.in_litres_per_minute().to_string(),
        nozzle: air.nozzle.in_mm().to_string(),
        distance: air.distance.in_mm().to_string(),
        face_is_top: air.face == Face::Top,
        motion: air.motion,
        aim: air.aim.map(|mm| mm.to_string()),
    }
}

fn helpers_view(with: &Helpers, scale: Scale) -> HelpersView {
    let set = |t: Temperature| format!("{:.0}", scale.of(t));
    let plate = with.plate.as_ref().map(|plate| PlateView {
        set: set(plate.set),
        coupling: plate.coupling,
        side: plate.side.in_mm().to_string(),
        face_is_top: plate.face == Face::Top,
    });
    let iron = with.iron.as_ref().map(|iron| IronView {
        set: set(iron.set),
        tip: iron.tip.in_mm().to_string(),
        row: iron.row.clone(),
    });
    HelpersView { plate, iron }
}

fn pass_view(pass: &Pass, scale: Scale) -> PassView {
    PassView {
        name: pass.name(),
        air: pass.air.as_ref().map(|air| air_view(air, scale)),
        with: helpers_view(&pass.with, scale),
        lasts: pass.lasts.in_seconds().to_string(),
        change: pass.change.in_seconds().to_string(),
    }
}

fn shield_view(shield: &Shield) -> ShieldView {
    let (kind, amount) = match shield.kind {
        ShieldKind::Polyimide { layers } => ("polyimide", Some((layers.to_string(), "layers"))),
        ShieldKind::AluminiumTape => ("aluminium-tape", None),
        ShieldKind::FoilTent { gap_mm } => ("foil-tent", Some((gap_mm.to_string(), "mm gap"))),
        ShieldKind::MetalBlock { height_mm } => ("metal-block", Some((height_mm.to_string(), "mm high"))),
    };
    ShieldView {
        kind,
        name: shield.kind.name(),
        amount,
        face_is_top: shield.face == Face::Top,
        at: shield.at_mm.map(|mm| mm.to_string()),
        size: [shield.width_mm, shield.depth_mm].map(|mm| mm.to_string()),
    }
}

/// The form as it was sent, read field by field; every field that is no number is objected to by its name.
pub(crate) struct Sent {
    fields: Vec<(String, String)>,
    scale: Scale,
    bad: Vec<Finding>,
}

impl Sent {
    pub(crate) fn new(fields: Vec<(String, String)>, scale: Scale) -> Self {
        Self { fields, scale, bad: Vec::new() }
    }

    /// What a button asks for, if it was a button.
    pub(crate) fn act(&self) -> Option<&str> {
        self.get("act")
    }

    fn get(&self, name: &str) -> Option<&str> {
        self.fields.iter().find(|(field, _)| field == name).map(|(_, value)| value.as_str())
    }

    fn number(&mut self, name: &str) -> f64 {
        let typed = self.get(name).unwrap_or_default().to_owned();
        number(("settings", name), &typed, &mut self.bad)
    }

    /// The same for a field that may be left out.
    fn number_or_zero(&mut self, name: &str) -> f64 {
        if self.get(name).is_some() { self.number(name) } else { 0.0 }
    }

    fn temperature(&mut self, name: &str) -> Temperature {
        let value = self.number(name);
        self.scale.read(value)
    }

    /// One of the words of a format.
    fn word<T: serde::de::DeserializeOwned>(&mut self, name: &str, usual: T) -> T {
        let typed = self.get(name).unwrap_or_default().to_owned();
        serde_json::from_value(serde_json::Value::String(typed.clone())).unwrap_or_else(|_| {
            let object = Finding::blocking("settings", name, format!("“{typed}” is none of the choices"));
            self.bad.push(object.hint("choose one that the form offers"));
            usual
        })
    }

    /// The inputs but for what the joints hold, or everything that can't be read.
    pub(crate) fn inputs(mut self) -> Result<PlanInputs, Vec<Finding>> {
        let settings = Recipe {
            air: self.air(""),
            longest: Duration::seconds(self.number("longest")),
            before: (0..MOST_ROWS).map_while(|k| self.pass(&format!("pass-{k}-"))).collect(),
            with: self.helpers(""),
            shields: (0..MOST_ROWS).map_while(|k| self.shield(&format!("shield-{k}-"))).collect(),
        };
        let (station, part_must_live) =
            (self.get("station").unwrap_or_default().to_owned(), self.get("must_live").is_some());
        let inputs = PlanInputs { station, alloy: String::new(), feed: None, refit: None, part_must_live, settings };
        if self.bad.is_empty() { Ok(inputs) } else { Err(self.bad) }
    }

    fn air(&mut self, at: &str) -> HotAir {
        HotAir {
            set: self.temperature(&format!("{at}set")),
            flow: Flow::litres_per_minute(self.number(&format!("{at}flow"))),
            nozzle: Length::mm(self.number(&format!("{at}nozzle"))),
            distance: Length::mm(self.number(&format!("{at}distance"))),
            face: self.word(&format!("{at}face"), Face::Top),
            motion: self.word(&format!("{at}motion"), Motion::Still),
            aim: ["x", "y"].map(|axis| self.number_or_zero(&format!("{at}aim-{axis}"))),
        }
    }

    fn helpers(&mut self, at: &str) -> Helpers {
        let plate = self.get(&format!("{at}plate")).is_some();
        let plate = plate.then(|| Plate {
            set: self.temperature(&format!("{at}plate-set")),
            coupling: self.word(&format!("{at}plate-coupling"), Coupling::Gap),
            face: self.word(&format!("{at}plate-face"), Face::Bottom),
            side: Length::mm(self.number(&format!("{at}plate-side"))),
        });
        let iron = self.get(&format!("{at}iron")).is_some();
        let iron = iron.then(|| Iron {
            set: self.temperature(&format!("{at}iron-set")),
            tip: Length::mm(self.number(&format!("{at}iron-tip"))),
            row: self.get(&format!("{at}iron-row")).unwrap_or_default().to_owned(),
        });
        Helpers { plate, iron }
    }

    fn pass(&mut self, at: &str) -> Option<Pass> {
        self.get(&format!("{at}lasts"))?;
        let air = self.get(&format!("{at}set")).is_some();
        Some(Pass {
            air: air.then(|| self.air(at)),
            with: self.helpers(at),
            lasts: Duration::seconds(self.number(&format!("{at}lasts"))),
            change: Duration::seconds(self.number(&format!("{at}change"))),
        })
    }

    fn shield(&mut self, at: &str) -> Option<Shield> {
        let name = self.get(&format!("{at}kind"))?.to_owned();
        let amount = format!("{at}amount");
        let kind = match name.as_str() {
            "aluminium-tape" => ShieldKind::AluminiumTape,
            "foil-tent" => ShieldKind::FoilTent { gap_mm: self.number(&amount) },
            "metal-block" => ShieldKind::MetalBlock { height_mm: self.number(&amount) },
            _ => ShieldKind::Polyimide { layers: self.whole(&amount) },
        };
        Some(Shield {
            kind,
            face: self.word(&format!("{at}face"), Face::Top),
            at_mm: ["x", "y"].map(|axis| self.number(&format!("{at}{axis}"))),
            width_mm: self.number(&format!("{at}width")),
            depth_mm: self.number(&format!("{at}depth")),
        })
    }

    fn whole(&mut self, name: &str) -> u32 {
        let typed = self.get(name).unwrap_or_default().to_owned();
        u32::from_str(typed.trim()).unwrap_or_else(|_| {
            let object = Finding::blocking("settings", name, format!("“{typed}” is no whole number"));
            self.bad.push(object.hint("type digits, like 2"));
            1
        })
    }
}
