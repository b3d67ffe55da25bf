//! `urgent-mend calibrate` and `watch` as a script calls them.
#![allow(clippy::unwrap_used)]

use std::path::{Path, PathBuf};
use std::process::{Command, Output};

use serde_json::Value;

fn bundle() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/formats/bundle.example.json")
}

fn run(words: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_urgent-mend")).args(words).output().unwrap()
}

/// A file of these lines in a folder that is gone with it.
fn file(lines: &[String]) -> (tempfile::TempDir, String) {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("file");
    std::fs::write(&path, lines.join("\n")).unwrap();
    let path = path.to_string_lossy().into_owned();
    (folder, path)
}

/// A board that warms by so much and cools again, every ten seconds.
fn warmed(gain: f64) -> Vec<String> {
    let rise = |at: f64| gain * (1.0 - (-at.min(60.0) / 28.0).exp()) * (-(at - 60.0).max(0.0) / 80.0).exp();
    (0..13).map(|k| 10.0 * f64::from(k)).map(|at| format!("{at};{:.1}", 23.0 + rise(at))).collect()
}

#[test]
fn a_probe_is_learnt_from_and_a_weaker_warming_is_a_later_release() {
    let of = |gain: f64| -> Value {
        let (_folder, readings) = file(&warmed(gain));
        let output = run(&["calibrate", &bundle().to_string_lossy(), &readings, "--json"]);
        assert_eq!(output.status.code(), Some(0), "{}", String::from_utf8_lossy(&output.stderr));
        serde_json::from_slice(&output.stdout).unwrap()
    };
    let (weak, strong) = (of(40.0), of(55.0));
    assert_eq!(weak["format"], "urgent-mend/calibration/1");
    assert!(weak["fits"].as_bool().unwrap() && strong["fits"].as_bool().unwrap(), "{weak} {strong}");
    let middle = |found: &Value| found["release_s"]["after"][1].as_f64().unwrap_or(f64::INFINITY);
    assert!(middle(&weak) > middle(&strong), "{} {}", middle(&weak), middle(&strong));
}

#[test]
fn a_run_is_watched_line_by_line_and_a_bad_line_is_named() {
    let events = [
        "{\"at_s\": 0}",
        "{\"at_s\": 10, \"celsius\": 40.0}",
        "{\"at_s\": 11, \"celsius\": 400.0}",
        "{\"at_s\": 20, \"shines\": \"pins\"}",
    ];
    let (_folder, path) = file(&events.map(str::to_owned));
    let output = run(&["watch", &bundle().to_string_lossy(), &path, "--json"]);
    assert_eq!(output.status.code(), Some(0), "{}", String::from_utf8_lossy(&output.stderr));
    let states: Vec<Value> =
        String::from_utf8(output.stdout).unwrap().lines().map(|line| serde_json::from_str(line).unwrap()).collect();
    assert_eq!(states.len(), 4);
    assert_eq!((&states[1]["fault"], &states[2]["fault"]), (&Value::Null, &Value::from("jump")));
    assert!(
        states[3]["release_s"][1].as_f64().unwrap() < states[0]["release_s"][1].as_f64().unwrap(),
        "it shines early"
    );
    let (_folder, path) = file(&["{\"at_s\": 3, \"shines\": \"row Z\"}".to_owned()]);
    let bad = run(&["watch", &bundle().to_string_lossy(), &path]);
    assert_eq!(bad.status.code(), Some(2));
    assert!(String::from_utf8(bad.stderr).unwrap().contains("“row Z” is no row"));
}
