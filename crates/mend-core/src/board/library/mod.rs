//! Connectors by kind: a few sizes give body, pins, anchors, pegs, which joints are hidden and what the functional test must
//! cover. A kind is a file; all of them are in [`KINDS`], in the order in which a person looks for one.
//!
//! Sizes are those that such connectors are commonly made in, recalled (D where a public interface standard fixes them, E
//! for lands and bodies, which every maker draws a little differently): each can be changed, and a caliper decides.
//! A connector is made with the middle of its body at the origin, its mouth towards the reader (-y), on the top face.

mod audio_jack;
mod battery_contacts;
mod board_to_board;
mod box_header;
mod build;
mod card;
mod coaxial;
mod flex;
mod flex_tail;
mod header;
mod kind;
mod micro_usb;
mod network_jack;
mod optical_audio;
mod power_jack;
mod rows_and_anchors;
mod spring;
mod usb_a;
mod usb_c;
mod video_port;

pub use kind::{Among, LibraryConnector, Param, Values};

/// Every kind.
pub const KINDS: &[LibraryConnector] = &[
    usb_c::TOP_MOUNT,
    usb_c::MID_MOUNT,
    micro_usb::KIND,
    usb_a::KIND,
    video_port::KIND,
    power_jack::KIND,
    audio_jack::KIND,
    network_jack::KIND,
    optical_audio::KIND,
    flex::KIND,
    flex_tail::KIND,
    board_to_board::KIND,
    header::KIND,
    box_header::KIND,
    coaxial::KIND,
    card::KIND,
    spring::KIND,
    battery_contacts::KIND,
    rows_and_anchors::KIND,
];

/// The kind of that key.
///
/// ```
/// use mend_core::board::library::{Values, kind};
/// let usual = kind("usb-c-top").expect("in the library").make(&Values::new()).expect("usual sizes");
/// assert!(usual.joints.len() > 20);
/// assert!(kind("teapot").is_none());
/// ```
pub fn kind(key: &str) -> Option<&'static LibraryConnector> {
    KINDS.iter().find(|kind| kind.key == key)
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeSet;

    use super::*;
    use crate::board::{JointShape, Rect};
    use crate::finding::problem::Problem;

    fn expect_sound(kind: &LibraryConnector, values: &Values) {
        let made = kind.make(values).unwrap_or_else(|f| panic!("{}: {f:?}", kind.key));
        let found = |what: &str| format!("{} of {values:?}: {what}", kind.key);
        assert!(!made.joints.is_empty() && !made.tests.is_empty(), "{}", found("nothing to solder or to test"));
        let names: BTreeSet<&str> = made.joints.iter().map(|j| j.name.as_str()).collect();
        assert_eq!(names.len(), made.joints.len(), "{}", found("a name twice"));
        for joint in &made.joints {
            assert!(joint.at.x.is_finite() && joint.at.y.is_finite(), "{}", found(&joint.name));
            if let JointShape::Hole { drill, pad } = joint.shape {
                assert!(drill > 0.2 && pad >= drill + 0.2, "{}", found(&joint.name));
            }
        }
        let lands: Vec<Rect> = made.joints.iter().map(crate::board::Joint::covers).collect();
        for (k, land) in lands.iter().enumerate() {
            for (other, name) in lands[..k].iter().zip(&made.joints) {
                assert!(land.shared(other) < 1e-9, "{}", found(&format!("{} on {}", made.joints[k].name, name.name)));
            }
        }
    }

    #[test]
    fn every_kind_makes_a_connector_at_its_usual_sizes_and_at_either_end_of_each() {
        for kind in KINDS {
            expect_sound(kind, &Values::new());
            for param in kind.params {
                for value in param.ends() {
                    expect_sound(kind, &Values::from([(param.key.to_owned(), value)]));
                }
            }
        }
    }

    #[test]
    fn the_kinds_of_the_trade_have_the_joints_that_one_counts_on_them() {
        let count = |key: &str, values: &[(&str, f64)]| {
            let values = values.iter().map(|(k, v)| ((*k).to_owned(), *v)).collect();
            let made = kind(key).expect(key).make(&values).expect("sizes in range");
            let anchors = made.joints.iter().filter(|j| !j.is_pin()).count();
            (made.joints.len() - anchors, anchors, made.joints.iter().filter(|j| j.hidden).count())
        };
        assert_eq!(count("video-port", &[]), (19, 4, 0));
        assert_eq!(count("usb-c-top", &[]), (24, 4, 12));
        assert_eq!(count("usb-c-mid", &[("contacts", 16.0)]), (16, 4, 0));
        assert_eq!(count("usb-a", &[("ports", 2.0), ("contacts", 9.0)]), (18, 4, 0));
        assert_eq!(count("power-jack", &[("anchors", 5.0)]), (5, 0, 0));
        assert_eq!(count("flex", &[("ways", 40.0), ("pitch", 0.5)]), (40, 2, 0));
        assert_eq!(count("flex", &[("latch", 3.0)]).2, 12, "under the latch of a back-flip nothing is seen");
        assert_eq!(count("flex-tail", &[("ways", 6.0)]), (6, 0, 0));
        assert_eq!(count("header", &[("rows", 2.0), ("ways", 20.0)]), (20, 0, 0));
    }

    #[test]
    fn a_size_out_of_range_is_refused_with_its_name_and_the_way_out() {
        let flex = kind("flex").expect("flex");
        for (key, value) in [("pitch", 0.1), ("ways", 61.0), ("ways", 8.5), ("latch", 9.0), ("colour", 1.0)] {
            let refused = flex.make(&Values::from([(key.to_owned(), value)])).expect_err(key);
            assert_eq!(refused[0].place, key);
            assert!(matches!(refused[0].problem, Problem::Value(_)), "{refused:?}");
        }
    }
}
