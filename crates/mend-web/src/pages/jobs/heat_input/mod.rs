//! The heat plan's form as it was sent: parsed field by field into inputs of a plan.

mod fields;
#[cfg(test)]
mod tests;
mod tools;

use mend_core::board::KeepIntact;
use mend_core::finding::Finding;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::Recipe;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::units::{Duration, Scale};

/// More stages or shields than this are not read.
const MOST_ROWS: usize = 64;

/// Within this a nozzle comes near where nothing is said, s (E).
pub(super) const USUAL_APPROACH_S: f64 = 10.0;

/// The form as it was sent, read field by field; every field that is no number is objected to by its name.
pub(crate) struct FormInput {
    fields: Vec<(String, String)>,
    scale: Scale,
    bad: Vec<Finding>,
}

impl FormInput {
    pub(crate) fn new(fields: Vec<(String, String)>, scale: Scale) -> Self {
        Self { fields, scale, bad: Vec::new() }
    }

    /// What a button asks for, if it was a button.
    pub(crate) fn act(&self) -> Option<&str> {
        self.get("act")
    }

    /// The inputs but for what the joints hold, or everything that can't be read.
    pub(crate) fn inputs(mut self) -> Result<PlanInputs, Vec<Finding>> {
        let settings = Recipe {
            air: self.get("set").is_some().then(|| self.air("")),
            longest: Duration::seconds(self.number("longest")),
            preheat: (0..MOST_ROWS).map_while(|k| self.stage(&format!("stage-{k}-"))).collect(),
            during: self.helpers(""),
            shields: (0..MOST_ROWS).map_while(|k| self.shield(&format!("shield-{k}-"))).collect(),
            bridge: self.bridge(),
            held: self.held(),
            begins_at: self.begins_at(),
            levered: self.get("levered") == Some("yes"),
        };
        let (station, keep_intact) =
            (self.get("station").unwrap_or_default().to_owned(), self.word_if_asked("keep_intact", KeepIntact::Board));
        let (alloy, feed, refit, method) = (String::new(), None, None, None);
        let purpose = self.word_if_asked("purpose", Purpose::Remove);
        let inputs = PlanInputs { station, alloy, feed, refit, keep_intact, method, purpose, settings };
        if self.bad.is_empty() { Ok(inputs) } else { Err(self.bad) }
    }
}
