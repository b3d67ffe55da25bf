//! `urgent-mend plan FILE`: the plan of one bundle, as the page shows it.

use std::path::Path;
use std::process::ExitCode;

use mend_core::finding::Finding;
use mend_core::planning::make_plan::plan;
use mend_core::planning::order::Unplanned;
use mend_core::planning::plan::Plan;
use mend_core::watch::Watch;
use mend_formats::bundle::{self, Bundle};
use mend_formats::plan as plan_format;
use mend_web::words::{FindingView, Words, damaged, margin_detail, margin_name, small_run};

/// Exit code for input that can't be planned on.
pub(crate) const BAD_INPUT: u8 = 2;

/// Prints the plan of `file` to standard output, of its fit where that is asked for; objections to standard error.
pub(crate) fn run(file: &Path, json: bool, fit: bool) -> anyhow::Result<ExitCode> {
    let watch = Watch::new();
    let bundle = read(file).map(|bundle| if fit { bundle.for_fit() } else { bundle });
    let made = bundle.and_then(|bundle| plan(&bundle.order(&watch)).map_err(Unplanned::objections));
    match made {
        Ok(plan) if json => print(&plan_format::write(&plan)?),
        Ok(plan) => print(&describe(&plan)),
        Err(findings) => {
            findings.iter().for_each(objection);
            return Ok(ExitCode::from(BAD_INPUT));
        }
    }
    Ok(ExitCode::SUCCESS)
}

/// The bundle in a file.
pub(crate) fn read(file: &Path) -> Result<Bundle, Vec<Finding>> {
    let bytes = std::fs::read(file).map_err(|error| {
        let message = format!("{} can't be read: {error}", file.display());
        vec![Finding::written("command", "file", message).hint("name a bundle that is there")]
    })?;
    bundle::parse(&bytes)
}

pub(crate) fn objection(finding: &Finding) {
    let FindingView { place, message, hint, .. } = Words::default().finding(finding);
    eprintln!("{place}: {message}: {hint}");
}

#[allow(clippy::print_stdout, reason = "printing is what this command is for")]
pub(crate) fn print(text: &str) {
    println!("{text}");
}

fn describe(plan: &Plan) -> String {
    let seconds = |t: Option<f64>| t.map_or("never".to_owned(), |t| format!("{t:.0} s"));
    let (r, words) = (&plan.release, Words::default());
    let lines = [
        format!(
            "window   {:?}, {:.0} % of {} samples melt before anything is damaged",
            plan.window,
            plan.chance * 100.0,
            plan.samples
        ),
        format!(
            "{}  {} to {}, most likely {}",
            if plan.purpose.fits() { "liquid " } else { "release" },
            seconds(r.low_s),
            seconds(r.high_s),
            seconds(r.mid_s)
        ),
        format!(
            "stop     {:.0} s{}",
            plan.abort.at_s,
            plan.abort.spares.as_ref().map_or(String::new(), |of| format!(", to spare {}", damaged(of)))
        ),
        format!("limit    {}", words.limited_by(&plan.limited_by)),
        plan.next_move
            .as_ref()
            .map_or(String::new(), |m| format!("better   {}: {}", words.change(&m.what), words.move_effect(&m.brings))),
    ];
    let small = plan.small_runs.iter().map(small_run).map(|(what, when)| format!("beside   {what}: {when}"));
    let lines = lines.into_iter().chain(small).filter(|line| !line.is_empty());
    let margins = plan.margins.iter().map(|m| {
        let (name, detail) = (margin_name(m), margin_detail(&m.detail));
        format!("         {:>6.0} K  {name} ({detail})", m.headroom_k)
    });
    lines.chain(margins).collect::<Vec<_>>().join("\n")
}
