//! The doors between rooms, the ranks inside the core, and the map of both, checked (ARCHITECTURE.md).

mod circles;
mod imports;
mod map;
mod names;
mod tuples;

use std::process::Command;

use serde_json::Value;

use crate::run::root;
use circles::circles;
use imports::Sources;

/// Each room with the only rooms it may import.
const DOORS: &[(&str, &[&str])] = &[
    ("mend-core", &[]),
    ("mend-formats", &["mend-core"]),
    ("mend-store", &["mend-core"]),
    ("mend-devices", &["mend-core"]),
    ("mend-web", &["mend-core", "mend-devices", "mend-formats", "mend-store"]),
    ("urgent-mend", &["mend-core", "mend-devices", "mend-formats", "mend-store", "mend-web"]),
    ("xtask", &[]),
];

/// Crates that a room must not use, and why it would be wrong.
const CLOSED: &[(&str, &[&str])] = &[
    ("mend-core", &["tokio", "axum", "rusqlite", "jiff", "askama", "reqwest", "rand"]),
    ("mend-formats", &["rusqlite", "axum", "tokio"]),
    ("mend-web", &["rusqlite", "deadpool-sqlite"]),
    ("mend-store", &["axum", "askama"]),
    ("mend-devices", &["rusqlite", "axum", "tokio"]),
];

/// What the core must not reach for: a run repeats to the bit and is reasoned about without a machine.
const OUTSIDE: &[&str] = &["std::fs", "std::net", "std::env", "std::time", "std::process", "SystemTime", "Instant"];

/// How a finding is made of a ready sentence. Formats and web may; the core returns what is the matter as a value.
const READY_SENTENCE: &str = "::written(";

/// Modules of the core from the ground up; an import may only look down, or stay on its floor.
const RANKS: &[&[&str]] = &[
    &["units"],
    &["caution", "finding", "instrument", "watch"],
    &["materials", "board"],
    &["solder"],
    &["heat"],
    &["calibration"],
    &["method"],
    &["planning"],
    &["practice"],
    &["inspection", "opening", "shop"],
    &["example"],
];

/// Cargo's own account of the workspace.
pub(crate) fn metadata() -> Result<Value, String> {
    let words = ["metadata", "--format-version", "1", "--no-deps", "--locked"];
    let output = Command::new("cargo").current_dir(root()).args(words).output().map_err(|e| e.to_string())?;
    serde_json::from_slice(&output.stdout).map_err(|e| format!("cargo metadata: {e}"))
}

/// Checks doors, ranks and the map; names every breach.
pub(crate) fn check() -> Result<(), String> {
    let mut breaches = doors(&metadata()?)?;
    let crates = crates()?;
    breaches.extend(names::twice(&crates));
    breaches.extend(tuples::among_arguments(&crates));
    breaches.extend(map::lost()?);
    for (_, sources) in crates.iter().filter(|(room, _)| room == "mend-core") {
        core_sources(sources, &mut breaches);
    }
    if breaches.is_empty() {
        eprintln!("xtask: rooms in order");
        return Ok(());
    }
    Err(format!("rooms out of order:\n  {}", breaches.join("\n  ")))
}

/// The sources of every room.
fn crates() -> Result<Vec<(String, Sources)>, String> {
    let read = |room: &str| {
        let folder = if room == "xtask" { root().join(room) } else { root().join("crates").join(room) };
        Ok((room.to_owned(), Sources::read(&folder.join("src"))?))
    };
    DOORS.iter().map(|(room, _)| read(room)).collect()
}

fn doors(metadata: &Value) -> Result<Vec<String>, String> {
    let packages = metadata["packages"].as_array().ok_or("cargo metadata lists no packages")?;
    let rooms: Vec<&str> = DOORS.iter().map(|(room, _)| *room).collect();
    let mut breaches = Vec::new();
    for package in packages {
        let name = package["name"].as_str().unwrap_or_default();
        let Some((_, open)) = DOORS.iter().find(|(room, _)| *room == name) else {
            breaches.push(format!("{name} is no room: add it to xtask/src/rooms and ARCHITECTURE.md"));
            continue;
        };
        let closed = CLOSED.iter().find(|(room, _)| *room == name).map_or(&[][..], |(_, closed)| closed);
        let all = package["dependencies"].as_array().into_iter().flatten();
        let used = all.filter(|d| d["kind"].is_null()).filter_map(|d| d["name"].as_str());
        for other in used {
            if closed.contains(&other) || (rooms.contains(&other) && !open.contains(&other)) {
                breaches.push(format!("{name} may not import {other}"));
            }
        }
    }
    Ok(breaches)
}

fn rank(module: &str) -> Option<usize> {
    RANKS.iter().position(|floor| floor.contains(&module))
}

/// Every file of the core: imports look down, no two files need each other, nothing outside is touched, no module is unranked.
fn core_sources(sources: &Sources, breaches: &mut Vec<String>) {
    for (module, source) in &sources.0 {
        let name = module.join("::");
        breaches.extend(
            OUTSIDE.iter().filter(|word| source.code.contains(**word)).map(|word| format!("{name} reaches for {word}")),
        );
        if name != "finding" && source.code.contains(READY_SENTENCE) {
            breaches.push(format!("{name} writes a sentence: give it a value of finding::problem"));
        }
        let Some(top) = module.first() else { continue };
        let Some(here) = rank(top) else {
            breaches.push(format!("{top} has no rank: add it to RANKS in xtask/src/rooms"));
            continue;
        };
        let up = sources.needs(module).into_iter().filter(|other| other.first().and_then(|top| rank(top)) > Some(here));
        breaches.extend(up.map(|other| format!("{name} looks up to {}", other.join("::"))));
    }
    breaches.extend(circles(sources).into_iter().map(|round| format!("a circle of files: {round}")));
}
