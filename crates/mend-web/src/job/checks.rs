//! What was found of a job's lands, pins and tests.

use mend_core::board::Joint;
use mend_core::inspection::condition::Condition;
use mend_core::inspection::fault::SeenPin;
use mend_core::inspection::functional_test::{TestResult, TestVerdict, TriedTest, judged, usual_tests};
use mend_core::inspection::insulation::{Insulation, Neighbours, neighbours};
use mend_core::inspection::rework::{ReworkLoops, rework_loops};
use mend_core::inspection::sheet::{DiodeReading, PinReference, SheetPhase};
use mend_core::shop::Stop;
use mend_store::CheckRow;

use super::{Job, WENT_BACK};

/// Lists of entries besides those of the sheet's phases.
pub(crate) const CONDITION: &str = "condition";
/// The same lands once the part is off, pins side by side, what stands near after the heat, and what was measured of it.
pub(crate) const CONDITION_AFTER: &str = "condition-after";
pub(crate) const BETWEEN: &str = "between";
pub(crate) const COMPONENTS: &str = "components";
pub(crate) const VALUES: &str = "values";
pub(crate) const TEST_OPEN: &str = "test-open";
pub(crate) const TEST_CLOSED: &str = "test-closed";
pub(crate) const SKIPPED: &str = "skipped";

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

    /// In what state a joint's land is: as it was found with the part off, else before.
    pub(crate) fn condition(&self, joint: &str) -> Option<Condition> {
        self.condition_in(CONDITION_AFTER, joint).or_else(|| self.condition_in(CONDITION, joint))
    }

    /// In what state it was found in one of the two lists.
    pub(crate) fn condition_in(&self, list: &str, joint: &str) -> Option<Condition> {
        Condition::named(self.check(list, joint)?)
    }

    /// Pins side by side, with what a meter found between them.
    pub(crate) fn insulation(&self) -> Vec<(Neighbours, Option<Insulation>)> {
        let pairs = self.board.iter().flat_map(|(_, board)| neighbours(&board.connector));
        let found = |pair: &Neighbours| Insulation::named(self.check(BETWEEN, &pair.left)?);
        pairs.map(|pair| (pair.clone(), found(&pair))).collect()
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
        self.not_whole(|joint| self.condition(joint))
    }

    /// The same as one of the two lists has it.
    pub(crate) fn broken_in(&self, list: &str) -> Vec<(&Joint, Condition)> {
        self.not_whole(|joint| self.condition_in(list, joint))
    }

    fn not_whole(&self, of: impl Fn(&str) -> Option<Condition>) -> Vec<(&Joint, Condition)> {
        let state = |joint: &Joint| of(&joint.name).filter(|state| *state != Condition::Whole);
        self.joints().filter_map(|joint| Some((joint, state(joint)?))).collect()
    }

    /// Has every land been looked at, or every pin been read, or was that skipped?
    pub(crate) fn is_looked_at(&self) -> bool {
        let seen = |joint: &Joint| self.condition_in(CONDITION, &joint.name).is_some();
        let read = |joint: &Joint| !joint.is_pin() || self.reading(SheetPhase::Before, &joint.name).is_some();
        let all = self.board.is_some() && (self.joints().all(seen) || self.joints().all(read));
        all || self.has_skipped(Stop::Look)
    }

    /// The functional tests with what they showed.
    pub(crate) fn tests(&self) -> Vec<TriedTest> {
        let of = |list: &str, name: &str| TestResult::named(self.check(list, name)?);
        let Some((_, board)) = &self.board else { return Vec::new() };
        let usual = || usual_tests(board.connector.family).iter().map(|name| (*name).to_owned()).collect();
        let listed = &board.connector.tests;
        let names = if listed.is_empty() { usual() } else { listed.clone() };
        let tried = |name: String| TriedTest { open: of(TEST_OPEN, &name), closed: of(TEST_CLOSED, &name), name };
        names.into_iter().map(tried).collect()
    }

    /// Has all been tried open, and works, or was that skipped?
    pub(crate) fn is_tested(&self) -> bool {
        let works = matches!(judged(&self.tests()), TestVerdict::Passed | TestVerdict::TryClosed { .. });
        self.has_skipped(Stop::Test) || works
    }

    /// Is all back in, and works when closed, or was that skipped? What was not to be tested has only to be back in.
    pub(crate) fn is_shut(&self) -> bool {
        let works = !self.tests_closed() || judged(&self.tests()) == TestVerdict::Passed;
        self.has_skipped(Stop::Close) || works && self.missing() == 0
    }

    /// How often it went back after a test, and for how long.
    pub(crate) fn reworked(&self, now_ms: i64) -> ReworkLoops {
        let backs: Vec<i64> = self.log.iter().filter(|row| row.what == WENT_BACK).map(|row| row.at_ms).collect();
        let tried = self.checks.iter().filter(|row| [TEST_OPEN, TEST_CLOSED].contains(&row.list.as_str()));
        rework_loops(&backs, &tried.map(|row| row.entered_ms).collect::<Vec<_>>(), now_ms)
    }

    /// Is it tried once more when it is closed?
    pub(crate) fn tests_closed(&self) -> bool {
        self.kind().fits() && !self.has_skipped(Stop::Test)
    }

    /// How much came out and is not back.
    pub(crate) fn missing(&self) -> usize {
        self.opening.as_ref().map_or(0, |opening| opening.tally().missing.len())
    }
}
