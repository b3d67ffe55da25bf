//! Layouts of others: a made-up relay board of 240 footprints comes in whole, and nothing that is sent makes a reader panic.
#![allow(clippy::unwrap_used, clippy::expect_used)]

use mend_core::board::{Face, JointShape, Role, rules};
use mend_core::finding::problem::Problem;
use mend_formats::kicad::{self, ImportNotes, sexpr};
use mend_formats::{connector, placement};
use proptest::prelude::*;

const RELAY: &[u8] = include_bytes!("files/harl-relay.kicad_pcb");

#[test]
fn a_board_of_240_footprints_comes_in_with_its_rim_and_its_layers() {
    let layout = kicad::layout(RELAY).unwrap();
    assert_eq!(layout.footprints.len(), 240);
    let rim = layout.outline.as_ref().expect("it closes");
    let bounds = rim.bounds();
    // 90 x 55 mm with corners of 3 mm, its lower left corner at the origin.
    assert!((bounds.width - 90.0).abs() < 0.01 && (bounds.depth - 55.0).abs() < 0.01, "{bounds:?}");
    assert!(bounds.left().abs() < 0.01 && bounds.near().abs() < 0.01);
    let by_hand = 90.0 * 55.0 - 9.0 * (4.0 - std::f64::consts::PI);
    assert!((rim.area() - by_hand).abs() < 1.0, "{} against {by_hand}", rim.area());
    assert!(!layout.notes.left_out.contains_key("gr_arc"), "the rim's arcs are read: {:?}", layout.notes);
    for what in ["gr_text", "group", "model of a footprint"] {
        assert!(layout.notes.left_out.contains_key(what), "{what}: {:?}", layout.notes);
    }
}

#[test]
fn the_chosen_part_becomes_a_connector_and_the_rest_its_components() {
    let layout = kicad::layout(RELAY).unwrap();
    let (draft, notes) = kicad::draft(&layout, "Harl relay", "J1").unwrap();
    let board = draft.board().unwrap_or_else(|f| panic!("{f:?}"));
    let part = &board.connector;
    // The port stands 4 mm from the near rim, turned half round: its pins look inwards.
    assert!((part.body.centre.x - 30.0).abs() < 0.01 && (part.body.centre.y - 4.0).abs() < 0.01, "{:?}", part.body);
    let a1 = part.joints.iter().find(|j| j.name == "A1").unwrap();
    assert_eq!((a1.role, a1.hidden, a1.row.as_str()), (Role::Ground, false, "row A"));
    assert!(a1.at.y > part.body.far() - 0.5, "{:?}", a1.at);
    let hidden = part.joints.iter().filter(|j| j.hidden).count();
    let legs: Vec<_> = part.joints.iter().filter(|j| j.role == Role::Anchor).collect();
    assert_eq!((part.joints.len(), hidden, legs.len(), part.pegs), (28, 12, 4, 1));
    assert_eq!(legs[0].shape, JointShape::Hole { drill: 0.7, pad: 1.2 });
    assert!(board.components.len() > 100 && board.components.iter().any(|n| n.face == Face::Bottom));
    assert!(notes.left_out.keys().any(|what| what.contains("“TP”")), "{notes:?}");
    assert!(notes.taken.keys().any(|what| what.starts_with("height not in the file")), "{notes:?}");
    assert!(rules::check(&board).iter().all(|f| f.severity < mend_core::finding::Severity::Blocking));
}

#[test]
fn copper_is_counted_round_the_port() {
    let layout = kicad::layout(RELAY).unwrap();
    let (draft, _) = kicad::draft(&layout, "Harl relay", "J1").unwrap();
    let stack = draft.stack;
    assert_eq!((stack.thickness.in_mm(), stack.layers, stack.planes), (1.2, 4, 2));
    assert!(stack.plane_coverage > 0.9, "two whole planes: {stack:?}");
    // Half of the bottom layer is poured below the port, the top one has tracks only: about a quarter together.
    assert!((0.1..0.6).contains(&stack.signal_coverage), "{stack:?}");
    assert!((stack.foil_um - 26.5).abs() < 0.1, "(35 + 18 + 18 + 35) / 4: {stack:?}");
    assert!(stack.vias_per_mm2.is_some_and(|vias| (0.02..0.2).contains(&vias)), "{stack:?}");
}

#[test]
fn a_part_that_is_not_there_is_refused_by_name() {
    let layout = kicad::layout(RELAY).unwrap();
    let found = kicad::draft(&layout, "x", "J9").unwrap_err();
    let Problem::Written { message, hint } = &found[0].problem else { panic!("{found:?}") };
    assert!(message.contains("“J9”") && !hint.is_empty());
}

#[test]
fn a_footprint_file_becomes_a_connector() {
    let text = r#"(footprint "jack" (layer "F.Cu")
        (fp_text reference "REF**" (at 0 0) (layer "F.SilkS")) (fp_text value "side jack" (at 0 1) (layer "F.Fab"))
        (fp_circle (center 0 0) (end 3 0) (layer "F.Fab") (width 0.1))
        (pad "1" smd rect (at -3 0) (size 1.5 1.2) (layers "F.Cu" "F.Mask"))
        (pad "2" smd rect (at 3 0 45) (size 1.5 1.2) (layers "F.Cu" "F.Mask"))
        (pad "3" smd rect (at 0 4) (size 1 1) (layers "F.Paste"))
        (pad "" np_thru_hole circle (at 0 0) (size 1 1) (drill 1) (layers "*.Cu")))"#;
    let (footprint, mut notes) = kicad::footprint(text.as_bytes()).unwrap();
    let part = kicad::connector(&footprint, &mut notes).unwrap();
    assert_eq!((part.name.as_str(), part.joints.len(), part.pegs), ("side jack", 2, 1));
    assert!((part.body.width - 6.0).abs() < 1e-9);
    assert_eq!(notes.left_out["pad without copper"], 1);
    assert_eq!(notes.taken["pad at an odd angle: taken as the rectangle round it"], 1);
    assert!(kicad::footprint(RELAY).is_err(), "a board is no footprint");
    assert!(kicad::layout(text.as_bytes()).is_err(), "a footprint is no board");
}

#[test]
fn what_the_fuzzer_begins_with_is_read() {
    let layout = kicad::layout(include_bytes!("../../../fuzz/seeds/board.kicad_pcb")).unwrap();
    let (draft, _) = kicad::draft(&layout, "seed", "J1").unwrap();
    let component = &draft.components[0];
    assert_eq!((component.name.as_str(), component.face), ("C1", Face::Bottom));
    assert!((component.body.width - 1.5).abs() < 1e-9, "2 mm of courtyard less 0.25 mm all round: {component:?}");
    assert_eq!(layout.notes.taken["pad at an odd angle: taken as the rectangle round it"], 1);
    assert!(kicad::footprint(include_bytes!("../../../fuzz/seeds/footprint.kicad_mod")).is_ok());
    assert_eq!(placement::rows(include_bytes!("../../../fuzz/seeds/table.csv")).unwrap().len(), 3);
    assert!(connector::parse(include_bytes!("../../../fuzz/seeds/connector.json")).is_ok(), "the documented example");
}

/// Words and brackets as such files have them, in any order.
fn soup() -> impl Strategy<Value = String> {
    let words = prop::sample::select(vec![
        "(",
        ")",
        "(",
        ")",
        "(kicad_pcb ",
        "(footprint \"a\" ",
        "(pad \"1\" smd rect ",
        "(at 1 2 45)",
        "(at nan 1e308)",
        "(size 1 1)",
        "(layers \"*.Cu\")",
        "(layer \"Edge.Cuts\")",
        "(gr_line (start 0 0) (end 9 9) (layer \"Edge.Cuts\"))",
        "(gr_arc (start 0 0)",
        "(mid 1 1)",
        "(drill oval 1 2)",
        "(property \"Reference\" \"J1\")",
        "(zone ",
        "(filled_polygon (pts (xy 0 0) (xy 9 0) (xy 9 9)))",
        "\"",
        "\\",
        "-1e9",
        "0",
        "é",
        "(layers (0 \"F.Cu\" signal))",
        "(general (thickness -3))",
        "(gr_circle (center 0 0) (end 40 0) (layer \"Edge.Cuts\"))",
    ]);
    prop::collection::vec(words, 0..80).prop_map(|words| words.concat())
}

/// Everything that a file from outside goes through.
fn swallow(bytes: &[u8]) {
    let _ = sexpr::read(bytes);
    if let Ok(layout) = kicad::layout(bytes) {
        for footprint in layout.footprints.iter().take(5) {
            let _ = kicad::draft(&layout, "x", &footprint.reference).map(|(draft, _)| draft.findings());
        }
    }
    if let Ok((footprint, mut notes)) = kicad::footprint(bytes) {
        let _ = kicad::connector(&footprint, &mut notes);
    }
    if let Ok(rows) = placement::rows(bytes) {
        placement::components(&rows, "J1", mend_core::board::Point { x: 0.0, y: 0.0 }, &mut ImportNotes::default());
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    #[test]
    fn no_bytes_make_a_reader_panic(bytes in prop::collection::vec(any::<u8>(), 0..400)) {
        swallow(&bytes);
    }

    #[test]
    fn no_soup_of_its_own_words_makes_a_reader_panic(text in soup()) {
        swallow(text.as_bytes());
        swallow(format!("(kicad_pcb {text})").as_bytes());
    }

    #[test]
    fn no_cut_and_no_bent_byte_of_a_real_board_makes_a_reader_panic(at in 0..RELAY.len(), byte in any::<u8>(), cut in any::<bool>()) {
        let mut bent = RELAY.to_vec();
        if cut { bent.truncate(at) } else { bent[at] = byte }
        swallow(&bent);
    }

    #[test]
    fn a_list_comes_back_as_deep_as_it_was_and_not_deeper_than_allowed(depth in 1usize..200) {
        let text = format!("{}{}", "(a ".repeat(depth), ")".repeat(depth));
        prop_assert_eq!(sexpr::read(text.as_bytes()).is_ok(), depth <= sexpr::DEEPEST);
    }
}
