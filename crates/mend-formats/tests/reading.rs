//! The open formats: what ships can be read, what is published is current, and nothing that is sent makes a reader panic.
#![allow(clippy::unwrap_used, clippy::expect_used)]

use std::fs;
use std::path::{Path, PathBuf};

use mend_core::board::rules;
use mend_core::finding::Finding;
use mend_core::finding::problem::Problem;
use mend_core::planning::change::Change;
use mend_core::planning::damaged::Damaged;
use mend_core::planning::limited_by::LimitedBy;
use mend_core::planning::make_plan::plan;
use mend_core::planning::margin::MarginDetail;
use mend_core::planning::next_move::MoveEffect;
use mend_formats::{board, bundle, draft, plan as plan_format, shop, station};
use proptest::prelude::*;

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..")
}

fn files(folder: &str) -> Vec<(String, Vec<u8>)> {
    let entries = fs::read_dir(root().join(folder)).unwrap();
    let file = |entry: std::io::Result<fs::DirEntry>| {
        let path = entry.unwrap().path();
        (path.display().to_string(), fs::read(&path).unwrap())
    };
    entries.map(file).collect()
}

fn message(findings: &[Finding]) -> String {
    let line = |f: &Finding| match &f.problem {
        Problem::Written { message, hint } => format!("{}: {message}: {hint}", f.place),
        typed => format!("{}: {}", f.place, serde_json::to_string(typed).unwrap()),
    };
    findings.iter().map(line).collect::<Vec<_>>().join("\n")
}

#[test]
fn everything_the_demo_ships_can_be_read() {
    for (name, bytes) in files("demo/boards") {
        let board = board::parse(&bytes).unwrap();
        assert_eq!(message(&rules::check(&board)), "", "{name}");
        let again = board::parse(board::write(&board).unwrap().as_bytes()).unwrap();
        assert_eq!(board::write(&again).unwrap(), board::write(&board).unwrap(), "{name}");
    }
    for (name, bytes) in files("demo/drafts") {
        let board = draft::parse(&bytes).unwrap().board().unwrap();
        assert_eq!(message(&rules::check(&board)), "", "{name}");
    }
    for (name, bytes) in files("demo/stations") {
        assert!(station::parse(&bytes).is_ok(), "{name}");
    }
    let jobs = files("demo/jobs");
    assert!(jobs.len() >= 8);
    for (name, bytes) in jobs {
        assert!(shop::parse(&bytes).is_ok(), "{name}: {}", message(&shop::parse(&bytes).unwrap_err()));
    }
}

#[test]
fn the_published_schema_is_the_readers_own() {
    let file = root().join("docs/formats/board.schema.json");
    if std::env::var_os("REWRITE_SCHEMA").is_some() {
        fs::write(&file, board::schema()).unwrap();
    }
    assert_eq!(fs::read_to_string(file).unwrap(), board::schema(), "run the tests once with REWRITE_SCHEMA=1");
}

fn example() -> String {
    fs::read_to_string(root().join("docs/formats/bundle.example.json")).unwrap()
}

/// Files as they were written before names were settled: the same bundle, board and plan come out of them.
#[test]
fn older_names_are_still_read() {
    let mut older = example();
    for (new, old) in [
        ("urgent-mend/bundle/2", "urgent-mend/bundle/1"),
        ("urgent-mend/board/2", "urgent-mend/board/1"),
        ("urgent-mend/equipment/2", "urgent-mend/means/1"),
        ("\"components\"", "\"neighbours\""),
        ("\"keep_intact\"", "\"must_live\""),
        ("\"equipment\"", "\"means\""),
        ("\"preheat\"", "\"before\""),
        ("\"during\"", "\"with\""),
        ("\"preheater\"", "\"plate\""),
        ("\"ambient_c\"", "\"room_c\""),
    ] {
        older = older.replace(new, old);
    }
    assert_ne!(older, example());
    let (one, other) = (bundle::parse(older.as_bytes()), bundle::parse(example().as_bytes()).unwrap());
    let one = one.unwrap_or_else(|found| panic!("{}", message(&found)));
    assert_eq!(
        (one.board, one.recipe, one.equipment),
        (other.board.clone(), other.recipe.clone(), other.equipment.clone())
    );
    assert_eq!(
        (one.keep_intact, one.composition, one.ambient),
        (other.keep_intact, other.composition.clone(), other.ambient)
    );
    let made = plan(&other.order(&mend_core::watch::Watch::new())).unwrap();
    let mut text = plan_format::write(&made).unwrap();
    for (new, old) in [
        ("urgent-mend/plan/2", "urgent-mend/plan/1"),
        ("\"limited_by\"", "\"binds\""),
        ("\"abort\"", "\"stop\""),
        ("\"solid_after_s\"", "\"hold_s\""),
        ("\"wickable_for_s\"", "\"warm_s\""),
        ("\"headroom_k\"", "\"margin_k\""),
        ("\"status\"", "\"standing\""),
        ("\"kind\":\"component\"", "\"kind\":\"neighbour\""),
    ] {
        assert!(text.contains(new), "{new}");
        text = text.replace(new, old);
    }
    assert!(plan_format::read(&text) == Some(made));
}

/// What stood in words in plans of older versions is still shown as it was written.
#[test]
fn the_sentences_of_an_older_plan_are_kept() {
    let bundle = bundle::parse(example().as_bytes()).unwrap();
    let made = plan(&bundle.order(&mend_core::watch::Watch::new())).unwrap();
    let mut file: serde_json::Value = serde_json::from_str(&plan_format::write(&made).unwrap()).unwrap();
    file["limited_by"] = "Joint A1 melts last.".into();
    file["abort"]["spares"] = "C7, blown away".into();
    file["margins"][0]["detail"] = "12 joints, hidden".into();
    file["findings"] = serde_json::json!([
        {"rule": "ramp", "severity": "warning", "place": "settings", "message": "C7 warms fast", "hint": "soak it"}
    ]);
    file["next_move"] = serde_json::json!({
        "what": "air at 420 °C", "brings": "it melts", "recipe": file["recipe"], "headroom_k": 3.0
    });
    let read = plan_format::read(&file.to_string()).unwrap();
    assert_eq!(read.limited_by, LimitedBy::Written("Joint A1 melts last.".to_owned()));
    assert_eq!(read.abort.spares, Some(Damaged::Written("C7, blown away".to_owned())));
    assert_eq!(read.margins[0].detail, MarginDetail::Written("12 joints, hidden".to_owned()));
    assert_eq!(read.findings[0].problem, Problem::written("C7 warms fast", "soak it"));
    let next = read.next_move.unwrap();
    assert_eq!(
        (next.what, next.brings),
        (Change::Written("air at 420 °C".into()), MoveEffect::Written("it melts".into()))
    );
}

#[test]
fn a_plan_is_written_and_read_back_the_same() {
    let bundle = bundle::parse(example().as_bytes()).unwrap();
    let made = plan(&bundle.order(&mend_core::watch::Watch::new())).unwrap();
    let text = plan_format::write(&made).unwrap();
    assert!(plan_format::read(&text) == Some(made), "not the same to the bit");
    let older = text.replace("\"engine\":", "\"engine\":9");
    assert!(plan_format::read(&older).is_none(), "a plan of another engine is computed anew");
}

#[test]
fn objections_name_field_value_and_remedy() {
    let cases = [
        (
            "\"alloy\": \"Sn63Pb37\"",
            "\"alloy\": \"Sn1Xx99\"",
            r#"alloy: {"kind":"not-in-table","text":"Sn1Xx99","known":["Sn63Pb37""#,
        ),
        (
            "\"thickness_mm\": 1.2",
            "\"thickness_mm\": -1.2",
            r#"thickness_mm: {"kind":"out-of-range","value":-1.2,"low":0.1,"high":5.0,"unit":"mm"}"#,
        ),
        ("\"set_c\": 440", "\"set_c\": \"hot\"", "settings.set_c: invalid type: string \"hot\""),
        (
            "urgent-mend/bundle/2",
            "urgent-mend/bundle/9",
            "format: “urgent-mend/bundle/9” is not “urgent-mend/bundle/2”",
        ),
        (
            "\"ambient_c\": 23",
            "\"ambient_c\": 900",
            r#"ambient_c: {"kind":"out-of-range","value":900.0,"low":-10.0,"high":45.0,"unit":"°C"}"#,
        ),
    ];
    for (from, to, expected) in cases {
        let changed = example().replacen(from, to, 1);
        assert_ne!(changed, example(), "{from} is in the example");
        let objections = message(&bundle::parse(changed.as_bytes()).unwrap_err());
        assert!(objections.contains(expected), "{expected}\nis not in\n{objections}");
    }
}

#[test]
fn a_field_that_nobody_knows_is_refused_wherever_it_stands() {
    let iron = r#"{"set_c": 380, "tip_mm": 4, "row": "A", "glow": 1}"#;
    let preheater = r#"{"set_c": 150, "side_mm": 60, "face": "bottom", "coupling": "pad", "glow": 1}"#;
    let shield = r#"{"kind": "polyimide", "layers": 2, "face": "top", "at_mm": [1, 2], "width_mm": 3, "depth_mm": 4, "glow": 1}"#;
    let cases = [
        r#""during": {"glow": 1}"#.to_owned(),
        format!(r#""during": {{"iron": {iron}}}"#),
        format!(r#""during": {{"preheater": {preheater}}}"#),
        r#""bridge": {"alloy": "Sn63Pb37", "wire_mm": 1, "glow": 1}"#.to_owned(),
        format!(r#""shields": [{shield}]"#),
        r#""preheat": [{"lasts_s": 30, "glow": 1}]"#.to_owned(),
        r#""preheat": [{"lasts_s": 30, "air": {"set_c": 200, "glow": 1}}]"#.to_owned(),
    ];
    for case in cases {
        let changed = example().replacen("\"set_c\": 440", &format!("{case}, \"set_c\": 440"), 1);
        assert_ne!(changed, example());
        let objections = message(&bundle::parse(changed.as_bytes()).unwrap_err());
        assert!(objections.contains("glow") || objections.contains("unknown field"), "{case}\n{objections}");
    }
}

#[test]
fn a_shield_comes_back_as_written_and_takes_only_what_its_kind_has() {
    let tent = r#"{"kind":"foil-tent","gap_mm":2.0,"face":"top","at_mm":[1.0,2.0],"width_mm":3.0,"depth_mm":4.0}"#;
    let read: mend_core::heat::shield::Shield = serde_json::from_str(tent).unwrap();
    assert_eq!(serde_json::to_string(&read).unwrap(), tent);
    for wrong in ["\"layers\":2", "\"height_mm\":3"] {
        let changed = tent.replace("\"gap_mm\":2.0", wrong);
        assert!(serde_json::from_str::<mend_core::heat::shield::Shield>(&changed).is_err(), "{wrong}");
    }
}

#[test]
fn a_row_is_unrolled_with_its_roles_and_bounded() {
    let made = board::parse(&fs::read(root().join("demo/boards/osprake-quay-14.json")).unwrap()).unwrap();
    let names: Vec<&str> = made.connector.joints.iter().map(|j| j.name.as_str()).collect();
    assert_eq!(names.len(), 28);
    assert_eq!((names[0], names[11], names[12]), ("A1", "A12", "B1"));
    let text = fs::read_to_string(root().join("demo/boards/osprake-quay-14.json")).unwrap();
    let huge = text.replace("\"count\": 12", "\"count\": 18446744073709551615");
    assert!(message(&board::parse(huge.as_bytes()).unwrap_err()).contains("600 joints"));
}

proptest! {
    #[test]
    fn no_bytes_make_a_reader_panic(bytes in proptest::collection::vec(any::<u8>(), 0..400)) {
        let _ = board::parse(&bytes);
        let _ = bundle::parse(&bytes);
        let _ = shop::parse(&bytes);
        let _ = station::parse(&bytes);
    }

    #[test]
    fn no_number_in_a_board_makes_its_reader_panic(at in 0usize..200, value in any::<f64>()) {
        let text = fs::read_to_string(root().join("demo/boards/osprake-quay-14.json")).unwrap();
        let numbers: Vec<(usize, usize)> = digits(&text);
        let (from, to) = numbers[at % numbers.len()];
        let changed = format!("{}{value:e}{}", &text[..from], &text[to..]);
        let _ = board::parse(changed.as_bytes());
    }
}

/// Where numbers stand in a text.
fn digits(text: &str) -> Vec<(usize, usize)> {
    let mut found = Vec::new();
    let mut from = None;
    for (at, c) in text.char_indices() {
        let part = c.is_ascii_digit() || c == '.' || c == '-';
        match (part, from) {
            (true, None) if text[..at].ends_with([' ', '[']) => from = Some(at),
            (false, Some(start)) => {
                found.push((start, at));
                from = None;
            }
            _ => {}
        }
    }
    found
}
