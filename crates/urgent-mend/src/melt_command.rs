//! `urgent-mend melt`: what a solder or a mix of solders melts at.

use std::process::ExitCode;

use clap::Args;
use mend_core::materials::Metal;
use mend_core::solder::{MeltCurve, flags, melt_curve};
use mend_core::units::{TempDelta, Temperature};
use mend_formats::melt;
use mend_web::words::Words;

use crate::plan_command::{BAD_INPUT, objection, print};

/// What is asked.
#[derive(Args)]
pub(crate) struct MeltArguments {
    /// Alloys by mass, summing to 100: "SAC305=60,Sn42Bi58=40"; or one alloy's name.
    #[arg(long, required_unless_present = "composition", conflicts_with = "composition")]
    mix: Option<String>,
    /// Elements in wt%, summing to 100: "Sn=43,Pb=43,Bi=14".
    #[arg(long)]
    composition: Option<String>,
    /// Print the curve as JSON.
    #[arg(long)]
    json: bool,
}

/// Prints the curve to standard output, objections to standard error.
pub(crate) fn run(asked: &MeltArguments) -> anyhow::Result<ExitCode> {
    let (place, text) = match (&asked.mix, &asked.composition) {
        (Some(mix), _) => ("mix", mix),
        (None, Some(composition)) => ("composition", composition),
        (None, None) => return Ok(ExitCode::from(BAD_INPUT)),
    };
    match Metal::parse(place, text) {
        Ok(metal) if asked.json => print(&melt::write(&melt_curve(&metal.composition))?),
        Ok(metal) => print(&describe(&melt_curve(&metal.composition))),
        Err(findings) => {
            findings.iter().for_each(objection);
            return Ok(ExitCode::from(BAD_INPUT));
        }
    }
    Ok(ExitCode::SUCCESS)
}

fn describe(curve: &MeltCurve) -> String {
    let at = |t: Option<Temperature>, band: TempDelta| match t {
        Some(t) => format!("{:.0} °C ({:.0} °F) ± {:.0} K", t.in_celsius(), t.in_fahrenheit(), band.in_kelvin()),
        None => "not computed".to_owned(),
    };
    let (band, words) = (&curve.band, Words::default());
    let end = curve.scheil_end.map_or(String::new(), |end| format!(", {:.2} % of it", end.moles * 100.0));
    let mut lines = vec![
        format!("made of      {}", curve.composition.summary()),
        format!("melts at     {} (98 % liquid)", at(curve.t98, band.liquidus)),
        format!("liquidus     {}", at(curve.liquidus, band.liquidus)),
        format!("solidus      {}", at(curve.solidus, band.freezing)),
        format!("Scheil end   {}{end}", at(curve.scheil_end.map(|end| end.at), band.freezing)),
        format!("confidence   {}; a band of the model, not a guarantee", band.family),
    ];
    lines.extend(
        words.findings(&flags(&curve.composition)).into_iter().map(|flag| format!("as a joint   {}", flag.message)),
    );
    lines.extend(curve.notes().iter().map(|note| format!("note         {}", words.melt_note(note))));
    lines.join("\n")
}
