//! The connector: its body, its shell and every joint that holds it.

use serde::{Deserialize, Serialize};

use super::geometry::{Face, Point, Rect};
use crate::materials::BodyMaterial;
use crate::units::Length;

/// The connector that is to be replaced, placed on the board.
#[derive(Debug, Clone, PartialEq)]
pub struct Connector {
    /// Name.
    pub name: String,
    /// How stoutly its pins join the body, and which reworking habits apply.
    pub family: ConnectorFamily,
    /// The face it stands on.
    pub face: Face,
    /// Its body seen from above.
    pub body: Rect,
    /// Its height.
    pub height: Length,
    /// What the body is moulded from.
    pub material: BodyMaterial,
    /// Has it a metal shell round the body?
    pub shell: bool,
    /// Plastic pegs that need a pull even when all solder is liquid.
    pub pegs: u32,
    /// Every joint.
    pub joints: Vec<Joint>,
    /// What its functional test must cover, in the order in which it is tried; empty where nobody has said.
    pub tests: Vec<String>,
}

/// Families of connectors, by what their joints and bodies are like.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum ConnectorFamily {
    /// A port a cable plugs into.
    Port,
    /// A flex connector with a latch.
    Flex,
    /// The tail of a flexible circuit, soldered flat on the board and glued beside its pads.
    FlexTail,
    /// Board to board.
    BoardToBoard,
    /// An audio or network jack.
    Jack,
    /// A power jack.
    Power,
}

/// Conductance of one pin into the body, W/K (engineering estimates, x0.5-2).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BodyLink {
    /// One signal pin, W/K.
    pub pin: f64,
    /// One anchor into the shell (or the body where there is none), W/K.
    pub anchor: f64,
}

impl Connector {
    /// Joints in plated holes.
    ///
    /// ```
    /// use mend_core::board::library::kind;
    /// let made = |key: &str| kind(key).expect("of the library").make(&Default::default()).expect("its usual size");
    /// assert_eq!(made("power-jack").holes(), made("power-jack").joints.len());
    /// assert_eq!(made("battery-contacts").holes(), 0);
    /// ```
    pub fn holes(&self) -> usize {
        self.joints.iter().filter(|joint| joint.shape.is_hole()).count()
    }
}

impl ConnectorFamily {
    /// How its pins and anchors conduct into the body.
    pub const fn body_link(self) -> BodyLink {
        match self {
            Self::Flex | Self::BoardToBoard => BodyLink { pin: 1e-3, anchor: 2e-3 },
            // A finger of 18 um copper, 0.3 mm wide, into a film (E).
            Self::FlexTail => BodyLink { pin: 5e-4, anchor: 5e-4 },
            Self::Port => BodyLink { pin: 2e-3, anchor: 2e-2 },
            Self::Jack => BodyLink { pin: 6e-3, anchor: 6e-3 },
            Self::Power => BodyLink { pin: 2e-2, anchor: 2e-2 },
        }
    }

    /// Its name in running text.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Port => "port",
            Self::Flex => "flex connector",
            Self::FlexTail => "soldered flex tail",
            Self::BoardToBoard => "board-to-board connector",
            Self::Jack => "jack",
            Self::Power => "power jack",
        }
    }

    /// Open contacts that flux must not run into: then flux is used sparingly.
    pub const fn has_open_contacts(self) -> bool {
        matches!(self, Self::Flex | Self::BoardToBoard | Self::Jack)
    }
}

/// One soldered joint.
#[derive(Debug, Clone, PartialEq)]
pub struct Joint {
    /// `A1`, `leg 2`.
    pub name: String,
    /// The row it stands in, as seen under the microscope; anchors have their own.
    pub row: String,
    /// Where, mm.
    pub at: Point,
    /// What it carries: decides how much copper hangs on it.
    pub role: Role,
    /// Pad or plated hole.
    pub shape: JointShape,
    /// Under the body, where neither tip nor eye gets to.
    pub hidden: bool,
}

/// What a joint carries.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Role {
    /// A signal: one trace.
    Signal,
    /// Ground: tied to planes.
    Ground,
    /// Supply: tied to a plane or a wide trace.
    Power,
    /// Anchor (a soldered shell tab or leg): carries force, tied to ground copper.
    Anchor,
}

/// The shape of a joint's land.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum JointShape {
    /// A surface pad, mm.
    Pad {
        /// Along x, mm.
        width: f64,
        /// Along y, mm.
        depth: f64,
    },
    /// A plated hole, mm.
    Hole {
        /// Finished hole, mm.
        drill: f64,
        /// Land round it, mm.
        pad: f64,
    },
}

impl JointShape {
    /// Area of copper land, mm².
    pub fn land(self) -> f64 {
        match self {
            Self::Pad { width, depth } => width * depth,
            Self::Hole { pad, .. } => std::f64::consts::FRAC_PI_4 * pad * pad,
        }
    }
}

impl JointShape {
    /// A plated hole, seen on both faces?
    pub fn is_hole(self) -> bool {
        matches!(self, Self::Hole { .. })
    }
}

impl Joint {
    /// The rectangle round its land.
    pub fn covers(&self) -> Rect {
        let (width, depth) = match self.shape {
            JointShape::Pad { width, depth } => (width, depth),
            JointShape::Hole { pad, .. } => (pad, pad),
        };
        Rect { centre: self.at, width, depth }
    }

    /// Does a pin walk visit it? Anchors are inspected, not walked.
    pub fn is_pin(&self) -> bool {
        self.role != Role::Anchor
    }
}
