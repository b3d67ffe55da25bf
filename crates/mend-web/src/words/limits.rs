//! What can be damaged, and what limits a plan or a search, in words.

use mend_core::planning::damaged::Damaged;
use mend_core::planning::limited_by::{LastJoint, LastMelt, LimitedBy, NearestLimit, Short};
use mend_core::planning::margin::{Margin, MarginDetail, MarginKind};
use mend_core::planning::search::SearchLimit;

use super::Words;
use super::quantity::{capital, count};

/// What is damaged: `keyboard latch`, `C7, blown away`.
pub fn damaged(of: &Damaged) -> String {
    match of {
        Damaged::PartBody => "the part's body".to_owned(),
        Damaged::Component { name } => name.clone(),
        Damaged::BlownAway { name } => format!("{name}, blown away"),
        Damaged::DropsOff { name } => format!("{name}, dropping off"),
        Damaged::Laminate => "the laminate".to_owned(),
        Damaged::Written(text) => text.clone(),
    }
}

/// What happens to it: `keyboard latch passes its limit`, `C7 is blown away`.
fn happens(of: &Damaged) -> String {
    match of {
        Damaged::BlownAway { name } => format!("{name} is blown away"),
        Damaged::DropsOff { name } => format!("{name} drops off"),
        _ => format!("{} passes its limit", damaged(of)),
    }
}

/// What may happen to it: `keyboard latch may pass its limit`, `C7 may be blown away`.
pub(super) fn may_happen(of: &Damaged) -> String {
    match of {
        Damaged::BlownAway { name } => format!("{name} may be blown away"),
        Damaged::DropsOff { name } => format!("{name} may drop off"),
        _ => format!("{} may pass its limit", damaged(of)),
    }
}

/// The thing alone, whatever becomes of it: `C7`.
pub fn thing(of: &Damaged) -> String {
    of.component().map_or_else(|| damaged(of), str::to_owned)
}

/// What a row of the margin strip is about.
pub fn margin_name(margin: &Margin) -> String {
    match margin.kind {
        MarginKind::Joints | MarginKind::Component => margin.name.clone(),
        MarginKind::Body => "part's body".to_owned(),
        MarginKind::Laminate => "laminate".to_owned(),
    }
}

/// What it is made of, or how many there are.
pub fn margin_detail(detail: &MarginDetail) -> String {
    match detail {
        MarginDetail::Joints { joints, hidden } => {
            let hidden = if *hidden { ", hidden" } else { "" };
            format!("{}{hidden}", count(*joints, "joint", "joints"))
        }
        MarginDetail::Component { material, face } => format!("{}, {}", material.name(), face.name()),
        MarginDetail::Body { material } => material.name().to_owned(),
        MarginDetail::HottestPlace => "hottest place, either face".to_owned(),
        MarginDetail::Written(text) => text.clone(),
    }
}

impl Words {
    /// What limits a plan, in a sentence.
    pub fn limited_by(&self, by: &LimitedBy) -> String {
        match by {
            LimitedBy::Found { last, nearest } => {
                self.nearest(&last.as_ref().map_or(String::new(), |last| self.last_joint(last)), nearest)
            }
            LimitedBy::Written(text) => text.clone(),
        }
    }

    fn nearest(&self, last: &str, nearest: &NearestLimit) -> String {
        match nearest {
            NearestLimit::Earlier { of, s } => format!("{last}; {} {s:.0} s earlier.", happens(of)),
            NearestLimit::At { of, s } => format!("{last}; {} at about {s:.0} s.", happens(of)),
            NearestLimit::Inside { of, headroom_k } => {
                format!("{last}; {} comes nearest to its limit, with {} left.", thing(of), self.apart(*headroom_k))
            }
            NearestLimit::Perhaps { of } => format!("{last}; {} in one case of ten.", may_happen(of)),
            NearestLimit::Nothing => format!("{last}."),
        }
    }

    /// What stands in the way of better settings, in a sentence.
    pub fn search_limit(&self, limit: &SearchLimit) -> String {
        match limit {
            SearchLimit::Inside { of, headroom_k, release_s } => format!(
                "{} limits it: {} left at release, after about {release_s:.0} s.",
                capital(&damaged(of)),
                self.apart(*headroom_k)
            ),
            SearchLimit::Nothing { release_s } => {
                format!("Nothing near limits it; release after about {release_s:.0} s.")
            }
            SearchLimit::Past { of, by_k } => format!(
                "{} is past its limit by {} when the last joint melts.",
                capital(&damaged(of)),
                self.apart(*by_k)
            ),
            SearchLimit::Cold { lacks_k } => {
                format!("The coldest joint lacks {} at the longest heating.", self.apart(*lacks_k))
            }
        }
    }
}

impl Words {
    fn last_joint(&self, LastJoint { joint, melts }: &LastJoint) -> String {
        match melts {
            LastMelt::BeforeLastStage => format!("Joint {joint} melts last, before the last stage begins"),
            LastMelt::After { s } => format!("Joint {joint} melts last, after about {s:.0} s"),
            LastMelt::NotWithin { s, short: None } => format!("Joint {joint} does not melt within {s:.0} s"),
            LastMelt::NotWithin { s, short: Some(short) } => {
                format!("Joint {joint} stays {} short within {s:.0} s: {}", self.apart(short.by_k), self.closing(short))
            }
        }
    }

    /// What would close a gap to the melting point.
    fn closing(&self, short: &Short) -> String {
        match short.air_k {
            Some(more) => format!("more alloy, or about {} more air", self.apart(more)),
            None => "more alloy, or heat from the other side".to_owned(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::units::Scale;

    #[test]
    fn what_limits_a_plan_is_one_sentence_on_the_visitors_scale() {
        let last = Some(LastJoint { joint: "A5".to_owned(), melts: LastMelt::After { s: 41.2 } });
        let of = || Damaged::BlownAway { name: "C7, left".to_owned() };
        let inside = NearestLimit::Inside { of: of(), headroom_k: 20.0 };
        let by = LimitedBy::Found { last: last.clone(), nearest: inside };
        let said = |scale| Words { scale }.limited_by(&by);
        let celsius = "Joint A5 melts last, after about 41 s; C7, left comes nearest to its limit, with 20 K left.";
        assert_eq!(said(Scale::Celsius), celsius);
        assert!(said(Scale::Fahrenheit).ends_with("with 36 °F left."));
        let earlier = LimitedBy::Found { last, nearest: NearestLimit::Earlier { of: of(), s: 9.0 } };
        assert!(Words::default().limited_by(&earlier).ends_with("; C7, left is blown away 9 s earlier."));
        assert_eq!(thing(&of()), "C7, left");
    }

    #[test]
    fn a_search_says_what_stands_in_its_way() {
        let said = |limit| Words::default().search_limit(&limit);
        let past = SearchLimit::Past { of: Damaged::PartBody, by_k: 12.0 };
        assert_eq!(said(past), "The part's body is past its limit by 12 K when the last joint melts.");
        assert!(said(SearchLimit::Cold { lacks_k: 30.0 }).contains("lacks 30 K"));
    }
}
