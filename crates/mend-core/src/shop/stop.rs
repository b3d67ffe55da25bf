//! The stops of a job, from the counter and back to it.

/// The stops of a job, in order.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stop {
    /// Taken in.
    Intake,
    /// Opened by its map.
    Opening,
    /// Which board, what is near.
    Board,
    /// Lands, and a diode sheet: is the port the fault at all? After the board, whose pins are looked at.
    Look,
    /// What the joints hold and are fed.
    Alloy,
    /// Which family of methods.
    Method,
    /// Window and margins.
    Heat,
    /// At the bench.
    Run,
    /// Pin by pin, and by meter.
    Pins,
    /// What the port is for, tried with as little closed up as possible.
    Test,
    /// All back in, and tried once more.
    Close,
    /// Back to the customer.
    Handover,
}

impl Stop {
    /// All, in order.
    pub const ALL: [Self; 12] = [
        Self::Intake,
        Self::Opening,
        Self::Board,
        Self::Look,
        Self::Alloy,
        Self::Method,
        Self::Heat,
        Self::Run,
        Self::Pins,
        Self::Test,
        Self::Close,
        Self::Handover,
    ];

    /// The group of stops that it belongs to, as the line has them together.
    pub const fn group(self) -> &'static str {
        match self {
            Self::Intake | Self::Opening | Self::Board | Self::Look => "Taken in",
            Self::Alloy | Self::Method | Self::Heat => "Planned",
            Self::Run | Self::Pins => "At the bench",
            Self::Test | Self::Close | Self::Handover => "Given back",
        }
    }

    /// Its name on the line.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Intake => "Intake",
            Self::Opening => "Opening",
            Self::Board => "Board",
            Self::Look => "Look",
            Self::Alloy => "Alloy",
            Self::Method => "Method",
            Self::Heat => "Heat plan",
            Self::Run => "Bench run",
            Self::Pins => "Inspect",
            Self::Test => "Test",
            Self::Close => "Close",
            Self::Handover => "Handover",
        }
    }

    /// The last part of its address.
    pub const fn path(self) -> &'static str {
        match self {
            Self::Intake => "intake",
            Self::Opening => "opening",
            Self::Board => "board",
            Self::Look => "look",
            Self::Alloy => "alloy",
            Self::Method => "method",
            Self::Heat => "heat",
            Self::Run => "run",
            Self::Pins => "pins",
            Self::Test => "test",
            Self::Close => "close",
            Self::Handover => "handover",
        }
    }

    /// The stop of a last part of an address.
    ///
    /// ```
    /// use mend_core::shop::Stop;
    /// assert_eq!(Stop::from_path("pins"), Some(Stop::Pins));
    /// ```
    pub fn from_path(path: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|stop| stop.path() == path)
    }

    /// What to do there, as an order to oneself.
    pub const fn call(self) -> &'static str {
        match self {
            Self::Intake => "Finish the intake",
            Self::Opening => "Open it",
            Self::Board => "Choose the board",
            Self::Look => "Look and measure",
            Self::Alloy => "Choose the alloy",
            Self::Method => "Compare the methods",
            Self::Heat => "Plan the heat",
            Self::Run => "Run it at the bench",
            Self::Pins => "Walk the pins",
            Self::Test => "Test it",
            Self::Close => "Close it",
            Self::Handover => "Hand it over",
        }
    }
}
