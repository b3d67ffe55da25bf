//! What an attempt at the practice bench began with, `urgent-mend/practice/1`, and what hands did in it: docs/formats/practice.md.

use mend_core::board::{Board, KeepIntact};
use mend_core::heat::station::Station;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::practice::course::task;
use mend_core::practice::goal::PracticeGoal;
use mend_core::practice::hands::{HandEvent, HandMove};
use mend_core::practice::harm::Harm;
use mend_core::practice::scene::PracticeScene;
use mend_core::units::Temperature;
use serde::{Deserialize, Serialize};

use crate::bundle::USUAL_AMBIENT_C;
use crate::station::StationFile;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/practice/1";

/// What it began with.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PracticeFile {
    format: String,
    /// Which of the truths is true.
    pub seed: u32,
    /// A task of the course; none: a board of the shop.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub task: Option<String>,
    /// A board of the shop.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shop: Option<ShopSceneFile>,
}

/// A board of the shop with what it is heated with.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ShopSceneFile {
    /// The version of the board.
    pub board: i64,
    /// The station as it was then.
    pub station: StationFile,
    /// What the joints hold, and what is laid on.
    pub inputs: PlanInputs,
    /// What is to be done.
    #[serde(default, skip_serializing_if = "is_removal")]
    pub goal: PracticeGoal,
}

fn is_removal(goal: &PracticeGoal) -> bool {
    *goal == PracticeGoal::Remove
}

impl PracticeFile {
    /// A task of the course.
    pub fn of_task(task: &str, seed: u32) -> Self {
        Self { format: FORMAT.to_owned(), seed, task: Some(task.to_owned()), shop: None }
    }

    /// A board of the shop.
    pub fn of_shop(shop: ShopSceneFile, seed: u32) -> Self {
        Self { format: FORMAT.to_owned(), seed, task: None, shop: Some(shop) }
    }

    /// What is to be done; a removal where its task is no longer there.
    pub fn goal(&self) -> PracticeGoal {
        let of_task = || self.task.as_deref().and_then(task).map(|task| task.goal);
        self.shop.as_ref().map(|shop| shop.goal).or_else(of_task).unwrap_or_default()
    }
}

impl ShopSceneFile {
    /// What is practised on, and with what. None: the station can't be read, or the metal is not known.
    pub fn scene(&self, board: Board, seed: u32) -> Option<PracticeScene> {
        let station: Station = self.station.clone().into_station().ok()?;
        let composition = self.inputs.heated_composition(&board).ok()?;
        Some(PracticeScene {
            composition,
            board,
            station,
            goal: self.goal,
            keeps_part: self.inputs.keep_intact != KeepIntact::Board,
            shields: self.inputs.settings.shields.clone(),
            // A wire along the joints comes away with the part.
            bridge: self.inputs.settings.bridge.filter(|_| self.goal == PracticeGoal::Remove),
            ambient: Temperature::celsius(USUAL_AMBIENT_C),
            seed,
        })
    }
}

/// Reads what an attempt began with; none: it can't be read.
pub fn parse(text: &str) -> Option<PracticeFile> {
    serde_json::from_str(text).ok().filter(|file: &PracticeFile| file.format == FORMAT)
}

/// Writes it.
pub fn write(file: &PracticeFile) -> Result<String, serde_json::Error> {
    serde_json::to_string(file)
}

/// What a browser sends: its own number, from 1, and what hands do.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct SentMove {
    /// From 1.
    pub seq: u32,
    /// What.
    pub does: HandMove,
}

/// Reads what a browser sends; none: it is nothing that hands do.
///
/// ```
/// use mend_formats::practice::sent;
/// assert!(sent(r#"{"seq":3,"does":{"kind":"distance","mm":12}}"#).is_some_and(|sent| sent.seq == 3));
/// assert!(sent(r#"{"seq":3,"does":{"kind":"fly"}}"#).is_none());
/// ```
pub fn sent(text: &str) -> Option<SentMove> {
    serde_json::from_str(text).ok()
}

/// A move as it is kept.
pub fn write_move(does: &HandMove) -> Result<String, serde_json::Error> {
    serde_json::to_string(does)
}

/// A move that was kept, with its step.
pub fn event(tick: u32, does: &str) -> Option<HandEvent> {
    Some(HandEvent { tick, does: serde_json::from_str(does).ok()? })
}

/// What was harmed, as it is kept.
pub fn write_harms(harms: &[Harm]) -> Result<String, serde_json::Error> {
    serde_json::to_string(harms)
}

/// Read back; nothing where it can't be read.
pub fn read_harms(text: &str) -> Vec<Harm> {
    serde_json::from_str(text).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_hands_did_comes_back_as_it_was() {
        let does = HandMove::Iron { x_mm: 12.5, y_mm: 3.0 };
        let kept = write_move(&does).expect("can be written");
        assert_eq!(event(41, &kept), Some(HandEvent { tick: 41, does }));
        assert_eq!(event(41, "{}"), None);
    }

    #[test]
    fn a_file_of_another_format_is_none() {
        let file = write(&PracticeFile::of_task("thin-shell", 7)).expect("can be written");
        assert!(parse(&file).is_some_and(|file| file.task.as_deref() == Some("thin-shell") && file.seed == 7));
        assert!(parse(&file.replace("practice/1", "practice/9")).is_none());
    }
}
