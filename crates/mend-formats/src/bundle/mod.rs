//! Everything one plan needs in one file, `urgent-mend/bundle/1`: docs/formats/bundle.md.

use mend_core::board::{Board, MustLive};
use mend_core::finding::Finding;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::tool::Station;
use mend_core::method::means::Means;
use mend_core::method::subject::Subject;
use mend_core::planning::plan::Order;
use mend_core::solder::Charge;
use mend_core::units::Temperature;
use mend_core::watch::Watch;
use serde::{Deserialize, Serialize};

use crate::board::BoardFile;
use crate::charge::{self, FeedFile};
use crate::means::MeansFile;
use crate::reading;
use crate::station::StationFile;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/bundle/1";
const RULE: &str = "bundle_file";
/// The room where nothing is said.
pub const USUAL_ROOM_C: f64 = 23.0;

#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct BundleFile {
    format: String,
    board: BoardFile,
    #[serde(default)]
    part: PartFile,
    alloy: String,
    #[serde(default)]
    feed: Option<FeedFile>,
    #[serde(default)]
    refit: Option<String>,
    station: StationFile,
    settings: Recipe,
    #[serde(default)]
    means: MeansFile,
    #[serde(default = "usual_room")]
    room_c: f64,
}

#[derive(Debug, Clone, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct PartFile {
    /// What is wanted alive: of older files, whether the part is too.
    #[serde(default)]
    must_live: MustLive,
}

fn usual_room() -> f64 {
    USUAL_ROOM_C
}

/// A bundle, read and checked.
#[derive(Debug, Clone)]
pub struct Bundle {
    /// The board.
    pub board: Board,
    /// What is wanted alive.
    pub must_live: MustLive,
    /// What the joints hold, are fed and are soldered with in the end.
    pub charge: Charge,
    /// The station.
    pub station: Station,
    /// What is done with it.
    pub recipe: Recipe,
    /// What the shop has and can.
    pub means: Means,
    /// The room.
    pub room: Temperature,
}

impl Bundle {
    /// What the planner takes, watched by `watch`.
    pub fn order<'a>(&'a self, watch: &'a Watch) -> Order<'a> {
        let Self { board, charge, station, recipe, room, must_live, .. } = self;
        Order { board, charge, station, recipe, room: *room, must_live: *must_live, watch }
    }

    /// What the methods are weighed on.
    pub fn subject(&self) -> Subject<'_> {
        let Self { board, charge, station, means, must_live, .. } = self;
        Subject { board, charge, station, means, must_live: *must_live }
    }
}

/// Reads a bundle.
pub fn parse(bytes: &[u8]) -> Result<Bundle, Vec<Finding>> {
    let file: BundleFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, FORMAT)?;
    if !(-10.0..=45.0).contains(&file.room_c) {
        let message = format!("{} °C is no workroom", file.room_c);
        return Err(vec![Finding::blocking(RULE, "room_c", message).hint("between -10 and 45 °C")]);
    }
    Ok(Bundle {
        board: file.board.into_board()?,
        must_live: file.part.must_live,
        charge: charge::read(&file.alloy, file.feed.as_ref(), file.refit.as_deref())?,
        station: file.station.into_station()?,
        recipe: file.settings,
        means: file.means.means()?,
        room: Temperature::celsius(file.room_c),
    })
}
