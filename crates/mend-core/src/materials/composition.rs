//! What a metal is made of, by mass.

use super::element::Element;
use crate::finding::Finding;
use crate::finding::problem::AlloyProblem;

/// Shares may miss 100 % by this much in all, wt%: rounding on a label.
const SUM_SLACK: f64 = 0.5;
const RULE: &str = "composition";

/// Mass shares that sum to one, in the order of [`Element::ALL`].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Composition([f64; 8]);

impl Composition {
    /// From wt% that sum to 100 ± 0.5, none negative; scaled to sum exactly. Every objection at once.
    ///
    /// ```
    /// use mend_core::materials::{Composition, Element};
    /// let mut wt = [0.0; 8];
    /// (wt[Element::Sn as usize], wt[Element::Pb as usize]) = (63.0, 37.0);
    /// assert!((Composition::from_wt_percent(wt).expect("sums to 100").wt(Element::Sn) - 63.0).abs() < 1e-9);
    /// assert!(Composition::from_wt_percent([1.0; 8]).is_err(), "sums to 8");
    /// ```
    pub fn from_wt_percent(wt: [f64; 8]) -> Result<Self, Vec<Finding>> {
        let mut found = Vec::new();
        for (element, share) in Element::ALL.into_iter().zip(wt) {
            if !(share.is_finite() && (0.0..=100.0 + SUM_SLACK).contains(&share)) {
                let problem = AlloyProblem::ElementShare { percent: share };
                found.push(Finding::blocking(RULE, element.symbol(), problem));
            }
        }
        let sum: f64 = wt.iter().sum();
        if found.is_empty() && (sum - 100.0).abs() > SUM_SLACK {
            found.push(Finding::blocking(RULE, "sum", AlloyProblem::SharesSum { percent: sum, slack: SUM_SLACK }));
        }
        if found.is_empty() { Ok(Self(wt.map(|share| share / sum))) } else { Err(found) }
    }

    /// One element alone.
    pub const fn pure(element: Element) -> Self {
        let mut shares = [0.0; 8];
        shares[element as usize] = 1.0;
        Self(shares)
    }

    /// From a row of the alloy table, which is known to be a composition.
    pub(super) fn from_row(wt: [f64; 8]) -> Self {
        let sum: f64 = wt.iter().sum();
        Self(wt.map(|share| share / sum))
    }

    /// Metals melted together, by mass (any unit). None where there is no mass at all.
    pub fn mixed(parts: &[(Self, f64)]) -> Option<Self> {
        let total: f64 = parts.iter().map(|(_, mass)| mass).sum();
        if !(total.is_finite() && total > 0.0) {
            return None;
        }
        let mut shares = [0.0; 8];
        for (part, mass) in parts {
            for (share, own) in shares.iter_mut().zip(part.0) {
                *share += own * mass / total;
            }
        }
        Some(Self(shares))
    }

    /// Mass share of an element, 0-1.
    pub const fn share(&self, element: Element) -> f64 {
        self.0[element as usize]
    }

    /// wt% of an element.
    pub const fn wt(&self, element: Element) -> f64 {
        100.0 * self.0[element as usize]
    }

    /// wt% of all.
    pub fn wt_percent(&self) -> [f64; 8] {
        self.0.map(|share| share * 100.0)
    }

    /// Density, g/cm³: volumes add up (against published figures within 1 %).
    pub fn density(&self) -> f64 {
        1.0 / Element::ALL.into_iter().map(|e| self.share(e) / e.density()).sum::<f64>()
    }

    /// In words: `Sn 63, Pb 37`, the most first, traces left out.
    pub fn summary(&self) -> String {
        let mut parts: Vec<(Element, f64)> = Element::ALL.into_iter().map(|e| (e, self.wt(e))).collect();
        parts.retain(|(_, wt)| *wt >= 0.05);
        parts.sort_by(|a, b| b.1.total_cmp(&a.1));
        let word = |(e, wt): &(Element, f64)| {
            if *wt >= 9.95 { format!("{} {wt:.0}", e.symbol()) } else { format!("{} {wt:.1}", e.symbol()) }
        };
        parts.iter().map(word).collect::<Vec<_>>().join(", ")
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn shares_that_do_not_sum_are_refused_with_their_sum() {
        let of = |sn, pb| Composition::from_wt_percent([sn, pb, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]);
        assert!(of(62.7, 37.0).is_ok());
        let sum = AlloyProblem::SharesSum { percent: 97.0, slack: SUM_SLACK };
        assert_eq!(of(60.0, 37.0).expect_err("97 %")[0].problem, sum.into());
        assert_eq!(of(-3.0, 1e300).expect_err("two").len(), 2);
        assert!(of(f64::NAN, 100.0).is_err());
    }

    #[test]
    fn mixing_keeps_mass_and_volume() {
        let sn = Composition([1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]);
        let pb = Composition([0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]);
        let mix = Composition::mixed(&[(sn, 63.0), (pb, 37.0)]).expect("has mass");
        assert!((mix.wt(Element::Pb) - 37.0).abs() < 1e-12);
        assert!((mix.density() - 8.40).abs() < 0.01, "published 8.4: {}", mix.density());
        assert!(Composition::mixed(&[(sn, 0.0)]).is_none());
        assert_eq!(mix.summary(), "Sn 63, Pb 37");
    }
}
