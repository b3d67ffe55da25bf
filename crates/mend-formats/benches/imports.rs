//! How long a board file takes: `cargo bench -p mend-formats`.
#![allow(clippy::print_stdout, clippy::expect_used, reason = "a bench prints and may stop")]

use std::time::Instant;

use mend_formats::kicad;

fn main() {
    let bytes = include_bytes!("../tests/files/harl-relay.kicad_pcb");
    let footprints = kicad::layout(bytes).expect("a layout").footprints.len();
    let mut times: Vec<f64> = (0..20)
        .map(|_| {
            let start = Instant::now();
            let layout = kicad::layout(bytes).expect("a layout");
            let draft = kicad::draft(&layout, "Harl relay", "J1").expect("a draft");
            assert!(!draft.0.components.is_empty());
            start.elapsed().as_secs_f64() * 1e3
        })
        .collect();
    times.sort_by(f64::total_cmp);
    let (best, middle) = (times[0], times[times.len() / 2]);
    println!("{footprints} footprints, {} kB: best {best:.1} ms, median {middle:.1} ms", bytes.len() / 1000);
}
