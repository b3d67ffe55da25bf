//! `urgent-mend plan` as a person or a script calls it.
#![allow(clippy::unwrap_used)]

use std::path::{Path, PathBuf};
use std::process::{Command, Output};

fn example() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/formats/bundle.example.json")
}

fn plan(file: &Path, words: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_urgent-mend")).arg("plan").arg(file).args(words).output().unwrap()
}

#[test]
fn a_bundle_is_planned_as_json() {
    let output = plan(&example(), &["--json"]);
    assert_eq!(output.status.code(), Some(0));
    let made: serde_json::Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(made["format"], "urgent-mend/plan/2");
    assert_eq!(made["melts_at_c"], 183.0);
    assert!(made["release"]["mid_s"].as_f64().unwrap() > 10.0);
    assert_eq!(made["margins"].as_array().unwrap().len(), 9);
    assert_eq!(plan(&example(), &["--json"]).stdout, output.stdout, "the same bundle gives the same bytes");
}

#[test]
fn bad_input_ends_with_2_and_says_what_to_do() {
    let missing = plan(Path::new("/nowhere/bundle.json"), &["--json"]);
    assert_eq!(missing.status.code(), Some(2));
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("hot.json");
    std::fs::write(&file, std::fs::read_to_string(example()).unwrap().replace("\"set_c\": 440", "\"set_c\": 900"))
        .unwrap();
    let hot = plan(&file, &[]);
    assert_eq!(hot.status.code(), Some(2));
    let message = String::from_utf8(hot.stderr).unwrap();
    assert!(message.contains("set_c: 900 °C can't be: Gull, bench 1 takes 100 to 480 °C"), "{message}");
    assert!(hot.stdout.is_empty());
}
