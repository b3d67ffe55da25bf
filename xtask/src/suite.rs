//! Everything that must hold before a change lands.

use crate::run::{has, root, run, run_with};
use crate::{assets, rooms, setup};

/// Installs what is missing, then checks assets, format, lints, rooms, Rust tests and the browser stories.
pub(crate) fn test() -> Result<(), String> {
    setup::node_packages()?;
    setup::browser()?;
    assets::check()?;
    run(".", "cargo", &["fmt", "--all", "--check"])?;
    run(".", "cargo", &["clippy", "--locked", "--workspace", "--all-targets", "--", "-D", "warnings"])?;
    rooms::check()?;
    rust_tests()?;
    stories(&[])
}

fn rust_tests() -> Result<(), String> {
    // One test runner for all: cargo's own also runs the documentation's examples, and prints the count that CI reads.
    run(".", "cargo", &["test", "--locked", "--workspace"])
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
    stories(&["--project", "bench"])
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

fn stories(words: &[&str]) -> Result<(), String> {
    run(".", "cargo", &["build", "--release", "--locked", "-p", "urgent-mend"])?;
    let project: &[&str] = if words.is_empty() { &["--project", "stories"] } else { words };
    let binary = target_directory()?.join("release/urgent-mend");
    let binary = binary.to_string_lossy();
    if !has(&binary, "--version") {
        return Err(format!("{binary} does not run"));
    }
    run_with("e2e", "npx", &[&["playwright", "test"], project].concat(), &[("URGENT_MEND", &binary)])
}

/// Where cargo builds to, whatever CARGO_TARGET_DIR says.
fn target_directory() -> Result<std::path::PathBuf, String> {
    let metadata = rooms::metadata()?;
    metadata["target_directory"]
        .as_str()
        .map(Into::into)
        .ok_or_else(|| "cargo metadata names no target directory".to_owned())
}
