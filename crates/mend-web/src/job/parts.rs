//! What a job needs from the shelf: is it there, and has it been told from what it is taken for?

use jiff::civil::Date;
use mend_core::method::JobKind;
use mend_core::shop::review::WaitCause;
use mend_core::shop::stock::{PartNeed, PartState, part_kept_for};
use mend_store::{LookAlikeRow, NeedRow};

use super::Job;

/// The list under which a check against a look-alike is kept.
pub(crate) const LOOK_ALIKE: &str = "look-alike";

/// A part of a job with what it is taken for.
#[derive(Debug, Clone)]
pub(crate) struct NeededPart {
    pub(crate) need: NeedRow,
    pub(crate) look_alikes: Vec<LookAlikeRow>,
}

impl NeededPart {
    /// How it stands.
    pub(crate) fn state(&self) -> PartState {
        let NeedRow { wanted, reserved, used, .. } = self.need;
        part_kept_for(PartNeed { wanted, reserved, used })
    }

    /// The name that a check against a look-alike is kept under.
    pub(crate) fn check_name(&self, other: i64) -> String {
        format!("{}-{other}", self.need.item)
    }

    /// Is it not there yet?
    pub(crate) fn is_waited_for(&self) -> bool {
        self.state() == PartState::Waits
    }

    /// What it waits for, in words.
    fn waits(&self) -> Option<String> {
        self.is_waited_for().then(|| match day_in_words(&self.need.day) {
            Some(day) => format!("{}, expected {day}", self.need.name),
            None => self.need.name.clone(),
        })
    }
}

/// A day as it is read; none: no day.
pub(crate) fn day_in_words(day: &str) -> Option<String> {
    day.parse::<Date>().ok().map(|day| day.strftime("%-d %B").to_string())
}

impl Job {
    /// Why it stands still; nothing that was given back does.
    pub(crate) fn wait_causes(&self) -> Vec<WaitCause> {
        if self.is_closed() {
            return Vec::new();
        }
        let part = self.kind() != JobKind::Harvest && self.parts.iter().any(NeededPart::is_waited_for);
        let causes = [
            (WaitCause::Word, self.open_quote.is_some()),
            (WaitCause::Part, part),
            (WaitCause::Entered, !self.intake("waits_for").is_empty()),
        ];
        causes.into_iter().filter(|(_, holds)| *holds).map(|(cause, _)| cause).collect()
    }

    /// What it waits for: as entered, the customer's word, and parts that are not there.
    pub(crate) fn waits_for(&self) -> String {
        let entered = Some(self.intake("waits_for").to_owned()).filter(|entered| !entered.is_empty());
        let parts = self.parts.iter().filter(|_| self.kind() != JobKind::Harvest).filter_map(NeededPart::waits);
        let word = self.open_quote.map(|quote| format!("the customer's word on quote {quote}"));
        entered.into_iter().chain(word).chain(parts).collect::<Vec<_>>().join("; ")
    }

    /// The first look-alike that a part of it has not been told from, in words.
    pub(crate) fn untold(&self) -> Option<String> {
        let told =
            |part: &NeededPart, row: &LookAlikeRow| self.check(LOOK_ALIKE, &part.check_name(row.other)).is_some();
        self.parts.iter().filter(|part| part.state() != PartState::Used).find_map(|part| {
            let row = part.look_alikes.iter().find(|row| !told(part, row))?;
            Some(format!("{} is taken for {}: {}", part.need.name, row.name, row.difference))
        })
    }
}
