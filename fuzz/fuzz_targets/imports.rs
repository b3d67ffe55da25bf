//! Every reader of a file from outside, on the same bytes: none panics, none takes long.
#![no_main]

use libfuzzer_sys::fuzz_target;
use mend_core::board::Point;
use mend_formats::kicad::{self, Said};
use mend_formats::{board, connector, placement};

fuzz_target!(|bytes: &[u8]| {
    let _ = board::parse(bytes);
    let _ = connector::parse(bytes);
    if let Ok(layout) = kicad::layout(bytes) {
        for footprint in layout.footprints.iter().take(3) {
            let _ = kicad::draft(&layout, "x", &footprint.reference).map(|(draft, _)| draft.findings());
        }
    }
    if let Ok((footprint, mut said)) = kicad::footprint(bytes) {
        let _ = kicad::connector(&footprint, &mut said);
    }
    if let Ok(rows) = placement::rows(bytes) {
        placement::components(&rows, "J1", Point { x: 0.0, y: 0.0 }, &mut Said::default());
    }
});
