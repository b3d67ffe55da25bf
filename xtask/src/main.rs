//! House work: `cargo xtask check`, `test`, `assets [--check]`, `rooms`, `screenshots`, `bench`, `fuzz`.

mod assets;
mod rooms;
mod run;
mod setup;
mod styles;
mod suite;

use std::process::ExitCode;

const USAGE: &str = "cargo xtask check | test | assets [--check] | rooms | screenshots | bench | fuzz";

fn main() -> ExitCode {
    let words: Vec<String> = std::env::args().skip(1).collect();
    let words: Vec<&str> = words.iter().map(String::as_str).collect();
    let done = match words.as_slice() {
        ["check"] => suite::check(),
        ["test"] => suite::test(),
        ["assets"] => setup::node_packages().and_then(|()| assets::build()),
        ["assets", "--check"] => setup::node_packages().and_then(|()| assets::check()),
        ["rooms"] => rooms::check(),
        ["screenshots"] => suite::screenshots(),
        ["bench"] => suite::bench(),
        ["fuzz"] => suite::fuzz(),
        _ => Err(format!("usage: {USAGE}")),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(why) => {
            eprintln!("xtask: {why}");
            ExitCode::FAILURE
        }
    }
}
