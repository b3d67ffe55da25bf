//! The application: settings, clock, wiring, commands. Whatever needs a test lives in another room.

mod clocks;
mod demo_files;
mod fit_command;
mod listening;
mod live_commands;
mod melt_command;
mod method_command;
mod plan_command;
mod review_command;
mod schedule_command;
mod serving;
mod shop_commands;
mod stand_ins;
mod tls;

use std::path::PathBuf;
use std::process::ExitCode;

use clap::{Parser, Subcommand};
use serving::Listen;
use tracing_subscriber::EnvFilter;

/// Where it listens when nothing is said.
const USUAL_ADDRESS: &str = "127.0.0.1:7340";

/// Plans, runs and proves the replacement of ports and flex connectors.
#[derive(Parser)]
#[command(version)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Runs with the demo shop in a fresh temporary folder.
    Demo {
        /// A new folder for it instead, which `serve` goes on with.
        #[arg(long)]
        keep: Option<PathBuf>,
        #[command(flatten)]
        listen: Listen,
    },
    /// Makes an empty shop in a folder. Exit 2 when there is one already.
    Init {
        /// The folder; made where it is missing.
        #[arg(long)]
        data: PathBuf,
    },
    /// Runs on a folder that holds a shop. Exit 2 when it holds none.
    Serve {
        /// The folder that `init` has made.
        #[arg(long)]
        data: PathBuf,
        #[command(flatten)]
        listen: Listen,
        /// Simulated instruments on the first open job, in the shop's list. The demo has them too.
        #[arg(long)]
        stand_ins: bool,
        #[command(flatten)]
        hidden: stand_ins::Hidden,
    },
    /// Takes files of our open formats into a shop; a folder that `export` wrote goes into an empty one.
    Import {
        /// The shop's folder.
        #[arg(long)]
        data: PathBuf,
        /// Station, board, connector, equipment, shop and job files, or a folder of an export.
        #[arg(required = true)]
        files: Vec<PathBuf>,
    },
    /// Writes all of a shop in the open formats.
    Export {
        /// The shop's folder.
        #[arg(long)]
        data: PathBuf,
        /// A new folder.
        out: PathBuf,
    },
    /// Copies a shop into one file, also while it is served.
    Backup {
        /// The shop's folder.
        #[arg(long)]
        data: PathBuf,
        /// The file; replaced where it is there.
        file: PathBuf,
    },
    /// Puts a backup in place of a shop; what was there is kept as a snapshot.
    Restore {
        /// The shop's folder.
        #[arg(long)]
        data: PathBuf,
        /// What `backup` wrote.
        file: PathBuf,
    },
    /// Reads everything in a shop. Exit 1 when something can't be read.
    Check {
        /// The shop's folder.
        #[arg(long)]
        data: PathBuf,
    },
    /// Plans one bundle (docs/formats/bundle.md). Exit 2 when it can't be planned on.
    Plan {
        /// The bundle.
        file: PathBuf,
        /// Print as JSON.
        #[arg(long)]
        json: bool,
        /// The fit of the new part instead of the old part's removal.
        #[arg(long, conflicts_with = "search")]
        fit: bool,
        /// Every family of methods, or way to fit, side by side instead of the bundle's own settings.
        #[arg(long, conflicts_with = "search")]
        compare: bool,
        /// The best settings of every family instead of the bundle's own.
        #[arg(long)]
        search: bool,
    },
    /// Learns from the readings of a probe on the bundle's board (docs/formats/calibration.md). Exit 2 when they can't be read.
    Calibrate {
        #[command(flatten)]
        taped: live_commands::Taped,
        /// The readings (docs/formats/readings.md).
        readings: PathBuf,
        /// Print as JSON.
        #[arg(long)]
        json: bool,
    },
    /// Watches a run of the bundle: a line of state for every event (docs/formats/live.md).
    Watch {
        #[command(flatten)]
        taped: live_commands::Taped,
        /// The events, a line each.
        events: PathBuf,
        /// Print as JSON: it is all there is.
        #[arg(long)]
        json: bool,
    },
    /// Starts simulated instruments on the loopback: two loggers, a station and a meter. They go on until the program is ended.
    Instruments(stand_ins::InstrumentArguments),
    /// Says what a solder or a mix of solders melts at (docs/formats/melt.md). Exit 2 when there is no such solder.
    Melt(melt_command::MeltArguments),
    /// Says what the jobs that were given back have come to (docs/formats/review.md), also while the shop is served.
    Review {
        /// The shop's folder.
        #[arg(long)]
        data: PathBuf,
        /// Print as JSON.
        #[arg(long)]
        json: bool,
    },
    /// Schedules what there is to do at the benches (docs/formats/schedule.md). Exit 2 when it can't be scheduled.
    Schedule {
        /// Workers, resources and jobs.
        file: PathBuf,
        /// Print as JSON.
        #[arg(long)]
        json: bool,
    },
}

fn main() -> anyhow::Result<ExitCode> {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn"));
    tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr).init();
    match Cli::parse().command {
        Command::Plan { file, json, compare: true, fit: true, .. } => fit_command::compare(&file, json),
        Command::Plan { file, json, compare: true, .. } => method_command::compare(&file, json),
        Command::Plan { file, json, search: true, .. } => method_command::search(&file, json),
        Command::Plan { file, json, fit, .. } => plan_command::run(&file, json, fit),
        Command::Calibrate { taped, readings, json } => live_commands::calibrate(&taped, &readings, json),
        Command::Watch { taped, events, .. } => live_commands::watch(&taped, &events),
        Command::Instruments(asked) => stand_ins::run(&asked.bundle, asked.listen, asked.hidden),
        Command::Melt(asked) => melt_command::run(&asked),
        Command::Review { data, json } => review_command::run(&data, json),
        Command::Schedule { file, json } => schedule_command::run(&file, json),
        Command::Demo { keep, listen } => serving::demo(keep.as_deref(), &listen),
        Command::Serve { data, listen, stand_ins, hidden } => {
            serving::serve(&data, &listen, stand_ins.then_some(hidden))
        }
        Command::Init { data } => shop_commands::init(&data),
        Command::Import { data, files } => shop_commands::import(&data, &files),
        Command::Export { data, out } => shop_commands::export(&data, &out),
        Command::Backup { data, file } => shop_commands::backup(&data, &file),
        Command::Restore { data, file } => shop_commands::restore(&data, &file),
        Command::Check { data } => shop_commands::check(&data),
    }
}
