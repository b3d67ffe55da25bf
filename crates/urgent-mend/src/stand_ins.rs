//! `urgent-mend instruments`: simulated instruments that listen on the loopback and answer as real ones do. What they read comes
//! from the heat model with a jet and a board that differ from what the plan takes for true.

use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use clap::Args;
use mend_core::board::Board;
use mend_core::calibration::probe::{place, recipe};
use mend_core::finding::{Finding, any_blocking};
use mend_core::heat::case::Case;
use mend_core::heat::ensemble::run_all;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::recipe::Recipe;
use mend_core::watch::Watch;
use mend_devices::stand_in::listen;
use mend_devices::stand_in::meter::{MeterStandIn, PinReading};
use mend_devices::stand_in::readout::ReadoutStandIn;
use mend_devices::stand_in::thermocouple::ThermocoupleStandIn;
use mend_formats::bundle::Bundle;

use crate::plan_command::{BAD_INPUT, objection, print, read};

/// What is hidden in them.
#[derive(Args, Clone, Copy)]
pub(crate) struct Hidden {
    /// How much of its heat the jet brings across, against the book.
    #[arg(long, default_value_t = USUAL.jet)]
    jet: f64,
    /// How much heat the board carries away, against its description.
    #[arg(long, default_value_t = USUAL.conduction)]
    conduction: f64,
    /// Their time goes so many times as fast as a clock.
    #[arg(long, default_value_t = USUAL.faster)]
    faster: f64,
}

/// What the demo hides in them.
pub(crate) const USUAL: Hidden = Hidden { jet: 0.75, conduction: 1.4, faster: 1.0 };

/// Every fourth pin of the meter's table is open, and every seventh short.
const OPEN_EACH: usize = 4;
const SHORT_EACH: usize = 7;
/// A station's own sensor is off by so much, K.
const OUTLET_OFF_K: f64 = -12.0;

/// What listens where.
pub(crate) struct StandIn {
    pub(crate) name: &'static str,
    pub(crate) kind: &'static str,
    pub(crate) address: SocketAddr,
}

/// Starts all of them on a bundle: at the address and the ports after it; at any free ones where its port is 0.
pub(crate) fn start(bundle: &Bundle, at: SocketAddr, hidden: Hidden) -> anyhow::Result<Vec<StandIn>> {
    let probe = recipe(&bundle.station, &bundle.board);
    let [probed, heated] = [&probe, &bundle.recipe].map(|recipe| curve(bundle, recipe, hidden));
    let (probed, heated) = (probed.map_err(refused)?, heated.map_err(refused)?);
    let port = |k: u16| SocketAddr::new(at.ip(), if at.port() == 0 { 0 } else { at.port() + k });
    let air = bundle.recipe.air;
    let set_c = air.map_or(0.0, |air| air.set.in_celsius());
    let shown_flow = air.map_or(0.0, |air| air.flow.in_litres_per_minute());
    let readout = ReadoutStandIn::new("station", set_c, shown_flow, OUTLET_OFF_K);
    let logger = |name, curve| ThermocoupleStandIn::new(name, curve, hidden.faster);
    let started = |name, kind, address| StandIn { name, kind, address };
    Ok(vec![
        started("Stand-in logger, probe", "thermometer", listen(port(0), logger("probe", probed))?),
        started("Stand-in logger, bench", "thermometer", listen(port(1), logger("bench", heated))?),
        started("Stand-in station", "readout", listen(port(2), readout)?),
        started("Stand-in meter", "meter", listen(port(3), MeterStandIn::new("meter", pins(&bundle.board)))?),
    ])
}

fn refused(findings: Vec<Finding>) -> anyhow::Error {
    findings.iter().for_each(objection);
    anyhow::anyhow!("the bundle can't be computed")
}

/// What a bead beside the part comes to under a recipe, °C at each full second.
fn curve(bundle: &Bundle, recipe: &Recipe, hidden: Hidden) -> Result<Vec<f32>, Vec<Finding>> {
    let watch = Watch::new();
    let order = bundle.order(&watch);
    let refusals = order.refusals();
    if any_blocking(&refusals) {
        return Err(refusals);
    }
    let (melting, taped) = (order.composition.targets(order.board)?, [place(&bundle.board)]);
    let case = Case { recipe, thermocouples: &taped, ..order.case(&melting) };
    let truth = ParameterSample { jet: hidden.jet, conduction: hidden.conduction, ..ParameterSample::middle(&case) };
    let runs = run_all(&case, &[truth], &|_| false);
    Ok(runs.into_iter().flat_map(|run| run.traces.thermocouples).map(|taped| taped.celsius).next().unwrap_or_default())
}

fn pins(board: &Board) -> Vec<PinReading> {
    let of = |k: usize| match k + 1 {
        k if k % SHORT_EACH == 0 => PinReading { diode_v: Some(0.0), ohm: Some(0.2), farad: None },
        k if k % OPEN_EACH == 0 => PinReading { diode_v: None, ohm: None, farad: None },
        _ => PinReading { diode_v: Some(0.46), ohm: Some(0.4), farad: Some(1e-7) },
    };
    (0..board.connector.joints.len()).map(of).collect()
}

/// Starts them and goes on until the program is ended.
pub(crate) fn run(bundle: &Path, at: SocketAddr, hidden: Hidden) -> anyhow::Result<ExitCode> {
    let bundle = match read(bundle) {
        Ok(bundle) => bundle,
        Err(findings) => {
            findings.iter().for_each(objection);
            return Ok(ExitCode::from(BAD_INPUT));
        }
    };
    for StandIn { name, kind, address } in start(&bundle, at, hidden)? {
        print(&format!("{address}  {kind:12} {name}"));
    }
    loop {
        std::thread::park();
    }
}

/// The words of the command.
#[derive(Args)]
pub(crate) struct InstrumentArguments {
    /// The bundle (docs/formats/bundle.md) on which they are.
    pub(crate) bundle: PathBuf,
    /// Where the first listens; the others on the ports after it. Port 0: any free ones.
    #[arg(long, default_value = "127.0.0.1:5025")]
    pub(crate) listen: SocketAddr,
    #[command(flatten)]
    pub(crate) hidden: Hidden,
}
