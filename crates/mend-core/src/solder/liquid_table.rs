//! Interaction parameters of the liquid, J/mol and J/(mol K): an effective assessment of this model, not a published one.
//!
//! `Start` values are published assessments as they were recalled; `Fitted` ones were moved from there until 46
//! published alloys came out right. Pairs are quoted (first - second) in alphabetical order of symbols, which decides
//! the sign of the odd orders.

use super::interaction::Status::{Fitted, Start};
use super::interaction::{Energy, Pair, Triple, pair, triple};
use super::phase_name::Phase::Liquid;
use crate::materials::Element::{Ag, Bi, Cu, In, Pb, Sb, Sn, Zn};

#[rustfmt::skip]
pub(super) const PAIRS: &[Pair] = &[
    pair(Liquid, [Pb, Sn], 0, Energy(6137.89, -0.2771, Fitted)),
    pair(Liquid, [Pb, Sn], 1, Energy(864.82, -1.914, Fitted)),
    pair(Liquid, [Bi, Sn], 0, Energy(-100.73, 1.5, Fitted)),
    pair(Liquid, [Bi, Sn], 1, Energy(-229.23, -0.135, Fitted)),
    pair(Liquid, [Ag, Sn], 0, Energy(-3695.04, -4.9778, Fitted)),
    pair(Liquid, [Ag, Sn], 1, Energy(-16797.94, 3.32, Fitted)),
    pair(Liquid, [Ag, Sn], 2, Energy(-6687.0, 0.0, Start)),
    pair(Liquid, [Cu, Sn], 0, Energy(-8979.23, -5.8381, Fitted)),
    pair(Liquid, [Cu, Sn], 1, Energy(-20100.4, 3.6366, Start)),
    pair(Liquid, [Cu, Sn], 2, Energy(-10528.4, 0.0, Start)),
    pair(Liquid, [Bi, Pb], 0, Energy(-4998.35, -2.3166, Fitted)),
    pair(Liquid, [Bi, Pb], 1, Energy(392.86, 0.0, Fitted)),
    pair(Liquid, [Bi, In], 0, Energy(-8725.33, 1.7827, Fitted)),
    pair(Liquid, [Bi, In], 1, Energy(1658.17, 0.0, Fitted)),
    pair(Liquid, [In, Sn], 0, Energy(236.99, -1.6934, Fitted)),
    pair(Liquid, [In, Sn], 1, Energy(795.87, -0.9, Fitted)),
    pair(Liquid, [In, Pb], 0, Energy(3277.3, -1.285, Fitted)),
    pair(Liquid, [In, Pb], 1, Energy(-1060.6, 1.385, Fitted)),
    pair(Liquid, [Ag, In], 0, Energy(-3892.0, -6.03, Fitted)),
    pair(Liquid, [Ag, In], 1, Energy(-13838.27, 0.0, Fitted)),
    pair(Liquid, [Ag, In], 2, Energy(-4800.0, 0.0, Start)),
    pair(Liquid, [Ag, Pb], 0, Energy(14454.47, -9.3082, Fitted)),
    pair(Liquid, [Ag, Pb], 1, Energy(-2725.63, 0.0, Fitted)),
    pair(Liquid, [Ag, Pb], 2, Energy(-2500.0, 0.0, Start)),
    pair(Liquid, [Ag, Bi], 0, Energy(3789.34, 1.56, Fitted)),
    pair(Liquid, [Ag, Bi], 1, Energy(-5361.37, -1.07, Fitted)),
    pair(Liquid, [Ag, Bi], 2, Energy(-3055.0, 1.77, Start)),
    pair(Liquid, [Bi, Cu], 0, Energy(20747.5, -5.85, Start)),
    pair(Liquid, [Bi, Cu], 1, Energy(-4925.0, 2.55, Start)),
    pair(Liquid, [Bi, Cu], 2, Energy(4387.5, -2.3, Start)),
    pair(Liquid, [Cu, Pb], 0, Energy(27190.0, -4.213, Start)),
    pair(Liquid, [Cu, Pb], 1, Energy(2229.0, -0.536, Start)),
    pair(Liquid, [Cu, In], 0, Energy(-10000.0, 0.0, Start)),
    pair(Liquid, [Cu, In], 1, Energy(-15000.0, 0.0, Start)),
    pair(Liquid, [Ag, Cu], 0, Energy(14462.4, -1.5165, Start)),
    pair(Liquid, [Ag, Cu], 1, Energy(-934.4, 0.3195, Start)),
    pair(Liquid, [Ag, Sb], 0, Energy(2145.38, -8.2844, Fitted)),
    pair(Liquid, [Ag, Sb], 1, Energy(-21732.2, 8.4976, Start)),
    pair(Liquid, [Ag, Sb], 2, Energy(-6345.2, 2.3152, Start)),
    pair(Liquid, [Cu, Sb], 0, Energy(-15000.0, 0.0, Start)),
    pair(Liquid, [Cu, Sb], 1, Energy(-20000.0, 0.0, Start)),
    pair(Liquid, [Sb, Sn], 0, Energy(-5331.09, -1.7061, Fitted)),
    pair(Liquid, [Sb, Sn], 1, Energy(396.02, 0.0, Fitted)),
    pair(Liquid, [Pb, Sb], 0, Energy(-963.65, -0.6, Fitted)),
    pair(Liquid, [Pb, Sb], 1, Energy(108.32, 0.0, Fitted)),
    pair(Liquid, [Bi, Sb], 0, Energy(2048.39, 0.0, Fitted)),
    pair(Liquid, [In, Sb], 0, Energy(-5815.49, 0.0, Fitted)),
    pair(Liquid, [Sn, Zn], 0, Energy(12736.36, -9.162, Fitted)),
    pair(Liquid, [Sn, Zn], 1, Energy(-4809.1, 3.45, Fitted)),
    pair(Liquid, [Bi, Zn], 0, Energy(18265.0, -8.76, Start)),
    pair(Liquid, [Bi, Zn], 1, Energy(-6500.0, 0.0, Start)),
    pair(Liquid, [Pb, Zn], 0, Energy(28000.0, -12.0, Start)),
    pair(Liquid, [Pb, Zn], 1, Energy(-4000.0, 0.0, Start)),
    pair(Liquid, [In, Zn], 0, Energy(12401.0, -3.2, Start)),
    pair(Liquid, [In, Zn], 1, Energy(-3600.0, 0.0, Start)),
    pair(Liquid, [Ag, Zn], 0, Energy(-24000.0, 2.0, Start)),
    pair(Liquid, [Cu, Zn], 0, Energy(-40696.0, 12.65, Start)),
    pair(Liquid, [Cu, Zn], 1, Energy(4402.7, -6.55, Start)),
    pair(Liquid, [Sb, Zn], 0, Energy(-12000.0, 4.0, Start)),
];

#[rustfmt::skip]
pub(super) const TRIPLES: &[Triple] = &[
    triple([Bi, Pb, Sn], -2396.92, Fitted),
    triple([Bi, In, Sn], 6109.66, Fitted),
    triple([Bi, In, Pb], 5253.05, Fitted),
    triple([In, Pb, Sn], 584.31, Fitted),
    triple([Ag, Pb, Sn], -3573.71, Fitted),
    triple([Ag, Cu, Sn], -27432.16, Fitted),
    triple([Ag, In, Sn], 5224.62, Fitted),
    triple([Ag, Bi, Sn], -4813.73, Fitted),
    triple([Ag, In, Pb], -5496.76, Fitted),
];
