//! Flooded blob: all anchors in one pool, and the part drops out by its own weight.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::start::{Start, fed, iron, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily, MethodText};
use crate::caution::Caution;
use crate::heat::bridge::Bridge;

/// Legs that a pool still joins (E).
const MOST_LEGS: usize = 8;
/// Section of the pool, mm² (E, 4-8: as high as it is wide).
const POOL: Bridge = Bridge { wire_mm: 0.0, bead_mm2: 6.0 };

/// See the head of this file.
#[derive(Debug)]
pub struct Blob;

static WORDS: MethodText = MethodText {
    name: "Flooded blob",
    how: "Solder joins all anchors in one pool on the far side; the part hangs below and drops when the pool is liquid through.",
    danger: "too much solder on the far side",
    early: &[
        "Solder runs along the part's anchors to its body: less of it, tip nearer the board.",
        "The pool splits in two: more solder between, or a wire in it.",
    ],
    clean_up: "Much metal to take up: pump or braid before the holes show.",
    heat: &["Board on its edge supports, part hanging free; tip flat in the pool, moved from leg to leg."],
    cue: "The pool is bright all through and the part drops.",
    not_coming: &["A stouter tip.", "A wire in the pool.", "Air from below at the same time."],
    cautions: &[Caution::Burns, Caution::Fumes, Caution::HotBench],
    level: SkillLevel::Trained,
};

impl Method for Blob {
    fn family(&self) -> MethodFamily {
        MethodFamily::Blob
    }

    fn words(&self) -> &'static MethodText {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (joints, holes) = (subject.joints().len(), subject.holes());
        let spans = POOL.spans(subject.board).len();
        Fit::default()
            .not(subject.equipment.tips.is_empty(), "no iron tip in the shop")
            .not(holes < joints, format!("{} surface joints do not drop out of a pool", joints - holes))
            .not(joints > MOST_LEGS, format!("{joints} anchors: no pool joins so many"))
            .not(spans + 1 < joints, "the anchors stand too far apart: the pool tears between them")
            .not(subject.board.connector.pegs > 0, "plastic feet hold it: it does not drop")
            .good(holes == joints && joints <= MOST_LEGS, format!("{joints} stout anchors close together"))
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let leaded = subject.equipment.leaded().next().and_then(|alloy| fed(subject, alloy));
        vec![iron(subject, leaded.unwrap_or_else(|| unfed(subject.composition)), Some(POOL))]
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn a_few_legs_close_together_drop_out_of_a_pool() {
        let mut header = shop("header");
        header.board.connector.joints.truncate(6);
        assert_eq!(against(&Blob, &header), "");
        let start = &Blob.starts(&header.subject())[0];
        assert_eq!(start.recipe.bridge, Some(POOL));
        header.board.connector.pegs = 2;
        assert_eq!(against(&Blob, &header), "plastic feet hold it: it does not drop");
    }

    #[test]
    fn surface_joints_and_legs_far_apart_do_not() {
        assert!(against(&Blob, &shop("flex")).contains("surface joints do not drop"));
        let mut apart = shop("header");
        apart.board.connector.joints.truncate(4);
        for (k, joint) in apart.board.connector.joints.iter_mut().enumerate() {
            joint.at.x += 9.0 * k as f64;
        }
        assert!(against(&Blob, &apart).contains("the pool tears between them"));
    }
}
