//! The application: settings, clock, wiring, commands. Whatever needs a test lives in another room.

mod demo_files;
mod melt_command;
mod method_command;
mod plan_command;
mod serving;

use std::net::SocketAddr;
use std::path::PathBuf;
use std::process::ExitCode;

use clap::{Parser, Subcommand};
use tracing_subscriber::EnvFilter;

/// Where it listens when nothing is said.
const USUAL_ADDRESS: &str = "127.0.0.1:7340";

/// Plans, runs and proves the replacement of ports and flex connectors.
#[derive(Parser)]
#[command(version)]
struct Words {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Runs with the demo shop in a fresh temporary store.
    Demo {
        /// Address and port; port 0 takes a free one.
        #[arg(long, default_value = USUAL_ADDRESS)]
        listen: SocketAddr,
    },
    /// Runs on a folder that keeps the shop's data.
    Serve {
        /// The folder; made where it is missing.
        #[arg(long)]
        data: PathBuf,
        /// Address and port; port 0 takes a free one.
        #[arg(long, default_value = USUAL_ADDRESS)]
        listen: SocketAddr,
    },
    /// Plans one bundle (docs/formats/bundle.md). Exit 2 when it can't be planned on.
    Plan {
        /// The bundle.
        file: PathBuf,
        /// Print as JSON.
        #[arg(long)]
        json: bool,
        /// Every family of methods side by side instead of the bundle's own settings.
        #[arg(long, conflicts_with = "search")]
        compare: bool,
        /// The best settings of every family instead of the bundle's own.
        #[arg(long)]
        search: bool,
    },
    /// Says what a solder or a mix of solders melts at (docs/formats/melt.md). Exit 2 when there is no such solder.
    Melt(melt_command::Asked),
}

fn main() -> anyhow::Result<ExitCode> {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn"));
    tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr).init();
    match Words::parse().command {
        Command::Plan { file, json, compare: true, .. } => method_command::compare(&file, json),
        Command::Plan { file, json, search: true, .. } => method_command::search(&file, json),
        Command::Plan { file, json, .. } => plan_command::run(&file, json),
        Command::Melt(asked) => melt_command::run(&asked),
        Command::Demo { listen } => serving::demo(listen),
        Command::Serve { data, listen } => serving::serve(&data, listen),
    }
}
