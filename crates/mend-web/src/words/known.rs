//! What is known of stations and boards, in words.

use mend_core::heat::iron_heater::IronHeater;
use mend_core::heat::known::Teachable;
use mend_core::heat::nozzle_air::NozzleAir;

use super::Words;

/// A thing that can be learnt, in the middle of a sentence.
pub fn teachable(what: Teachable) -> &'static str {
    match what {
        Teachable::Jet => "heat of the jet",
        Teachable::Flow => "real flow against the display",
        Teachable::Outlet => "air against the set temperature",
        Teachable::Distance => "distance of the nozzle",
        Teachable::Conduction => "heat carried away by the board",
        Teachable::Capacity => "heat that the board takes up",
        Teachable::Losses => "heat lost to the room",
    }
}

/// When a part comes away: `38–92 s`.
pub fn release_band([low, _, high]: [Option<f64>; 3]) -> String {
    match (low, high) {
        (Some(low), Some(high)) => super::seconds_band(low, high),
        (Some(low), None) => format!("from {low:.0} s, or never"),
        _ => "never".to_owned(),
    }
}

/// What drives a tip.
pub fn iron_heater(heater: &IronHeater) -> String {
    format!("{} K/W from heater to tip, {:.0} W at most", heater.to_tip, heater.most)
}

/// What leaves a nozzle of what is set, and what is lost on the way.
pub fn nozzle_air(air: &NozzleAir) -> String {
    format!("{:.0} % of what is set, {:.3} W/K lost by the nozzle", 100.0 * air.share, air.loss)
}

impl Words {
    /// What is believed of a thing, against the book: its middle, and what eight in ten lie between.
    pub fn believed(&self, what: Teachable, band: [f64; 3]) -> String {
        match what {
            Teachable::Outlet => self.kelvins(band),
            _ => percent(band),
        }
    }

    fn kelvins(&self, band: [f64; 3]) -> String {
        let of = |kelvin: f64| format!("{}{}", sign(kelvin.round()), self.apart(kelvin.abs()));
        let [low, mid, high] = band.map(of);
        format!("{mid} ({low} to {high})")
    }
}

/// A factor, and where eight in ten lie.
fn percent(band: [f64; 3]) -> String {
    let of = |ln: f64| {
        let percent = (100.0 * (ln.exp() - 1.0)).round();
        format!("{}{} %", sign(percent), percent.abs())
    };
    let [low, mid, high] = band.map(of);
    format!("{mid} ({low} to {high})")
}

fn sign(of: f64) -> &'static str {
    match of {
        of if of > 0.0 => "+",
        of if of < 0.0 => "−",
        _ => "",
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_factor_is_said_in_per_cent_with_its_band() {
        assert_eq!(percent([-0.25, 0.0, 0.25]), "0 % (−22 % to +28 %)");
        assert_eq!(percent([-0.064, 0.0, 0.064].map(|half| 0.75_f64.ln() + half)), "−25 % (−30 % to −20 %)");
    }

    #[test]
    fn an_outlet_is_said_in_degrees() {
        assert_eq!(Words::default().believed(Teachable::Outlet, [-4.0, 0.2, 5.0]), "0 K (−4 K to +5 K)");
    }
}
