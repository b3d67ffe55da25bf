//! Flooded blob: all anchors in one pool, and the part drops out by its own weight.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Obstacle};
use super::start::{Start, fed, iron, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::caution::Caution;
use crate::heat::bridge::Bridge;

/// Legs that a pool still joins (E).
const MOST_LEGS: usize = 8;
/// Section of the pool, mm² (E, 4-8: as high as it is wide).
const POOL: Bridge = Bridge { wire_mm: 0.0, bead_mm2: 6.0 };

/// See the head of this file.
#[derive(Debug)]
pub struct Blob;

impl Method for Blob {
    fn family(&self) -> MethodFamily {
        MethodFamily::Blob
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes, Caution::HotBench]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (joints, holes) = (subject.joints().len(), subject.holes());
        let spans = POOL.spans(subject.board).len();
        Fit::default()
            .not(subject.equipment.tips.is_empty(), Obstacle::NoIronTip)
            .not(holes < joints, Obstacle::SurfaceJointsInPool { joints: joints - holes })
            .not(joints > MOST_LEGS, Obstacle::TooManyForPool { joints })
            .not(spans + 1 < joints, Obstacle::PoolTears)
            .not(subject.board.connector.pegs > 0, Obstacle::PegsHold)
            .good(holes == joints && joints <= MOST_LEGS, Advantage::StoutAnchors { joints })
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
        assert_eq!(against(&Blob, &header), []);
        let start = &Blob.starts(&header.subject())[0];
        assert_eq!(start.recipe.bridge, Some(POOL));
        header.board.connector.pegs = 2;
        assert_eq!(against(&Blob, &header), [Obstacle::PegsHold]);
    }

    #[test]
    fn surface_joints_and_legs_far_apart_do_not() {
        assert!(against(&Blob, &shop("flex")).iter().any(|r| matches!(r, Obstacle::SurfaceJointsInPool { .. })));
        let mut apart = shop("header");
        apart.board.connector.joints.truncate(4);
        for (k, joint) in apart.board.connector.joints.iter_mut().enumerate() {
            joint.at.x += 9.0 * k as f64;
        }
        assert!(against(&Blob, &apart).contains(&Obstacle::PoolTears));
    }
}
