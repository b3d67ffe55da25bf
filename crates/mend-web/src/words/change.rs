//! Single changes of a plan, and what they bring, in words.

use mend_core::planning::change::Change;
use mend_core::planning::next_move::{Hottest, MoveEffect};
use mend_core::planning::search::buys::Buy;

use super::Words;
use super::limits::thing;
use super::quantity::shield;

/// A margin below this means that something never melts, K.
const NEVER_K: f64 = 1000.0;

impl Words {
    /// A change, as a phrase.
    pub fn change(&self, change: &Change) -> String {
        match change {
            Change::AirSet { set_c } => format!("air at {}", self.temperature(*set_c)),
            Change::Flow { lpm } => format!("{lpm} L/min"),
            Change::Nozzle { mm } => format!("the {mm} mm nozzle"),
            Change::FromAbove { face } => format!("from above, onto the {} face", face.name()),
            Change::FromBelow { distance_mm, nozzle_mm, lpm } => {
                format!("from below at {distance_mm:.0} mm with the {nozzle_mm} mm nozzle, {lpm:.0} L/min")
            }
            Change::IronSet { set_c } => format!("the iron at {}", self.temperature(*set_c)),
            Change::Tip { mm } => format!("a {mm:.0} mm tip"),
            Change::Soak { s, set_c } => format!("soak from below for {s:.0} s at {} first", self.temperature(*set_c)),
            Change::Preheater { set_c, ahead_s } => {
                format!("a preheater at {} below, {ahead_s:.0} s ahead", self.temperature(*set_c))
            }
            Change::Shield { shield: kind, over } => format!("{} over {over}", shield(*kind)),
            Change::TapeLayer { x_mm, y_mm } => format!("a layer of tape more at ({x_mm}, {y_mm}) mm"),
            Change::Feed { percent, alloy, instead_of: Some(before) } => {
                format!("{percent:.0} % {alloy} in the joints instead of {before:.0} %")
            }
            Change::Feed { percent, alloy, instead_of: None } => format!("{percent:.0} % {alloy} in the joints"),
            Change::FeedNothing => "nothing fed".to_owned(),
            Change::Written(text) => text.clone(),
        }
    }

    /// What a next move brings.
    pub fn move_effect(&self, effect: &MoveEffect) -> String {
        match effect {
            MoveEffect::Found { release_s, hottest, in_time_of_ten } => {
                let brings = self.release_and_hottest(*release_s, hottest.as_ref());
                format!("{brings}; in time in {:.0} of 10", in_time_of_ten.floor())
            }
            MoveEffect::Written(text) => text.clone(),
        }
    }

    fn release_and_hottest(&self, release_s: Option<f64>, hottest: Option<&Hottest>) -> String {
        let Some(release) = release_s else { return "it comes nearer, and still does not melt".to_owned() };
        let after = format!("release after about {release:.0} s");
        match hottest {
            // Rounded up to full fives, so that what is said is not passed.
            Some(Hottest { of, celsius, stays_below: true }) => {
                format!("{} stays under {}, {after}", thing(of), self.temperature((celsius / 5.0).ceil() * 5.0))
            }
            Some(Hottest { of, celsius, stays_below: false }) => {
                format!("{} gets to {}, {after}", thing(of), self.temperature(*celsius))
            }
            None => after,
        }
    }

    /// What one thing more brings to a search.
    pub fn buy_effect(&self, buy: &Buy) -> String {
        let [before, after] = buy.headroom_k;
        let gains = after.min(NEVER_K) - before.min(NEVER_K);
        let time = match buy.release_s {
            [Some(was), Some(is)] if (was - is).abs() >= 1.0 => {
                format!(", {:.0} s {}", (was - is).abs(), if is < was { "sooner" } else { "later" })
            }
            _ => String::new(),
        };
        match buy.release_s {
            [None, Some(t)] => format!("it melts, after about {t:.0} s"),
            [_, None] => "it still does not melt".to_owned(),
            _ if gains.abs() < 1.0 => format!("no more headroom{time}"),
            _ => format!("{} {} headroom{time}", self.apart(gains.abs()), if gains > 0.0 { "more" } else { "less" }),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::planning::damaged::Damaged;
    use mend_core::units::Scale;

    #[test]
    fn a_move_says_what_it_brings_on_the_visitors_scale() {
        let hottest =
            Hottest { of: Damaged::Component { name: "latch".to_owned() }, celsius: 231.0, stays_below: true };
        let effect = MoveEffect::Found { release_s: Some(44.6), hottest: Some(hottest), in_time_of_ten: 9.5 };
        let said = |scale| Words { scale }.move_effect(&effect);
        assert_eq!(said(Scale::Celsius), "latch stays under 235 °C, release after about 45 s; in time in 9 of 10");
        assert!(said(Scale::Fahrenheit).contains("under 455 °F"));
        let fahrenheit = Words { scale: Scale::Fahrenheit };
        assert_eq!(fahrenheit.change(&Change::AirSet { set_c: 400.0 }), "air at 752 °F");
    }

    #[test]
    fn what_one_thing_more_buys_is_headroom_or_time_or_the_melt_itself() {
        let buy = |headroom_k, release_s| Buy { what: Change::FeedNothing, headroom_k, release_s };
        let said = |buy: Buy| Words::default().buy_effect(&buy);
        assert_eq!(said(buy([5.0, 17.0], [Some(60.0), Some(52.0)])), "12 K more headroom, 8 s sooner");
        assert_eq!(said(buy([5.0, 5.4], [Some(60.0), Some(60.2)])), "no more headroom");
        assert_eq!(said(buy([-1040.0, 5.0], [None, Some(80.0)])), "it melts, after about 80 s");
        assert_eq!(said(buy([-1040.0, -1020.0], [None, None])), "it still does not melt");
    }
}
