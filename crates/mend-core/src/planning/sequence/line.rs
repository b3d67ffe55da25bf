//! What a step says to do, a line each, grouped like the files that write them. Lengths in mm, flows in L/min, times in s.

use serde::{Deserialize, Serialize};

use crate::board::{ConnectorFamily, Face};
use crate::heat::motion::Motion;
use crate::heat::preheater::Coupling;
use crate::heat::shield::ShieldKind;
use crate::heat::tool::ComesNearWhen;
use crate::heat::wire_path::WireShape;
use crate::materials::BodyMaterial;
use crate::method::MethodFamily;
use crate::planning::margin::MarginDetail;
use crate::planning::small_runs::SmallRun;
use crate::planning::tips::TipChoice;

/// A line. Written as `{"line": …}` with its values; no line stands in two of the groups.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum Line {
    /// Opening and protecting, before any heat.
    Before(BeforeLine),
    /// Flux, alloy, wire: what goes onto the joints before heat.
    Feed(FeedLine),
    /// Under heat, until the part is off.
    Heat(HeatLine),
    /// Pads and holes, while the board is warm.
    Pads(PadsLine),
    /// The new part.
    Fit(FitLine),
    /// Cleaning, looking, testing.
    After(AfterLine),
    /// A donor's part.
    Harvest(HarvestLine),
}

/// Opening and protecting, before any heat.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub enum BeforeLine {
    Unplug,
    BoardOnHolder,
    ExtractionAndStrap,
    ScrewMap,
    LatchesFirst,
    ThermalPads,
    OffBeforeHeat { components: Vec<String> },
    DonorIsSpent,
    LayShield { shield: ShieldKind, over: Vec<String>, width_mm: f64, depth_mm: f64, face: Face },
    Cover { component: String, detail: MarginDetail, headroom_k: f64 },
    NoShieldNeeded,
    TapeFace { face: Face, near: usize },
}

impl From<BeforeLine> for Line {
    fn from(line: BeforeLine) -> Self {
        Self::Before(line)
    }
}

/// Flux, alloy, wire: what goes onto the joints before heat.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub enum FeedLine {
    FluxJoints {
        joints: usize,
    },
    FluxSparingly,
    FluxGenerously,
    WickFirst,
    FeedRow {
        row: String,
        joints: usize,
        mm: f64,
        alloy: String,
        wire_mm: f64,
        rounds: usize,
    },
    TouchEveryJoint {
        alloy: String,
    },
    HoldUntilHot,
    HiddenAsFactory {
        joints: usize,
    },
    WireLength {
        mm: f64,
        wire_mm: f64,
        #[serde(default)]
        shape: Option<WireShape>,
    },
    SolderWireDown,
}

impl From<FeedLine> for Line {
    fn from(line: FeedLine) -> Self {
        Self::Feed(line)
    }
}

/// Under heat, until the part is off.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub enum HeatLine {
    /// Air in a soak.
    AirOn {
        face: Face,
        motion: Motion,
        distance_mm: f64,
        nozzle_mm: f64,
        lpm: f64,
    },
    /// Air on the part or from its far face, in one line.
    AirAndPlace {
        onto_part: bool,
        face: Face,
        motion: Motion,
        distance_mm: f64,
        nozzle_mm: f64,
        lpm: f64,
    },
    /// The same in two lines: where from.
    AirPlace {
        onto_part: bool,
        face: Face,
        motion: Motion,
        distance_mm: f64,
    },
    /// And the setting.
    AirSetting {
        nozzle_mm: f64,
        lpm: f64,
    },
    PreheaterOn {
        face: Face,
        coupling: Coupling,
    },
    IronOnRow {
        tip_mm: f64,
        row: String,
    },
    AllOff,
    NextToolWithin {
        s: f64,
    },
    /// What the hands do in this method, besides holding the tools.
    MethodHands {
        family: MethodFamily,
    },
    DoNotPull,
    TipOnEachLeg {
        tip_mm: f64,
        s: f64,
    },
    OneAfterOther {
        joints: Vec<String>,
    },
    StraightUp,
    RockPegs {
        pegs: u32,
    },
    GlueHolds,
    LeverRound,
    ComesNear {
        from_mm: f64,
        to_mm: f64,
        s: f64,
        /// Steps of older runs have none.
        #[serde(default)]
        when: ComesNearWhen,
    },
    Leans {
        lean_deg: f64,
        towards_deg: f64,
    },
}

impl From<HeatLine> for Line {
    fn from(line: HeatLine) -> Self {
        Self::Heat(line)
    }
}

/// Pads and holes, while the board is warm.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub enum PadsLine {
    EvenPads,
    BraidWidePads,
    BraidPads,
    DrawHoles {
        holes: usize,
    },
    WickPasses {
        passes: usize,
        flood: String,
    },
    NeverClean,
    ColdAtOnce,
    BraidSticks,
    AlcoholAndBrush,
    LookAtPads,
    /// Components that the plan has near their limit: are they there, and whole?
    LookFor {
        components: Vec<String>,
    },
    /// Lands that were found not to be whole, and what is to be done.
    MendLands {
        pads: Vec<String>,
        holes: Vec<String>,
    },
    PutBackNow,
    HolesStayFilled,
    LookFromFarSide,
    HoleCount {
        holes: usize,
    },
    FillStarvedHoles,
    LightThroughEach,
    VacuumIron,
    PumpOpposite,
    BraidEnd,
    /// A hole cleared, with its time.
    Timed {
        run: SmallRun,
    },
}

impl From<PadsLine> for Line {
    fn from(line: PadsLine) -> Self {
        Self::Pads(line)
    }
}

/// The new part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub enum FitLine {
    DryFit,
    HiddenDomes,
    AlignByMarks,
    TinAndSeat {
        alloy: String,
    },
    TinRow {
        row: String,
        joints: usize,
        mm: f64,
        alloy: String,
        wire_mm: f64,
        hidden: bool,
    },
    FirstPin,
    TackAnchors,
    DrawnBack,
    PushedHome,
    IronOnEachPad,
    PressUntilSolid,
    SameAirAgain,
    UntilItSinks,
    SetOnLiquid,
    IronRound {
        tip_mm: f64,
        dwell_s: f64,
    },
    AirOffDoNotMove,
    /// A tip for each class of joints.
    Tips {
        choices: Vec<TipChoice>,
    },
    /// An anchor flowed through, with its time.
    Timed {
        run: SmallRun,
    },
    HoldStill {
        face: Face,
    },
    Anchors {
        anchors: usize,
        tip_mm: f64,
        from_far_side: bool,
    },
    SeenPins {
        pins: usize,
    },
    DrawBridgesOff,
}

impl From<FitLine> for Line {
    fn from(line: FitLine) -> Self {
        Self::Fit(line)
    }
}

/// Cleaning, looking, testing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub enum AfterLine {
    TouchUpVisible,
    RinseAndDry,
    ToThePinWalk,
    StrongAlcohol,
    BrushAwayFromContacts,
    BrushIntoShell,
    UltrasonicBath,
    NoBath {
        components: Vec<String>,
    },
    LookAtAnAngle,
    NoBridgeNoBall,
    HiddenByMeter {
        joints: usize,
    },
    ThenPinWalk,
    /// A test that the connector names.
    OwnTest {
        text: String,
    },
    /// What its kind wants tested.
    UsualTest {
        family: ConnectorFamily,
    },
    CableThenPower,
    EveryLand {
        joints: usize,
    },
    NothingBridged,
}

impl From<AfterLine> for Line {
    fn from(line: AfterLine) -> Self {
        Self::After(line)
    }
}

/// A donor's part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "line", rename_all = "kebab-case")]
pub enum HarvestLine {
    SetDown,
    WickFeet { joints: usize },
    TinOnceMore { fed: String, alloy: String },
    BrushDry,
    LatchMoves { part: String, material: BodyMaterial },
    BagIt,
    BoardIsWaste,
    OtherBoardReady { joints: usize },
    SameFootprint,
}

impl From<HarvestLine> for Line {
    fn from(line: HarvestLine) -> Self {
        Self::Harvest(line)
    }
}
