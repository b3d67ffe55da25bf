//! Everything one plan needs in one file, `urgent-mend/bundle/2`: docs/formats/bundle.md.

use mend_core::board::{Board, KeepIntact};
use mend_core::finding::Finding;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::station::Station;
use mend_core::method::equipment::Equipment;
use mend_core::method::subject::Subject;
use mend_core::planning::order::Order;
use mend_core::solder::JointComposition;
use mend_core::units::Temperature;
use mend_core::watch::Watch;
use serde::{Deserialize, Serialize};

use crate::board::BoardFile;
use crate::composition::{self, FeedFile};
use crate::equipment::EquipmentFile;
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
    feed: Option<FeedFile>,
    #[serde(default)]
    refit: Option<String>,
    station: StationFile,
    settings: Recipe,
    #[serde(default, alias = "means")]
    equipment: EquipmentFile,
    #[serde(default = "usual_ambient", alias = "room_c")]
    ambient_c: f64,
}

#[derive(Debug, Clone, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct GoalFile {
    /// What is wanted alive: of older files, whether the part is too.
    #[serde(default, alias = "must_live")]
    keep_intact: KeepIntact,
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
    /// What the joints hold, are fed and are soldered with in the end.
    pub composition: JointComposition,
    /// The station.
    pub station: Station,
    /// What is done with it.
    pub recipe: Recipe,
    /// What the shop has and can.
    pub equipment: Equipment,
    /// Ambient temperature.
    pub ambient: Temperature,
}

impl Bundle {
    /// What the planner takes, watched by `watch`.
    pub fn order<'a>(&'a self, watch: &'a Watch) -> Order<'a> {
        let Self { board, composition, station, recipe, ambient, keep_intact, .. } = self;
        Order { board, composition, station, recipe, ambient: *ambient, keep_intact: *keep_intact, watch }
    }

    /// What the methods are weighed on.
    pub fn subject(&self) -> Subject<'_> {
        let Self { board, composition, station, equipment, keep_intact, .. } = self;
        Subject { board, composition, station, equipment, keep_intact: *keep_intact }
    }
}

/// Reads a bundle.
pub fn parse(bytes: &[u8]) -> Result<Bundle, Vec<Finding>> {
    let file: BundleFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    if !(-10.0..=45.0).contains(&file.ambient_c) {
        let message = format!("{} °C is no workroom", file.ambient_c);
        return Err(vec![Finding::written(RULE, "ambient_c", message).hint("between -10 and 45 °C")]);
    }
    Ok(Bundle {
        board: file.board.into_board()?,
        keep_intact: file.part.keep_intact,
        composition: composition::read(&file.alloy, file.feed.as_ref(), file.refit.as_deref())?,
        station: file.station.into_station()?,
        recipe: file.settings,
        equipment: file.equipment.equipment()?,
        ambient: Temperature::celsius(file.ambient_c),
    })
}
