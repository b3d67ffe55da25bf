//! `urgent-mend melt` as a person or a script calls it.
#![allow(clippy::unwrap_used)]

use std::process::{Command, Output};

fn melt(words: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_urgent-mend")).arg("melt").args(words).output().unwrap()
}

#[test]
fn a_mix_and_a_composition_come_as_json() {
    let output = melt(&["--mix", "SAC305=60,Sn42Bi58=40", "--json"]);
    assert_eq!(output.status.code(), Some(0));
    let made: serde_json::Value = serde_json::from_slice(&output.stdout).unwrap();
    let near = |field: &str, expected: f64| {
        let found = made[field].as_f64().unwrap();
        assert!((found - expected).abs() <= 1.0, "{field}: {found}");
    };
    near("liquidus_c", 200.0);
    near("t98_c", 191.0);
    near("solidus_c", 136.0);
    near("scheil_end_c", 136.0);
    assert!(made["scheil_end_fraction"].as_f64().unwrap() > 0.05);
    assert_eq!(made["band_c"]["liquidus"], 4.0);
    let curve = made["curve"].as_array().unwrap();
    let at_183 = curve.iter().find(|point| point["t_c"] == 183.0).unwrap();
    assert!((at_183["lever"].as_f64().unwrap() - 0.73).abs() < 0.02, "{at_183}");
    assert!(at_183["scheil"].as_f64().unwrap() >= at_183["lever"].as_f64().unwrap());

    let known = melt(&["--composition", "Sn=63,Pb=37", "--json"]);
    let known: serde_json::Value = serde_json::from_slice(&known.stdout).unwrap();
    assert_eq!(known["published"]["liquidus_c"], 183.0);
    assert!(known["notes"][0]["kind"] == "published" && known["notes"][0]["name"] == "Sn63Pb37");
}

#[test]
fn words_carry_a_band_and_a_warning() {
    let message = String::from_utf8(melt(&["--composition", "Sn=60,Pb=35,Bi=5"]).stdout).unwrap();
    assert!(message.contains("melts at") && message.contains("± 8 K"), "{message}");
    assert!(message.contains("bismuth with lead"), "{message}");
}

#[test]
fn bad_input_ends_with_2_and_says_what_to_do() {
    let cases = [
        (["--composition", "Sn=60,Pb=37"], "composition: the parts sum to 97.00 %"),
        (["--composition", "Sn=103,Pb=-3"], "is no share"),
        (["--composition", "Sn=1e300"], "is no share"),
        (["--composition", "Sn=60,Unobtainium=40"], "is no element"),
        (["--mix", ""], "mix: no solder is named"),
        (["--mix", "SAC305=60;Sn42Bi58"], "has no share"),
    ];
    for (words, expected) in cases {
        let output = melt(&words);
        let message = String::from_utf8(output.stderr).unwrap();
        assert_eq!(output.status.code(), Some(2), "{words:?}: {message}");
        assert!(message.contains(expected), "{words:?}: {message}");
        assert!(output.stdout.is_empty());
    }
    assert_eq!(melt(&["--json"]).status.code(), Some(2), "neither mix nor composition");
}
