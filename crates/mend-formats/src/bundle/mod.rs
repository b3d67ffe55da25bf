//! Everything one plan needs in one file, `urgent-mend/bundle/2`: docs/formats/bundle.md.

use mend_core::board::{Board, KeepIntact};
use mend_core::finding::Finding;
use mend_core::finding::problem::ValueProblem;
use mend_core::heat::known::Knowledge;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::station::Station;
use mend_core::method::equipment::Equipment;
use mend_core::method::subject::Subject;
use mend_core::planning::fit::first_settings;
use mend_core::planning::order::Order;
use mend_core::solder::{CompositionEntry, FeedEntry, JointComposition};
use mend_core::units::{Temperature, Unit};
use mend_core::watch::Watch;
use serde::{Deserialize, Serialize};

use crate::board::BoardFile;
use crate::equipment::EquipmentFile;
use crate::lesson;
use crate::reading::{self, Accepted};
use crate::station::StationFile;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/bundle/2";
const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/bundle/1"] };
const RULE: &str = "bundle_file";
/// Ambient temperature where none is given.
pub const USUAL_AMBIENT_C: f64 = 23.0;

#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct BundleFile {
    format: String,
    board: BoardFile,
    #[serde(default)]
    part: GoalFile,
    alloy: String,
    #[serde(default)]
    feed: Option<FeedEntry>,
    #[serde(default)]
    refit: Option<String>,
    station: StationFile,
    settings: Recipe,
    #[serde(default)]
    fit: Option<FitFile>,
    #[serde(default, alias = "means")]
    equipment: EquipmentFile,
    #[serde(default = "usual_ambient", alias = "room_c")]
    ambient_c: f64,
    /// What has been learnt of station, board, hand and place.
    #[serde(default)]
    known: Option<lesson::LessonFile>,
}

#[derive(Debug, Clone, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct GoalFile {
    /// What is wanted alive: of older files, whether the part is too.
    #[serde(default, alias = "must_live")]
    keep_intact: KeepIntact,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct FitFile {
    /// Is the part set on liquid joints, not heated in its place?
    #[serde(default)]
    set_on: bool,
    settings: Recipe,
}

fn usual_ambient() -> f64 {
    USUAL_AMBIENT_C
}

/// A bundle, read and checked.
#[derive(Debug, Clone)]
pub struct Bundle {
    /// The board.
    pub board: Board,
    /// What is wanted alive.
    pub keep_intact: KeepIntact,
    /// What the heat is for.
    pub purpose: Purpose,
    /// What the joints hold, are fed and are soldered with in the end.
    pub composition: JointComposition,
    /// The station.
    pub station: Station,
    /// What is done with it.
    pub recipe: Recipe,
    /// How the new part is fitted, and what for: where the file says so.
    pub fit: Option<(Purpose, Recipe)>,
    /// What the shop has and can.
    pub equipment: Equipment,
    /// Ambient temperature.
    pub ambient: Temperature,
    /// What has been learnt of station, board, hand and place.
    pub known: Knowledge,
}

impl Bundle {
    /// What the planner takes, watched by `watch`.
    pub fn order<'a>(&'a self, watch: &'a Watch) -> Order<'a> {
        let Self { board, composition, station, recipe, known, .. } = self;
        let (ambient, purpose, keep_intact) = (self.ambient, self.purpose, self.keep_intact);
        Order { board, composition, station, recipe, ambient, known, purpose, keep_intact, watch }
    }

    /// The same board with the new part to be fitted: as the file says, else as a fit begins.
    pub fn for_fit(self) -> Self {
        let first = || (Purpose::Fit, first_settings(&self.recipe, &self.board));
        let (purpose, recipe) = self.fit.clone().unwrap_or_else(first);
        Self { composition: self.composition.for_fit(&self.board), purpose, recipe, ..self }
    }

    /// What the methods are weighed on.
    pub fn subject(&self) -> Subject<'_> {
        let Self { board, composition, station, equipment, keep_intact, known, purpose, .. } = self;
        let (keep_intact, purpose) = (*keep_intact, *purpose);
        Subject { board, composition, station, equipment, keep_intact, known, purpose }
    }
}

/// What a workroom can be at, °C.
const WORKROOM_C: (f64, f64) = (-10.0, 45.0);

/// Reads a bundle.
pub fn parse(bytes: &[u8]) -> Result<Bundle, Vec<Finding>> {
    let file: BundleFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    if let Some(problem) = ValueProblem::outside(file.ambient_c, WORKROOM_C, Unit::Celsius) {
        return Err(vec![Finding::blocking(RULE, "ambient_c", problem)]);
    }
    let BundleFile { alloy, feed, refit, .. } = file;
    let entry = CompositionEntry { alloy, feed, refit, ..CompositionEntry::default() };
    Ok(Bundle {
        board: file.board.into_board()?,
        keep_intact: file.part.keep_intact,
        purpose: Purpose::Remove,
        composition: entry.composition()?,
        station: file.station.into_station()?,
        recipe: file.settings,
        fit: file.fit.map(|fit| (if fit.set_on { Purpose::SetOn } else { Purpose::Fit }, fit.settings)),
        equipment: file.equipment.equipment()?,
        ambient: Temperature::celsius(file.ambient_c),
        known: file.known.map_or(Ok(Knowledge::NOTHING), lesson::LessonFile::known)?,
    })
}
