//! Metals by what a table calls them.

use mend_core::materials::{Alloy, Composition, Element};
use mend_core::units::Temperature;

/// `Sn=63;Pb=37`, scaled to 100 %.
pub(crate) fn composition(text: &str) -> Composition {
    let mut wt = [0.0; 8];
    for part in text.split(';') {
        let (symbol, share) = part.split_once('=').expect("element=share");
        wt[Element::named(symbol).expect("an element") as usize] = share.parse::<f64>().expect("a number");
    }
    let sum: f64 = wt.iter().sum();
    Composition::from_wt_percent(wt.map(|w| w * 100.0 / sum)).expect("a composition")
}

/// An alloy of the table or a pure element.
pub(crate) fn metal(name: &str) -> Composition {
    let alloy = Alloy::named(name).map(Alloy::composition);
    alloy.unwrap_or_else(|| composition(&format!("{name}=100")))
}

pub(crate) fn celsius(t: Option<Temperature>) -> Option<f64> {
    t.map(Temperature::in_celsius)
}
