//! What a pin can show.

/// The finding at one pin.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PinMark {
    /// Does not move, good fillet.
    Firm,
    /// Moves under a small sideways push.
    Moves,
    /// Joined to its neighbour.
    Bridged,
    /// Too little solder to hold.
    Starved,
    /// Bent away or gone.
    Missing,
}

impl PinMark {
    /// All of them, as on the key line.
    pub const ALL: [Self; 5] = [Self::Firm, Self::Moves, Self::Bridged, Self::Starved, Self::Missing];

    /// As it is stored and spoken.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Firm => "firm",
            Self::Moves => "moves",
            Self::Bridged => "bridged",
            Self::Starved => "starved",
            Self::Missing => "missing",
        }
    }

    /// The key that sets it.
    pub const fn key(self) -> char {
        match self {
            Self::Firm => 'f',
            Self::Moves => 'm',
            Self::Bridged => 'b',
            Self::Starved => 's',
            Self::Missing => 'x',
        }
    }

    /// Read back.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|mark| mark.name() == name)
    }
}
