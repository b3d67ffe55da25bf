//! Where a joint lets go, as far as it can be known: how liquid its metal is at which temperature, by how much of the feed has
//! mixed in.

use super::band::band;
use super::melt_curve::{MeltCurve, liquidus, melt_curve, working_temperature};
use crate::materials::{Composition, Confidence, Metal};
use crate::units::{TempDelta, Temperature};

/// Liquid fractions at which a path is known, mole per mole. No joint lets go with less.
const FRACTIONS: [f64; 7] = [0.75, 0.80, 0.85, 0.90, 0.95, 0.98, 1.0];
/// Place of the working temperature among them.
const WORKING: usize = 5;

/// At which temperature so much of a metal is liquid.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LiquidPath {
    /// Where it begins to melt.
    pub solidus: Temperature,
    at: [Temperature; FRACTIONS.len()],
}

/// How a joint melts in one run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Melts {
    /// Where it begins to.
    pub solidus: Temperature,
    /// Where it lets go.
    pub lets_go: Temperature,
    /// How much of it is liquid there, 0-1.
    pub liquid: f64,
    /// Where all of it is liquid.
    pub melted: Temperature,
}

impl Melts {
    /// The same at other temperatures.
    pub fn shifted(self, by: TempDelta) -> Self {
        let Self { solidus, lets_go, liquid, melted } = self;
        Self { solidus: solidus + by, lets_go: lets_go + by, liquid, melted: melted + by }
    }
}

/// Where a joint melts, as far as it can be known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MeltTarget {
    /// Where it begins to.
    pub solidus: Temperature,
    /// Where it counts as melted: 98 % of it.
    pub melted: Temperature,
    /// Eight in ten lie within this of it, either side, how well the feed mixes included.
    pub spread: TempDelta,
    /// The same for the model of the alloy alone.
    pub alloy_spread: TempDelta,
    /// A plated hole?
    pub hole: bool,
    /// When least, as usual and most of the feed has mixed in.
    paths: [LiquidPath; 3],
}

/// A temperature, or the end of the range that it is beyond.
fn within(t: Temperature, low: Temperature, high: Temperature) -> Temperature {
    if t < low {
        low
    } else if t > high {
        high
    } else {
        t
    }
}

impl LiquidPath {
    /// Straight from solidus to `melted`.
    fn straight(solidus: Temperature, melted: Temperature) -> Self {
        let range = (melted - solidus).in_kelvin();
        Self { solidus, at: FRACTIONS.map(|f| solidus + TempDelta::kelvin(range * (f / FRACTIONS[WORKING]).min(1.0))) }
    }

    fn from_curve(curve: &MeltCurve) -> Option<Self> {
        let melted = curve.t98.or(curve.liquidus)?;
        let solidus = curve.solidus.filter(|s| *s <= melted).unwrap_or(melted);
        let straight = Self::straight(solidus, melted);
        let at = |k: usize| within(curve.liquid_from(FRACTIONS[k]).unwrap_or(straight.at[k]), solidus, melted);
        Some(Self { solidus, at: std::array::from_fn(at) })
    }

    /// The same shape between other ends: published ones are surer than the computed.
    fn between(self, solidus: Temperature, melted: Temperature) -> Self {
        let (from, range) = (self.solidus, (self.at[WORKING] - self.solidus).in_kelvin());
        let Some(scale) = (range > 0.0).then(|| (melted - solidus).in_kelvin() / range) else {
            return Self::straight(solidus, melted);
        };
        Self { solidus, at: self.at.map(|t| solidus + TempDelta::kelvin((t - from).in_kelvin() * scale)) }
    }

    /// Where `fraction` of it is liquid, on straight lines between what is known.
    pub fn at(&self, fraction: f64) -> Temperature {
        let Some(above) = FRACTIONS.iter().position(|f| *f >= fraction) else { return self.at[FRACTIONS.len() - 1] };
        let Some(below) = above.checked_sub(1) else { return self.at[0] };
        let part = (fraction - FRACTIONS[below]) / (FRACTIONS[above] - FRACTIONS[below]);
        self.at[below] + TempDelta::kelvin((self.at[above] - self.at[below]).in_kelvin() * part)
    }
}

impl MeltTarget {
    /// Of a metal as it is. Where several sources agree on a published liquidus, that; else T98 and the model's band.
    pub fn from_metal(metal: &Metal) -> Option<Self> {
        if let Some(row) = metal.published().filter(|row| row.confidence == Confidence::High) {
            let (solidus, melted) = (row.solidus(), row.liquidus());
            let computed = LiquidPath::from_curve(&melt_curve(&metal.composition));
            let path = computed.map_or_else(|| LiquidPath::straight(solidus, melted), |p| p.between(solidus, melted));
            return Some(Self::of_path(path, TempDelta::kelvin(row.confidence.spread_k())));
        }
        let path = LiquidPath::from_curve(&melt_curve(&metal.composition))?;
        Some(Self::of_path(path, band(&metal.composition).liquidus))
    }

    /// Where a metal as it is counts as melted, without the rest of its curve: what is asked of every candidate of a search.
    pub fn melted_of(metal: &Metal) -> Option<Temperature> {
        let published = metal.published().filter(|row| row.confidence == Confidence::High);
        published
            .map(|row| row.liquidus())
            .or_else(|| working_temperature(&metal.composition))
            .or_else(|| liquidus(&metal.composition))
    }

    /// Melting straight from solidus to `melted`: what nobody computes.
    pub fn straight(solidus: Temperature, melted: Temperature, spread: TempDelta) -> Self {
        Self::of_path(LiquidPath::straight(solidus, melted), spread)
    }

    fn of_path(path: LiquidPath, alloy_spread: TempDelta) -> Self {
        let (solidus, melted) = (path.solidus, path.at[WORKING]);
        Self { solidus, melted, spread: alloy_spread, alloy_spread, hole: false, paths: [path; 3] }
    }

    /// Of what a joint holds when least, as usual and most of its feed has mixed in: the spread holds how well the feed mixes and
    /// how good the model is, as independent errors.
    pub(super) fn from_mixes([least, usual, most]: [Composition; 3]) -> Option<Self> {
        let path = |mix: &Composition| LiquidPath::from_curve(&melt_curve(mix));
        let (least, most, alloy_spread) = (path(&least)?, path(&most)?, band(&usual).liquidus);
        let usual = path(&usual)?;
        let by_mixing = (least.at[WORKING] - most.at[WORKING]).in_kelvin().abs() / 2.0;
        let spread = TempDelta::kelvin(by_mixing.hypot(alloy_spread.in_kelvin()));
        let target = Self::of_path(usual, alloy_spread);
        Some(Self { spread, paths: [least, usual, most], ..target })
    }

    /// The same for a plated hole, or a pad.
    pub(super) fn of_hole(self, hole: bool) -> Self {
        Self { hole, ..self }
    }

    /// Where it lets go with so much `liquid`, when the feed has mixed in as `mixing` says: 0 the least, 0.5 as usual, 1 the most.
    pub fn melts(&self, mixing: f64, liquid: f64) -> Melts {
        let [least, usual, most] = &self.paths;
        let (low, high, part) =
            if mixing < 0.5 { (least, usual, 2.0 * mixing) } else { (usual, most, 2.0 * mixing - 1.0) };
        let between = |a: Temperature, b: Temperature| a + TempDelta::kelvin((b - a).in_kelvin() * part);
        let at = |fraction: f64| between(low.at(fraction), high.at(fraction));
        let solidus = between(low.solidus, high.solidus);
        let lets_go = at(liquid);
        Melts {
            solidus,
            lets_go,
            liquid,
            melted: if lets_go > at(FRACTIONS[WORKING]) { lets_go } else { at(FRACTIONS[WORKING]) },
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn fed(mixing: f64, liquid: f64) -> Melts {
        let metal = |name: &str| Metal::parse("alloy", name).expect("in the table").composition;
        let mix = |share: f64| Composition::mixed(&[(metal("SAC305"), 1.0 - share), (metal("Sn42Bi58"), share)]);
        let mixes = [0.25, 0.4, 0.5].map(|share| mix(share).expect("mixes"));
        MeltTarget::from_mixes(mixes).expect("computed").melts(mixing, liquid)
    }

    #[test]
    fn a_mix_that_is_four_fifths_liquid_lets_pads_go_and_not_holes() {
        let at_80 = fed(0.5, 0.80).lets_go;
        assert!(fed(0.5, 0.78).lets_go < at_80, "a pad that wants 78 %");
        assert!(fed(0.5, 0.92).lets_go > at_80, "a hole that wants 92 %");
    }

    #[test]
    fn better_mixed_melts_lower_and_a_pure_alloy_does_not_care() {
        assert!(fed(1.0, 0.9).lets_go < fed(0.5, 0.9).lets_go && fed(0.5, 0.9).lets_go < fed(0.0, 0.9).lets_go);
        let plain = MeltTarget::from_metal(&Metal::parse("alloy", "SAC305").expect("in the table")).expect("published");
        assert_eq!(plain.melts(0.0, 0.9), plain.melts(1.0, 0.9));
        assert!(plain.melts(0.5, 0.9).lets_go <= plain.melted);
    }
}
