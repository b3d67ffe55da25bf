//! A computed melting curve, `urgent-mend/melt/2`: docs/formats/melt.md.

use mend_core::solder::MeltCurve;
use mend_core::solder::notes::MeltNote;
use mend_core::units::Temperature;
use serde::Serialize;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/melt/2";
/// The curve is written from here up to a little above the liquidus, °C by °C.
const COLDEST_C: f64 = 25.0;

#[derive(Serialize)]
struct MeltFile {
    format: &'static str,
    wt_percent: [f64; 8],
    liquidus_c: Option<f64>,
    first_solid: Option<&'static str>,
    t98_c: Option<f64>,
    solidus_c: Option<f64>,
    scheil_end_c: Option<f64>,
    scheil_end_fraction: Option<f64>,
    band_c: BandFile,
    published: Option<Published>,
    curve: Vec<PointFile>,
    notes: Vec<MeltNote>,
}

#[derive(Serialize)]
struct BandFile {
    family: &'static str,
    liquidus: f64,
    freezing: f64,
}

#[derive(Serialize)]
struct Published {
    name: &'static str,
    solidus_c: f64,
    liquidus_c: f64,
}

#[derive(Serialize)]
struct PointFile {
    t_c: f64,
    lever: Option<f64>,
    scheil: Option<f64>,
}

/// As JSON. What could not be computed is null.
pub fn write(curve: &MeltCurve) -> Result<String, serde_json::Error> {
    let celsius = |t: Option<Temperature>| t.map(Temperature::in_celsius);
    let published = |row: &mend_core::materials::Alloy| Published {
        name: row.name,
        solidus_c: row.solidus_c,
        liquidus_c: row.liquidus_c,
    };
    serde_json::to_string(&MeltFile {
        format: FORMAT,
        wt_percent: curve.composition.wt_percent(),
        liquidus_c: celsius(curve.liquidus),
        first_solid: curve.first_solid,
        t98_c: celsius(curve.t98),
        solidus_c: celsius(curve.solidus),
        scheil_end_c: celsius(curve.scheil_end.map(|end| end.at)),
        scheil_end_fraction: curve.scheil_end.map(|end| end.moles),
        band_c: BandFile {
            family: curve.band.family,
            liquidus: curve.band.liquidus.in_kelvin(),
            freezing: curve.band.freezing.in_kelvin(),
        },
        published: curve.published.map(published),
        curve: points(curve),
        notes: curve.notes(),
    })
}

fn points(curve: &MeltCurve) -> Vec<PointFile> {
    let top = curve.liquidus.map_or(COLDEST_C, |t| t.in_celsius().ceil() + 5.0);
    let count = (top - COLDEST_C).max(0.0) as usize;
    let point = |k: usize| {
        let at = Temperature::celsius(COLDEST_C + k as f64);
        PointFile { t_c: at.in_celsius(), lever: curve.lever_at(at), scheil: curve.scheil_at(at) }
    };
    (0..=count).map(point).collect()
}
