//! Everything that must hold before a change lands.

use crate::run::{has, root, run, run_with};
use crate::{assets, rooms, setup, styles};

/// Installs what is missing, then checks assets, format, lints, rooms, Rust tests and the browser stories.
pub(crate) fn test() -> Result<(), String> {
    setup::node_packages()?;
    setup::browser()?;
    assets::check()?;
    lints()?;
    let document = ["doc", "--locked", "--workspace", "--no-deps", "--keep-going"];
    run_with(".", "cargo", &document, &[("RUSTDOCFLAGS", "-D warnings")])?;
    // One test runner for all: cargo's own also runs the documentation's examples, and prints the count that CI reads.
    run(".", "cargo", &["test", "--locked", "--workspace"])?;
    stories(&["--project", "stories"])
}

/// What every commit is held against: format, lints, rooms, and the core's own tests.
pub(crate) fn check() -> Result<(), String> {
    setup::node_packages()?;
    lints()?;
    run(".", "cargo", &["test", "--locked", "--workspace", "--lib"])
}

fn lints() -> Result<(), String> {
    run(".", "cargo", &["fmt", "--all", "--check"])?;
    run(".", "cargo", &["clippy", "--locked", "--workspace", "--all-targets", "--", "-D", "warnings"])?;
    styles::check()?;
    rooms::check()
}

/// Takes the pictures of the main views into docs/screenshots.
pub(crate) fn screenshots() -> Result<(), String> {
    setup::node_packages()?;
    setup::browser()?;
    stories(&["--project", "screenshots"])
}

/// Measures: the solver, the readers, and the frames of drawing among three hundred things.
pub(crate) fn bench() -> Result<(), String> {
    setup::node_packages()?;
    setup::browser()?;
    run(".", "cargo", &["bench", "--locked", "-p", "mend-core", "-p", "mend-formats", "--benches"])?;
    run(".", "cargo", &["build", "--release", "--locked", "-p", "urgent-mend"])?;
    browse("release", &["--project", "bench", "--workers", "1"])
}

/// A minute of anything at the readers of files from outside. Fuzzing needs a sanitizer, which a stable compiler has behind
/// a switch; the fuzzer itself is installed where it is missing.
pub(crate) fn fuzz() -> Result<(), String> {
    if !has("cargo-fuzz", "--version") {
        run(".", "cargo", &["install", "cargo-fuzz", "--locked"])?;
    }
    let corpus = root().join("fuzz/corpus/imports");
    std::fs::create_dir_all(&corpus).map_err(|e| format!("{}: {e}", corpus.display()))?;
    // What is found stays in the first folder; the second is only read.
    let words = [
        "fuzz",
        "run",
        "imports",
        "corpus/imports",
        "seeds",
        "--",
        "-max_total_time=60",
        "-timeout=10",
        "-max_len=20000",
    ];
    run_with("fuzz", "cargo", &words, &[("RUSTC_BOOTSTRAP", "1")])
}

/// Drives the build that the Rust tests have made: named with its tests, so that nothing is compiled for it once more.
fn stories(words: &[&str]) -> Result<(), String> {
    run(".", "cargo", &["build", "--locked", "--workspace", "--bins", "--tests"])?;
    browse("debug", words)
}

fn browse(profile: &str, words: &[&str]) -> Result<(), String> {
    let binary = target_directory()?.join(profile).join("urgent-mend");
    let binary = binary.to_string_lossy();
    if !has(&binary, "--version") {
        return Err(format!("{binary} does not run"));
    }
    run_with("e2e", "npx", &[&["playwright", "test"], words].concat(), &[("URGENT_MEND", &binary)])
}

/// Where cargo builds to, whatever CARGO_TARGET_DIR says.
fn target_directory() -> Result<std::path::PathBuf, String> {
    let metadata = rooms::metadata()?;
    metadata["target_directory"]
        .as_str()
        .map(Into::into)
        .ok_or_else(|| "cargo metadata names no target directory".to_owned())
}
