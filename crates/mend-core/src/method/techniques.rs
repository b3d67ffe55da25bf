//! Where good practitioners disagree. Every technique is an option; the first of each question is ours, with its reason. What
//! to lower the melt with, and which face to heat, are families of their own: the comparison answers those.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

/// A question with its techniques.
#[derive(Debug, PartialEq, Eq)]
pub struct Question {
    /// As it is written.
    pub key: &'static str,
    /// As it is asked.
    pub asks: &'static str,
    /// Techniques, each as written and in words; the first is ours.
    pub techniques: &'static [(&'static str, &'static str)],
    /// Why ours is ours.
    pub why: &'static str,
}

/// Thin the solder before heating?
pub const THIN: Question = Question {
    key: "thin",
    asks: "Solder before heat",
    techniques: &[("add", "add, so that it flows"), ("wick", "wick first, so that there is less to melt")],
    why: "Added solder carries heat down a hole and lets the braid draw all of it; a starved hole keeps its core.",
};

/// Clear the holes?
pub const HOLES: Question = Question {
    key: "holes",
    asks: "Holes",
    techniques: &[("clear", "clear fully and dry-fit"), ("drop-in", "leave filled and drop in")],
    why: "A dry fit shows a crooked port before it is soldered; dropping in wants practised hands.",
};

/// Braid the pads?
pub const BRAID: Question = Question {
    key: "braid",
    asks: "Braid on pads",
    techniques: &[("always", "always"), ("not-fine", "never on fine pitch"), ("holes-only", "only in holes")],
    why: "Old metal left on a pad decides what the new joint is; after low-melt there is no other way.",
};

/// Set the new part with what?
pub const SET: Question = Question {
    key: "set",
    asks: "Soldered with",
    techniques: &[("air-iron", "air, then iron over every pin"), ("air", "air alone"), ("iron", "iron, pin by pin")],
    why: "Air sinks all pins together and level; the iron then proves each one that can be seen.",
};

/// What is fixed first?
pub const FIRST: Question = Question {
    key: "first",
    asks: "First fixed",
    techniques: &[
        ("kind", "by the kind of part"),
        ("pins", "pins, then anchors"),
        ("corners", "opposite anchors, then pins"),
    ],
    why: "Surface pins are looked at before anchors lock them; plated pins are held by their corners.",
};

/// Where does it sit?
pub const SEAT: Question = Question {
    key: "seat",
    asks: "Part sits",
    techniques: &[("home", "pushed home"), ("back", "drawn back a hair to show the pads")],
    why: "Home is where the shell meets the case; drawn back is for seeing, not for plugging.",
};

/// How much flux?
pub const FLUX: Question = Question {
    key: "flux",
    asks: "Flux",
    techniques: &[("kind", "by the kind of part"), ("flood", "flood it"), ("sparing", "sparing")],
    why: "A latch or an open contact drinks flux and keeps it; a closed port does not.",
};

/// All of them, in the order of the work.
pub const ALL: &[&Question] = &[&FLUX, &THIN, &BRAID, &HOLES, &FIRST, &SEAT, &SET];

/// Answers that differ from ours, by question.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Techniques(BTreeMap<String, String>);

impl Techniques {
    /// Nothing but ours?
    pub fn is_recommended(&self) -> bool {
        self.0.is_empty()
    }

    /// Which technique is followed.
    ///
    /// ```
    /// use mend_core::method::techniques::{HOLES, Techniques};
    /// assert_eq!(Techniques::default().followed(&HOLES), "clear");
    /// assert_eq!(Techniques::default().with(&HOLES, "drop-in").followed(&HOLES), "drop-in");
    /// ```
    pub fn followed(&self, question: &Question) -> &'static str {
        let found = self.0.get(question.key);
        let known = question.techniques.iter().find(|(key, _)| found.is_some_and(|found| found == key));
        known.or(question.techniques.first()).map_or("", |(key, _)| key)
    }

    /// With another answer; one that is no technique of that question changes nothing.
    pub fn with(mut self, question: &Question, technique: &str) -> Self {
        let at = question.techniques.iter().position(|(key, _)| *key == technique);
        match at {
            Some(0) => {
                self.0.remove(question.key);
            }
            Some(_) => {
                self.0.insert(question.key.to_owned(), technique.to_owned());
            }
            None => {}
        }
        self
    }

    /// From answers by key.
    pub fn read<'a>(answers: impl Fn(&str) -> Option<&'a str>) -> Self {
        ALL.iter().fold(Self::default(), |techniques, question| match answers(question.key) {
            Some(technique) => techniques.with(question, technique),
            None => techniques,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ours_is_followed_until_somebody_differs_and_again_when_he_comes_back() {
        let techniques = Techniques::default();
        assert_eq!(techniques.followed(&HOLES), "clear");
        let differs = techniques.with(&HOLES, "drop-in").with(&BRAID, "sometimes");
        assert_eq!((differs.followed(&HOLES), differs.followed(&BRAID)), ("drop-in", "always"));
        assert!(!differs.is_recommended() && differs.with(&HOLES, "clear").is_recommended());
    }

    #[test]
    fn every_question_has_schools_that_differ_and_a_reason() {
        for question in ALL {
            let mut keys: Vec<&str> = question.techniques.iter().map(|(key, _)| *key).collect();
            keys.dedup();
            assert!(keys.len() >= 2 && question.why.ends_with('.'), "{}", question.key);
        }
    }
}
