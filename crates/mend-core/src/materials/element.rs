//! The metals that solders are made of.

use serde::{Deserialize, Serialize};

/// A metal. The order is that of every composition in the core.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
pub enum Element {
    /// Tin.
    Sn,
    /// Lead.
    Pb,
    /// Bismuth.
    Bi,
    /// Indium.
    In,
    /// Silver.
    Ag,
    /// Copper.
    Cu,
    /// Antimony.
    Sb,
    /// Zinc.
    Zn,
}

impl Element {
    /// All of them, in order.
    pub const ALL: [Self; 8] = [Self::Sn, Self::Pb, Self::Bi, Self::In, Self::Ag, Self::Cu, Self::Sb, Self::Zn];

    /// Its symbol.
    pub const fn symbol(self) -> &'static str {
        ["Sn", "Pb", "Bi", "In", "Ag", "Cu", "Sb", "Zn"][self as usize]
    }

    /// Its name in running text.
    pub const fn name(self) -> &'static str {
        ["tin", "lead", "bismuth", "indium", "silver", "copper", "antimony", "zinc"][self as usize]
    }

    /// The element of that symbol; case does not matter.
    pub fn named(symbol: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|element| element.symbol().eq_ignore_ascii_case(symbol.trim()))
    }

    /// Molar mass, g/mol (standard atomic weights, sure).
    pub const fn molar_mass(self) -> f64 {
        [118.710, 207.2, 208.980, 114.818, 107.868, 63.546, 121.760, 65.38][self as usize]
    }

    /// Density at 20 °C, g/cm³ (textbook, sure to 0.5 %).
    pub const fn density(self) -> f64 {
        [7.29, 11.34, 9.79, 7.31, 10.49, 8.96, 6.69, 7.14][self as usize]
    }
}
