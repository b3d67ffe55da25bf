//! Running other programs.

use std::path::{Path, PathBuf};
use std::process::Command;
use std::time::Instant;

/// The workspace's root.
pub(crate) fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("..")
}

/// Runs a program in a folder of the workspace and fails with its name when it fails.
pub(crate) fn run(folder: &str, program: &str, words: &[&str]) -> Result<(), String> {
    run_with(folder, program, words, &[])
}

/// The same, with environment variables.
pub(crate) fn run_with(folder: &str, program: &str, words: &[&str], set: &[(&str, &str)]) -> Result<(), String> {
    let line = format!("{program} {}", words.join(" "));
    eprintln!("xtask: {line}");
    let began = Instant::now();
    let mut command = Command::new(program);
    command.current_dir(root().join(folder)).args(words).envs(set.iter().copied());
    match command.status() {
        Ok(status) if status.success() => {
            eprintln!("xtask: {:.0} s for {line}", began.elapsed().as_secs_f64());
            Ok(())
        }
        Ok(status) => Err(format!("`{line}` ended with {status}")),
        Err(error) => Err(format!("`{program}` can't be run: {error}")),
    }
}

/// Is a program there?
pub(crate) fn has(program: &str, probe: &str) -> bool {
    Command::new(program).arg(probe).output().is_ok_and(|output| output.status.success())
}
