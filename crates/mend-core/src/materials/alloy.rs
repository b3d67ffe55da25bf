//! A solder alloy: what it is made of and where it melts.

use super::composition::Composition;
use super::element::Element;
use crate::units::Temperature;

/// How sure a table value is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Confidence {
    /// Several sources agree within 1-2 K.
    High,
    /// Sources differ by up to about 10 K.
    Medium,
    /// Sources contradict each other.
    Low,
}

impl Confidence {
    /// Half width of the band in which the true liquidus is expected, in K. Engineering estimate from the spread of sources.
    pub const fn spread_k(self) -> f64 {
        match self {
            Self::High => 1.0,
            Self::Medium => 4.0,
            Self::Low => 10.0,
        }
    }
}

/// One row of the alloy table.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Alloy {
    /// Its name in the trade, composition first: `Sn42Bi58`, `SAC305`.
    pub name: &'static str,
    /// Mass percent in the order of [`Element::ALL`].
    pub wt_percent: [f64; 8],
    /// Published solidus, °C.
    pub solidus_c: f64,
    /// Published liquidus, °C.
    pub liquidus_c: f64,
    /// How sure the two are.
    pub confidence: Confidence,
    /// Where sources disagree.
    pub note: &'static str,
}

impl Alloy {
    /// What it is made of.
    pub fn composition(&self) -> Composition {
        Composition::from_row(self.wt_percent)
    }
    /// Where the last of it melts.
    pub const fn liquidus(&self) -> Temperature {
        Temperature::celsius(self.liquidus_c)
    }
    /// Where the last of it freezes.
    pub const fn solidus(&self) -> Temperature {
        Temperature::celsius(self.solidus_c)
    }
    /// Does it hold lead? Then hands and waste need the lead caution.
    pub fn has_lead(&self) -> bool {
        self.wt_percent[Element::Pb as usize] > 0.0
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::materials::alloy_table::ALLOYS;

    #[test]
    fn every_row_is_a_possible_alloy() {
        for alloy in ALLOYS {
            let sum: f64 = alloy.wt_percent.iter().sum();
            assert!((sum - 100.0).abs() <= 0.5, "{} sums to {sum}", alloy.name);
            assert!(alloy.solidus_c <= alloy.liquidus_c, "{}", alloy.name);
        }
        assert_eq!(ALLOYS.len(), 55);
    }

    #[test]
    fn alloys_are_found_by_name() {
        assert_eq!(Alloy::named(" sac305 ").map(|a| a.liquidus_c), Some(220.0));
        assert!(Alloy::named("Unobtainium").is_none());
    }
}
