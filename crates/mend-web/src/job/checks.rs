//! What was found of a job's lands, pins and tests.

use mend_core::board::Joint;
use mend_core::inspection::condition::Condition;
use mend_core::inspection::fault::SeenPin;
use mend_core::inspection::functional_test::{TestResult, TestVerdict, TriedTest, judged};
use mend_core::inspection::sheet::{DiodeReading, PinReference, SheetPhase};
use mend_core::shop::Stop;
use mend_store::CheckRow;

use super::Job;

/// Lists of entries besides those of the sheet's phases.
pub(crate) const CONDITION: &str = "condition";
pub(crate) const TEST_OPEN: &str = "test-open";
pub(crate) const TEST_CLOSED: &str = "test-closed";
pub(crate) const SKIPPED: &str = "skipped";
/// What is tried where nobody has said what the connector is for.
const USUAL_TEST: &str = "it does what it is for, with the plug in every way that it goes";

/// A reading as it is stored: volts, or `open`.
pub(crate) fn stored(reading: DiodeReading) -> String {
    match reading {
        DiodeReading::Volts(volts) => format!("{volts:.3}"),
        DiodeReading::Open => "open".to_owned(),
    }
}

/// What good boards read at a pin.
pub(crate) fn reference(good: &[CheckRow], pin: &str) -> Option<PinReference> {
    let of_pin = good.iter().filter(|row| row.name == pin);
    PinReference::of(&of_pin.filter_map(|row| DiodeReading::parse(&row.value).ok()).collect::<Vec<_>>())
}

impl Job {
    /// What was found of a name in a list.
    pub(crate) fn check(&self, list: &str, name: &str) -> Option<&str> {
        self.checks.iter().find(|row| row.list == list && row.name == name).map(|row| row.value.as_str())
    }

    /// What a pin read.
    pub(crate) fn reading(&self, phase: SheetPhase, pin: &str) -> Option<DiodeReading> {
        DiodeReading::parse(self.check(phase.key(), pin)?).ok()
    }

    /// In what state a joint's land is.
    pub(crate) fn condition(&self, joint: &str) -> Option<Condition> {
        Condition::named(self.check(CONDITION, joint)?)
    }

    /// Was a stop skipped?
    pub(crate) fn has_skipped(&self, stop: Stop) -> bool {
        self.check(SKIPPED, stop.path()).is_some()
    }

    fn joints(&self) -> impl Iterator<Item = &Joint> {
        self.board.iter().flat_map(|(_, board)| &board.connector.joints)
    }

    /// Every pin as it was looked at and measured.
    pub(crate) fn seen_pins(&self, good: &[CheckRow]) -> Vec<SeenPin> {
        let seen = |joint: &Joint| SeenPin {
            name: joint.name.clone(),
            role: joint.role,
            condition: self.condition(&joint.name),
            before: self.reading(SheetPhase::Before, &joint.name),
            off: self.reading(SheetPhase::Off, &joint.name),
            reference: reference(good, &joint.name),
        };
        self.joints().filter(|joint| joint.is_pin()).map(seen).collect()
    }

    /// Joints whose land is not whole, with its state.
    pub(crate) fn broken_lands(&self) -> Vec<(&Joint, Condition)> {
        let state = |joint: &'_ Joint| self.condition(&joint.name).filter(|state| *state != Condition::Whole);
        self.joints().filter_map(|joint| Some((joint, state(joint)?))).collect()
    }

    /// Has every land been looked at, or every pin been read, or was that skipped?
    pub(crate) fn is_looked_at(&self) -> bool {
        let seen = |joint: &Joint| self.condition(&joint.name).is_some();
        let read = |joint: &Joint| !joint.is_pin() || self.reading(SheetPhase::Before, &joint.name).is_some();
        let all = self.board.is_some() && (self.joints().all(seen) || self.joints().all(read));
        all || self.has_skipped(Stop::Look)
    }

    /// The functional tests with what they showed.
    pub(crate) fn tests(&self) -> Vec<TriedTest> {
        let of = |list: &str, name: &str| TestResult::named(self.check(list, name)?);
        let listed = self.board.as_ref().map_or(&[][..], |(_, board)| &board.connector.tests);
        let names = if listed.is_empty() { vec![USUAL_TEST.to_owned()] } else { listed.to_vec() };
        let tried = |name: String| TriedTest { open: of(TEST_OPEN, &name), closed: of(TEST_CLOSED, &name), name };
        names.into_iter().map(tried).collect()
    }

    /// Has all been tried, and works, or was that skipped?
    pub(crate) fn is_tested(&self) -> bool {
        self.has_skipped(Stop::Test) || judged(&self.tests()) == TestVerdict::Passed
    }
}
