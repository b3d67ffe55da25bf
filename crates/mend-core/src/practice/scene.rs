//! What an attempt begins with: a board, what is to be done on it, and what is true of it and hidden from the hands.

use super::goal::PracticeGoal;
use crate::board::Board;
use crate::heat::bridge::Bridge;
use crate::heat::case::Case;
use crate::heat::hand_rig::HandRig;
use crate::heat::iron::{Iron, USUAL_DWELL};
use crate::heat::known::Knowledge;
use crate::heat::parameters::ParameterSample;
use crate::heat::recipe::{HeatingAids, HeatingStage, Recipe};
use crate::heat::shield::Shield;
use crate::heat::station::Station;
use crate::solder::JointComposition;
use crate::units::{Duration, Length, Temperature};
use crate::watch::Watch;

/// So many truths are drawn; an attempt has one of them by its seed.
const TRUTHS: usize = 64;
/// The tip at the practice bench.
const TIP: Length = Length::mm(2.0);

/// What an attempt begins with.
#[derive(Debug, Clone)]
pub struct PracticeScene {
    /// The board.
    pub board: Board,
    /// What it is heated with.
    pub station: Station,
    /// What the joints hold.
    pub composition: JointComposition,
    /// What is to be done.
    pub goal: PracticeGoal,
    /// Must the part come through whole too?
    pub keeps_part: bool,
    /// What is laid on before.
    pub shields: Vec<Shield>,
    /// A wire along the joints.
    pub bridge: Option<Bridge>,
    /// The room.
    pub ambient: Temperature,
    /// Which of the truths is true.
    pub seed: u32,
}

impl PracticeScene {
    /// The board at rest and what is true of it. None where the alloy can't be computed.
    ///
    /// ```
    /// use mend_core::practice::course::{PracticeTask, course};
    /// let scene = course()[0].scene(7).expect("of the library");
    /// let (rig, _) = scene.rig().expect("its alloy is in the table");
    /// assert!((rig.laminate() - 23.0).abs() < 1e-3);
    /// ```
    pub fn rig(&self) -> Option<(HandRig, ParameterSample)> {
        let melting = self.composition.targets(&self.board).ok()?;
        let (recipe, known, watch) = (self.recipe(), Knowledge::NOTHING, Watch::new());
        let case = Case {
            board: &self.board,
            melting: &melting,
            station: &self.station,
            recipe: &recipe,
            purpose: self.goal.purpose(),
            ambient: self.ambient,
            known: &known,
            thermocouples: &[],
            watch: &watch,
        };
        let truth = *ParameterSample::samples(TRUTHS, &case).get(self.seed as usize % TRUTHS)?;
        Some((HandRig::new(&case, &truth), truth))
    }

    /// What is laid on, and a tip for each joint: a stage each, none of which is ever run.
    fn recipe(&self) -> Recipe {
        let iron = |name: &str| Iron { set: self.ambient, tip: TIP, row: name.to_owned(), dwell: USUAL_DWELL };
        let stage = |name: &str| HeatingStage {
            air: None,
            during: HeatingAids { iron: Some(iron(name)), ..HeatingAids::default() },
            lasts: Duration::seconds(1.0),
            change: Duration::seconds(0.0),
        };
        Recipe {
            preheat: self.board.connector.joints.iter().map(|joint| stage(&joint.name)).collect(),
            shields: self.shields.clone(),
            bridge: self.bridge,
            ..Recipe::from(HeatingAids::default())
        }
    }
}
