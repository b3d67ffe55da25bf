//! The doors between rooms and the ranks inside the core, checked (ARCHITECTURE.md).

use std::path::Path;
use std::process::Command;

use serde_json::Value;

use crate::run::root;

/// Each room with the only rooms it may import.
const DOORS: &[(&str, &[&str])] = &[
    ("mend-core", &[]),
    ("mend-formats", &["mend-core"]),
    ("mend-store", &["mend-core"]),
    ("mend-web", &["mend-core", "mend-formats", "mend-store"]),
    ("urgent-mend", &["mend-core", "mend-formats", "mend-store", "mend-web"]),
    ("xtask", &[]),
];

/// Crates that a room must not use, and why it would be wrong.
const CLOSED: &[(&str, &[&str])] = &[
    ("mend-core", &["tokio", "axum", "rusqlite", "jiff", "askama", "reqwest", "rand"]),
    ("mend-formats", &["rusqlite", "axum", "tokio"]),
    ("mend-web", &["rusqlite", "deadpool-sqlite"]),
    ("mend-store", &["axum", "askama"]),
];

/// What the core must not reach for: a run repeats to the bit and is reasoned about without a machine.
const OUTSIDE: &[&str] = &["std::fs", "std::net", "std::env", "std::time", "std::process", "SystemTime", "Instant"];

/// Modules of the core from the ground up; an import may only look down, or stay on its floor.
const RANKS: &[&[&str]] = &[
    &["units"],
    &["finding", "watch"],
    &["materials", "board"],
    &["solder"],
    &["heat"],
    &["method"],
    &["planning"],
    &["inspection", "shop"],
];

/// Cargo's own account of the workspace.
pub(crate) fn metadata() -> Result<Value, String> {
    let words = ["metadata", "--format-version", "1", "--no-deps", "--locked"];
    let output = Command::new("cargo").current_dir(root()).args(words).output().map_err(|e| e.to_string())?;
    serde_json::from_slice(&output.stdout).map_err(|e| format!("cargo metadata: {e}"))
}

/// Checks doors and ranks; names every breach.
pub(crate) fn check() -> Result<(), String> {
    let mut breaches = doors(&metadata()?)?;
    core_sources(&root().join("crates/mend-core/src"), &mut breaches)?;
    if breaches.is_empty() {
        eprintln!("xtask: rooms in order");
        return Ok(());
    }
    Err(format!("rooms out of order:\n  {}", breaches.join("\n  ")))
}

fn doors(metadata: &Value) -> Result<Vec<String>, String> {
    let packages = metadata["packages"].as_array().ok_or("cargo metadata lists no packages")?;
    let rooms: Vec<&str> = DOORS.iter().map(|(room, _)| *room).collect();
    let mut breaches = Vec::new();
    for package in packages {
        let name = package["name"].as_str().unwrap_or_default();
        let Some((_, open)) = DOORS.iter().find(|(room, _)| *room == name) else {
            breaches.push(format!("{name} is no room: add it to xtask/src/rooms.rs and ARCHITECTURE.md"));
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

/// Reads every file of the core: `crate::x` must look down, and nothing outside may be touched.
fn core_sources(folder: &Path, breaches: &mut Vec<String>) -> Result<(), String> {
    for entry in std::fs::read_dir(folder).map_err(|e| e.to_string())? {
        let path = entry.map_err(|e| e.to_string())?.path();
        if path.is_dir() {
            core_sources(&path, breaches)?;
        } else if path.extension().is_some_and(|e| e == "rs") {
            let text = std::fs::read_to_string(&path).map_err(|e| e.to_string())?;
            core_source(&path, &text, breaches);
        }
    }
    Ok(())
}

fn core_source(path: &Path, text: &str, breaches: &mut Vec<String>) {
    let inside = path.to_string_lossy().replace('\\', "/");
    let module = inside.rsplit("mend-core/src/").next().unwrap_or_default();
    let module = module.split(['/', '.']).next().unwrap_or_default();
    let body = text.split("#[cfg(test)]").next().unwrap_or_default();
    for line in body.lines().filter(|line| !line.trim_start().starts_with("//")) {
        for outside in OUTSIDE.iter().filter(|outside| line.contains(**outside)) {
            breaches.push(format!("{inside} reaches for {outside}"));
        }
        for used in line.split("crate::").skip(1) {
            let used = used.split(|c: char| !c.is_alphanumeric() && c != '_').next().unwrap_or_default();
            if let (Some(here), Some(there)) = (rank(module), rank(used))
                && there > here
            {
                breaches.push(format!("{inside} looks up to {used}"));
            }
        }
    }
}
