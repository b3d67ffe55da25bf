//! What a thing stands: a temperature that it must not reach, or one that it stands for a while. Damage is temperature times
//! time: a short peak does less than a long one.
//!
//! `D = sum dt / tau(T)` with `tau = stands 10^((reference - T) / z)`, damaged at D = 1. A history that is x kelvin hotter
//! throughout has a dose 10^(x / z) times as large, so what is left is `-z log10 D`, exactly.

use crate::board::Component;
use crate::heat::parameters::{FAMILIES, LONGER_SPREAD, MORE_SPREAD_K, ParameterSample};
use crate::heat::spread::EIGHT_IN_TEN;
use crate::materials::BodyMaterial;
use crate::units::Temperature;

/// What a thing stands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Tolerance {
    /// Not even for a moment.
    Never {
        /// °C.
        celsius: f64,
    },
    /// For a while.
    Dose(Dose),
}

/// A temperature and how long it is stood; hotter by `z_k`, a tenth as long.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Dose {
    /// °C.
    pub reference_c: f64,
    /// s.
    pub stands_s: f64,
    /// K.
    pub z_k: f64,
    /// Whose spread it shares.
    pub family: Family,
}

/// Materials that are known equally badly, and about which one is wrong together.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Family {
    /// Bodies of plastic.
    Thermoplastic,
    /// Moulded packages, sensors, crystals, ceramics.
    Package,
    /// The board.
    Laminate,
    /// Wet electrolytics.
    Electrolytic,
    /// Foams and labels.
    Foam,
}

// Each family has its place in a sample.
const _: () = assert!(Family::Foam as usize + 1 == FAMILIES);

/// Laminate of a plain grade (D: time to delamination of 8 min at 260 °C and 1 min at 288 °C).
pub const LAMINATE: Tolerance =
    Tolerance::Dose(Dose { reference_c: 260.0, stands_s: 480.0, z_k: 31.0, family: Family::Laminate });

const fn dose(reference: Temperature, stands_s: f64, z_k: f64, family: Family) -> Tolerance {
    Tolerance::Dose(Dose { reference_c: reference.in_celsius(), stands_s, z_k, family })
}

impl Tolerance {
    /// Of a body that stands `limit` for seconds.
    pub fn from_material(material: BodyMaterial, limit: Temperature) -> Self {
        match material {
            // Out before heat, or far: no time is granted.
            BodyMaterial::LithiumCell | BodyMaterial::Display => Self::Never { celsius: limit.in_celsius() },
            // D: 260 °C for 30 s is what packages are classified for; E, the slope.
            BodyMaterial::EpoxyPackage
            | BodyMaterial::MemsMicrophone
            | BodyMaterial::Crystal
            | BodyMaterial::Ceramic => dose(limit, 30.0, 20.0, Family::Package),
            // E: through 230 °C for 10 s and its rating of 105 °C.
            BodyMaterial::ElectrolyticCan => {
                let rated = Temperature::celsius(limit.in_celsius() - 125.0);
                dose(rated, 600.0, 70.0, Family::Electrolytic)
            }
            BodyMaterial::AcrylicFoam => {
                dose(Temperature::celsius(limit.in_celsius() + 20.0), 60.0, 20.0, Family::Foam)
            }
            BodyMaterial::Laminate => LAMINATE,
            // E: softening is steep.
            _ => dose(limit, 10.0, 12.0, Family::Thermoplastic),
        }
    }

    /// Of a component's body.
    pub fn from_component(component: &Component) -> Self {
        Self::from_material(component.material, component.limit())
    }

    /// As one run takes it.
    pub fn under(self, sample: &ParameterSample) -> Self {
        let Self::Dose(dose) = self else { return self };
        let standing = sample.stands[dose.family as usize];
        let (reference_c, stands_s) = (dose.reference_c + standing.more_k, dose.stands_s * standing.longer.exp());
        Self::Dose(Dose { reference_c, stands_s, ..dose })
    }

    /// What a history leaves of it, K hotter throughout; a temperature a second, °C.
    ///
    /// ```
    /// use mend_core::planning::tolerance::LAMINATE;
    /// let minutes = |c: f64, minutes: usize| LAMINATE.headroom(std::iter::repeat_n(c, 60 * minutes));
    /// assert!(minutes(260.0, 8).abs() < 1e-9 && minutes(288.0, 1).abs() < 0.2);
    /// assert!((minutes(250.0, 8) - 10.0).abs() < 1e-9, "ten kelvin cooler leaves ten");
    /// ```
    pub fn headroom(&self, history: impl Iterator<Item = f64>) -> f64 {
        match self {
            Self::Never { celsius } => celsius - history.fold(f64::NEG_INFINITY, f64::max),
            Self::Dose(dose) => dose.left(history.map(|t| dose.rate(t)).sum()),
        }
    }

    /// Share of what it stands that so long at `celsius` takes: from 1 on it is damaged.
    pub(crate) fn taken_in(&self, celsius: f64, seconds: f64) -> f64 {
        match self {
            Self::Never { celsius: never } => f64::from(u8::from(celsius >= *never)),
            Self::Dose(dose) => dose.rate(celsius) * seconds,
        }
    }

    /// From where on a second counts: a tenth of what the reference temperature does, °C. None where no time is granted.
    pub fn counts_from_c(&self) -> Option<f64> {
        match self {
            Self::Never { .. } => None,
            Self::Dose(dose) => Some(dose.reference_c - dose.z_k),
        }
    }

    /// How far to either side it may lie, K: eight in ten materials.
    pub fn spread_k(&self) -> f64 {
        match self {
            Self::Never { .. } => 0.0,
            Self::Dose(dose) => EIGHT_IN_TEN * MORE_SPREAD_K.hypot(LONGER_SPREAD * dose.z_k / std::f64::consts::LN_10),
        }
    }

    /// When a history is too much, s from its beginning: within a second by the share of it.
    pub fn damaged_at(&self, history: impl Iterator<Item = f64>) -> Option<f64> {
        let mut taken = 0.0;
        for (second, t) in history.enumerate() {
            let now = match self {
                Self::Never { celsius } => f64::from(u8::from(t >= *celsius)),
                Self::Dose(dose) => dose.rate(t),
            };
            if taken + now >= 1.0 {
                return Some(second as f64);
            }
            taken += now;
        }
        None
    }

    /// After each second of a history what it has left so far, K.
    pub fn headrooms(&self, history: impl Iterator<Item = f64>) -> Vec<f64> {
        match self {
            Self::Never { celsius } => {
                let hottest = history.scan(f64::NEG_INFINITY, |hottest, t| {
                    *hottest = hottest.max(t);
                    Some(*hottest)
                });
                hottest.map(|t| celsius - t).collect()
            }
            Self::Dose(dose) => {
                let taken = history.scan(0.0, |taken, t| {
                    *taken += dose.rate(t);
                    Some(*taken)
                });
                taken.map(|taken| dose.left(taken)).collect()
            }
        }
    }
}

impl Dose {
    /// Share of what it stands that a second at `celsius` takes. Ten to a power as two to one: half the time of a power of any base,
    /// and a comparison takes millions of them.
    fn rate(&self, celsius: f64) -> f64 {
        ((celsius - self.reference_c) / self.z_k * std::f64::consts::LOG2_10).exp2() / self.stands_s
    }

    /// What is left after a dose, K.
    fn left(&self, taken: f64) -> f64 {
        -self.z_k * taken.log10()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn plastic() -> Tolerance {
        Tolerance::from_material(BodyMaterial::Pbt, Temperature::celsius(215.0))
    }

    #[test]
    fn a_short_overshoot_does_less_than_a_long_one_at_the_same_temperature() {
        let left = |seconds: usize| plastic().headroom(std::iter::repeat_n(220.0, seconds));
        assert!(left(2) > 0.0 && left(30) < 0.0);
        assert!((left(3) - left(30) - 12.0).abs() < 1e-9, "ten times as long is z kelvin less");
    }

    #[test]
    fn headroom_shifts_with_the_whole_history() {
        let history = || (0..200).map(|t| 150.0 + 0.3 * f64::from(t));
        for by in [-20.0, 5.0, 40.0] {
            let shifted = plastic().headroom(history().map(|t| t + by));
            assert!((plastic().headroom(history()) - by - shifted).abs() < 1e-9);
        }
    }

    #[test]
    fn damage_comes_where_nothing_is_left_and_a_cell_waits_for_no_time() {
        let history = || (0..300).map(|t| 180.0 + 0.2 * f64::from(t));
        let at = plastic().damaged_at(history()).expect("it gets hot enough") as usize;
        let left = plastic().headrooms(history());
        assert!(left[at] <= 0.0 && left[at - 1] > 0.0);
        let cell = Tolerance::from_material(BodyMaterial::LithiumCell, Temperature::celsius(60.0));
        assert_eq!(cell.damaged_at([59.9, 60.0].into_iter()), Some(1.0));
        assert_eq!(cell.headroom([59.0, 45.0].into_iter()), 1.0);
    }

    #[test]
    fn an_electrolytic_stands_its_rating_for_minutes_and_soldering_heat_for_seconds() {
        let can = Tolerance::from_material(BodyMaterial::ElectrolyticCan, Temperature::celsius(230.0));
        assert!(can.damaged_at(std::iter::repeat_n(105.0, 500)).is_none());
        let at = can.damaged_at(std::iter::repeat_n(230.0, 60)).expect("not for a minute");
        assert!((5.0..20.0).contains(&at), "{at} s");
    }
}
