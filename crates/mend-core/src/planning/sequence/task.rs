//! What a step is.

use serde::{Deserialize, Serialize};

use crate::method::MethodFamily;
use crate::planning::limited_by::LimitedBy;

/// What is done in a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "task", rename_all = "kebab-case")]
pub enum Task {
    /// Power off, board on its holder, tools at hand.
    MakeReady,
    /// The device is opened.
    Open,
    /// What stands near is covered.
    Protect,
    /// A donor's part is protected, its board is not.
    ProtectPart,
    /// Flux on every joint.
    Flux,
    /// Fresh metal into the joints.
    AddAlloy,
    /// The bridge wire is laid.
    LayWire,
    /// Nothing is hot: the heat spreads.
    Pause,
    /// The board warms on the preheater.
    Warm,
    /// A soak, with air or without.
    Soak {
        /// Does air blow?
        air: bool,
    },
    /// Heat until release.
    Heat {
        /// The chosen method; none: air as it is set.
        family: Option<MethodFamily>,
        /// What limits the plan.
        limited_by: LimitedBy,
    },
    /// One hole after the other is emptied.
    EmptyHoles {
        /// The chosen method.
        family: Option<MethodFamily>,
        /// What limits the plan.
        limited_by: LimitedBy,
    },
    /// The part comes up.
    Lift,
    /// Pads are wicked while the board is warm.
    Wick,
    /// Pads are cleaned and looked at.
    CleanPads,
    /// Holes stay filled: the part will drop in.
    LeaveHolesFilled,
    /// Holes are cleared.
    ClearHoles,
    /// The new part is fitted.
    Fit,
    /// It is soldered with air.
    SetWithAir,
    /// It is soldered with the iron.
    SetWithIron,
    /// It is held until solid.
    Hold,
    /// Anchors and pins are touched up.
    TouchUp,
    /// Cleaned.
    Clean,
    /// Touched up and cleaned in one step.
    CleanAll,
    /// Looked at.
    Inspect,
    /// Tested.
    Test,
    /// A donor's part cools.
    CoolPart,
    /// A donor's part is cleaned.
    CleanPart,
    /// A donor's part is looked at and bagged.
    BagPart,
    /// The board that a part moves over to is made ready.
    OtherBoard,
    /// Pads that stay bare are looked at.
    LookAtLands,
}
