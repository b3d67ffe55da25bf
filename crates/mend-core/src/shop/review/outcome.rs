//! What is kept of a job that was given back.

/// What a stop took, against what was to be expected of it.
#[derive(Debug, Clone, PartialEq)]
pub struct StageTaken {
    /// The stop's name.
    pub stop: String,
    /// s.
    pub seconds: f64,
    /// What was to be expected, s.
    pub expected_s: f64,
}

/// Why a job stands still.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum WaitCause {
    /// The customer's word on a quote.
    Word,
    /// A part that is not on the shelf.
    Part,
    /// Whatever was entered at the counter.
    Entered,
}

impl WaitCause {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Word, Self::Part, Self::Entered];

    /// As it is kept.
    pub fn name(self) -> &'static str {
        match self {
            Self::Word => "word",
            Self::Part => "part",
            Self::Entered => "entered",
        }
    }

    /// The one of that name; none: no such cause.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|cause| cause.name() == name)
    }
}

/// How long a job stood still for a cause.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Waited {
    /// Why.
    pub cause: WaitCause,
    /// All of its times together, s.
    pub seconds: f64,
}

/// A job that was given back.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct JobOutcome {
    /// Its number.
    pub job: i64,
    /// When it was given back, days from some day.
    pub day: f64,
    /// Kind of connector.
    pub connector: String,
    /// Method.
    pub method: String,
    /// Station; empty: nothing was heated.
    pub station: String,
    /// Board model.
    pub board: String,
    /// Who did most at the bench; empty: not known.
    pub person: String,
    /// Predicted release, s: the band's ends and its middle; none: not expected, or no end.
    pub predicted_s: [Option<f64>; 3],
    /// When it came, s after air on; none: not stamped from cold.
    pub actual_s: Option<f64>,
    /// What the plan gave as the chance that nothing is damaged, 0-1.
    pub chance: Option<f64>,
    /// How often it went back to an earlier stop.
    pub reworks: u32,
    /// What was damaged, by name.
    pub damaged: Vec<String>,
    /// It came back under warranty.
    pub returned: bool,
    /// Given back as it was.
    pub declined: bool,
    /// Somebody went on against the cleaning ledger.
    pub overridden: bool,
    /// Its stops.
    pub stages: Vec<StageTaken>,
    /// What it waited for; a cause stands here once.
    pub waited: Vec<Waited>,
    /// Its station had been measured with a probe before.
    pub probed: bool,
}

impl JobOutcome {
    /// Mended at the first go: nothing went back, was damaged, or came again.
    pub fn first_time_right(&self) -> bool {
        !self.declined && self.reworks == 0 && self.damaged.is_empty() && !self.returned
    }

    /// Did it come within its band? None: there was no band, or no stamp.
    pub fn within(&self) -> Option<bool> {
        let ([low, _, high], actual) = (self.predicted_s, self.actual_s?);
        Some(actual >= low? && high.is_none_or(|high| actual <= high))
    }

    /// How much later than the middle of its band it came, as a logarithm.
    pub fn lateness(&self) -> Option<f64> {
        let (actual, middle) = (self.actual_s?, self.predicted_s[1]?);
        (actual > 0.0 && middle > 0.0).then(|| (actual / middle).ln())
    }
}
