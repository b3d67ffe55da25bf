//! The board: outline, stack-up, the connector with its joints, the components.
//!
//! Coordinates are mm, x to the right, y away from the technician, seen from the top face. The bottom face uses the
//! same x and y (looking through the board), so one place has one coordinate.
//!
//! Describes a board, checks it, makes connectors from sizes, guesses the copper from what is seen. It reads no files, and
//! knows nothing of nets: a joint has a role, not a circuit.

pub mod board_signs;
pub mod compare;
mod component;
mod component_kind;
mod connector;
mod crowding;
pub mod draft;
mod geometry;
mod groups;
mod keep_intact;
pub mod library;
mod metal;
mod nominal_value;
mod outline;
pub mod photo;
pub mod route;
pub mod rules;
mod sign_odds;
mod stack;
pub mod stack_guess;
mod stiffener;
mod turn;

pub use component::Component;
pub use component_kind::ComponentKind;
pub use connector::{BodyLink, Connector, ConnectorFamily, Joint, JointShape, Role};
pub use crowding::Crowding;
pub use geometry::{Face, Point, Rect};
pub use groups::{JointGroup, groups, row_names};
pub use keep_intact::KeepIntact;
pub use nominal_value::{NominalValue, NotAValue, ValueKind};
pub use outline::Outline;
pub use stack::StackUp;
pub use stiffener::{Stiffener, StiffenerMaterial};
pub use turn::{Pose, Turn};

/// A board model: everything the heat run needs to know of what lies on the bench.
#[derive(Debug, Clone, PartialEq)]
pub struct Board {
    /// The model's name.
    pub name: String,
    /// Who made it (as the shop calls them).
    pub maker: String,
    /// The rim.
    pub outline: Outline,
    /// Thickness, layers, copper.
    pub stack: StackUp,
    /// The part that is to be replaced.
    pub connector: Connector,
    /// What must not be damaged.
    pub components: Vec<Component>,
}

impl Board {
    /// The face that hangs down: the part's other one. The board lies with the part on top, or is heated from below through
    /// the face that looks down.
    pub fn hanging(&self) -> Face {
        self.connector.face.other()
    }

    /// Weight of the bare board, g: its outline by what a mm² of its stack-up weighs.
    pub fn bare_weight_g(&self) -> f64 {
        self.outline.area() * self.stack.weight()
    }

    /// What carries heat away along the board, W/K: conductivity in plane by thickness.
    pub fn carries_away(&self) -> f64 {
        self.stack.in_plane() * self.stack.thickness.in_mm() * 1e-3
    }
}
