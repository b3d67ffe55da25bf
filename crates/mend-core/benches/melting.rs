//! The melting model on one core: a liquidus, a whole curve of seven elements, a search's working temperature.
#![allow(clippy::print_stdout, clippy::unwrap_used)]

use std::hint::black_box;
use std::time::Instant;

use mend_core::materials::Composition;
use mend_core::solder::{liquidus, melt_curve, working_temperature};

/// SAC305 with two parts in ten of a quaternary removal alloy and a little zinc: seven elements.
const SEVEN: [f64; 8] = [79.1, 3.6, 9.8, 4.2, 2.4, 0.4, 0.0, 0.5];

fn main() {
    let seven = Composition::from_wt_percent(SEVEN).unwrap();
    println!("melting/liquidus_seven        {:.3} ms", milliseconds(200, || _ = black_box(liquidus(&seven))));
    println!("melting/curve_seven           {:.2} ms", milliseconds(40, || _ = black_box(melt_curve(&seven))));
    println!("melting/working_temperature   {:.2} ms", milliseconds(60, || _ = black_box(working_temperature(&seven))));
}

/// Best mean of five batches.
fn milliseconds(count: u32, work: impl Fn()) -> f64 {
    let batch = || {
        let from = Instant::now();
        (0..count).for_each(|_| work());
        from.elapsed().as_secs_f64() * 1e3 / f64::from(count)
    };
    (0..5).map(|_| batch()).fold(f64::INFINITY, f64::min)
}
