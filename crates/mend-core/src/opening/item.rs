//! What a device is opened by, and what lies in the way.

use serde::{Deserialize, Serialize};

use crate::caution::Caution;

/// The shape of a screw's drive.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum ScrewHead {
    /// A cross.
    Cross,
    /// Six lobes.
    SixLobe,
    /// Five lobes.
    FiveLobe,
    /// Three wings.
    ThreeWing,
    /// A hexagon.
    Hex,
    /// A slot.
    Slot,
}

impl ScrewHead {
    /// All of them.
    pub const ALL: [Self; 6] = [Self::Cross, Self::SixLobe, Self::FiveLobe, Self::ThreeWing, Self::Hex, Self::Slot];

    /// As it is written.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Cross => "cross",
            Self::SixLobe => "six-lobe",
            Self::FiveLobe => "five-lobe",
            Self::ThreeWing => "three-wing",
            Self::Hex => "hex",
            Self::Slot => "slot",
        }
    }
}

/// How a cable's connector opens. Most broken connectors were broken by pulling without opening the latch.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Latch {
    /// A bar that flips up.
    FlipUp,
    /// A frame that slides out.
    SlideOut,
    /// Pushed together, pulled straight up.
    PushFit,
    /// A small coaxial plug, snapped on.
    SnapOn,
    /// No force: tape to pull by, nothing to open.
    ZeroForce,
}

impl Latch {
    /// All of them.
    pub const ALL: [Self; 5] = [Self::FlipUp, Self::SlideOut, Self::PushFit, Self::SnapOn, Self::ZeroForce];

    /// As it is written.
    pub const fn key(self) -> &'static str {
        match self {
            Self::FlipUp => "flip-up",
            Self::SlideOut => "slide-out",
            Self::PushFit => "push-fit",
            Self::SnapOn => "snap-on",
            Self::ZeroForce => "zero-force",
        }
    }
}

/// What can hurt the person or the device.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Hazard {
    /// A lithium cell.
    Cell,
    /// A mains supply.
    Mains,
    /// A spring that jumps.
    Spring,
    /// Glass that breaks.
    Glass,
}

impl Hazard {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::Cell, Self::Mains, Self::Spring, Self::Glass];

    /// As it is written.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Cell => "cell",
            Self::Mains => "mains",
            Self::Spring => "spring",
            Self::Glass => "glass",
        }
    }
}

/// A thing on a map.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum ItemKind {
    /// A screw: head, length under it and thread, mm; its colour where it has one.
    Screw {
        head: ScrewHead,
        length_mm: f64,
        thread_mm: f64,
        #[serde(default, skip_serializing_if = "String::is_empty")]
        colour: String,
    },
    /// A cable, by its latch; is it the cell's own?
    Cable {
        latch: Latch,
        #[serde(default, skip_serializing_if = "is_not")]
        of_cell: bool,
    },
    /// A clip that snaps.
    Clip,
    /// A strip of adhesive: warmed to so many °C for so many s.
    Adhesive { warm_c: f64, for_s: f64 },
    /// Thermal pads, so many of so many mm.
    ThermalPad { count: u32, thickness_mm: f64 },
    /// Thermal paste: renewed.
    Paste,
    /// Liquid metal: contained, and gone before any soldering near it.
    LiquidMetal,
    /// The customer's own: bagged with a label, back in before the last test.
    Own,
    /// Something to beware of: it is not taken out.
    Hazard { of: Hazard },
}

#[allow(clippy::trivially_copy_pass_by_ref, reason = "serde hands a reference")]
fn is_not(yes: &bool) -> bool {
    !yes
}

/// Length of a screw under its head, mm.
pub const LENGTH_MM: (f64, f64) = (0.5, 100.0);
/// Threads, mm.
pub const THREAD_MM: (f64, f64) = (0.8, 8.0);
/// What adhesive is warmed to, °C: above it displays and cells are hurt.
pub const WARM_C: (f64, f64) = (30.0, 120.0);
/// For so long, s.
pub const FOR_S: (f64, f64) = (5.0, 1800.0);

impl ItemKind {
    /// Is it taken out, and to be put back?
    pub const fn comes_out(&self) -> bool {
        !matches!(self, Self::Hazard { .. })
    }

    /// Is it a connection that must wait until the cell's own is open?
    pub const fn waits_for_cell(&self) -> bool {
        matches!(self, Self::Cable { of_cell: false, .. })
    }

    /// What applies beside it.
    ///
    /// ```
    /// use mend_core::caution::Caution;
    /// use mend_core::opening::item::{Hazard, ItemKind};
    /// assert_eq!(ItemKind::Hazard { of: Hazard::Cell }.caution(), Some(Caution::Lithium));
    /// assert_eq!(ItemKind::Clip.caution(), None);
    /// ```
    pub const fn caution(&self) -> Option<Caution> {
        match self {
            Self::Hazard { of: Hazard::Cell } | Self::Cable { of_cell: true, .. } => Some(Caution::Lithium),
            Self::Hazard { of: Hazard::Mains } => Some(Caution::Mains),
            Self::LiquidMetal => Some(Caution::LiquidMetal),
            Self::Adhesive { .. } => Some(Caution::Burns),
            _ => None,
        }
    }
}
