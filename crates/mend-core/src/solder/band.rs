//! How sure a computed melting range is: the model against published alloys, by family.

use crate::materials::{Composition, Element};
use crate::units::TempDelta;

/// Half widths of the bands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MeltBand {
    /// Family the metal belongs to.
    pub family: &'static str,
    /// Of liquidus and working temperature.
    pub liquidus: TempDelta,
    /// Of solidus and Scheil end.
    pub freezing: TempDelta,
}

const fn of(family: &'static str, liquidus: f64, freezing: f64) -> MeltBand {
    MeltBand { family, liquidus: TempDelta::kelvin(liquidus), freezing: TempDelta::kelvin(freezing) }
}

/// From this share on an element decides the family, wt%.
const COUNTS: f64 = 0.5;

/// The band of a composition: the widest of the families it belongs to (trained on 46 published alloys, tried on 24
/// others: T98 3.3 K mean, 19.9 worst; solidus 4.9, 20.4).
///
/// ```
/// use mend_core::materials::Metal;
/// use mend_core::solder::band;
/// let composition = Metal::parse("alloy", "SAC305").expect("in the table").composition;
/// assert!(band(&composition).liquidus.in_kelvin() > 0.0);
/// ```
pub fn band(composition: &Composition) -> MeltBand {
    let wt = |element| composition.wt(element);
    let (lead, bismuth) = (wt(Element::Pb), wt(Element::Bi));
    if wt(Element::Zn) > COUNTS || wt(Element::Sb) > COUNTS {
        of("with zinc or antimony", 12.0, 12.0)
    } else if lead > 80.0 && wt(Element::Ag) > COUNTS {
        of("lead-rich with silver", 25.0, 20.0)
    } else if lead > 80.0 {
        of("lead-rich", 10.0, 20.0)
    } else if wt(Element::Ag) > 5.0 || wt(Element::Cu) > 1.0 {
        // Untried: more silver or copper than any alloy of the trade that was fitted.
        of("much silver or copper: untried", 15.0, 12.0)
    } else if wt(Element::In) > COUNTS {
        of("with indium", 8.0, if wt(Element::Sn) > 50.0 { 20.0 } else { 8.0 })
    } else if lead > 2.0 && bismuth > 2.0 {
        of("bismuth, lead and tin", 8.0, 8.0)
    } else {
        of("tin-based", 4.0, 3.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::materials::Alloy;

    #[test]
    fn a_family_decides_the_width() {
        let of = |name: &str| band(&Alloy::named(name).expect("in the table").composition());
        assert_eq!(of("SAC305").liquidus, TempDelta::kelvin(4.0));
        assert_eq!(of("Bi46Sn34Pb20").freezing, TempDelta::kelvin(8.0));
        assert_eq!(of("Sn77.2In20Ag2.8").freezing, TempDelta::kelvin(20.0));
        assert_eq!(of("Pb93.5Sn5Ag1.5").liquidus, TempDelta::kelvin(25.0));
        assert_eq!(of("Sn91Zn9").liquidus, TempDelta::kelvin(12.0));
    }
}
