//! The functional test: what the port is for, tried with as little closed up as possible, and once more when all is closed.

use crate::board::ConnectorFamily;

/// What a test showed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TestResult {
    /// As it should.
    Works,
    /// It does not.
    Fails,
    /// It can't be tried here: no such cable, no such card.
    NotPossible,
}

impl TestResult {
    /// All of them, as on the key line.
    pub const ALL: [Self; 3] = [Self::Works, Self::Fails, Self::NotPossible];

    /// As it is stored and said.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Works => "works",
            Self::Fails => "fails",
            Self::NotPossible => "not possible",
        }
    }

    /// Read back.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|result| result.name() == name)
    }
}

/// A test, with the device open and closed.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct TriedTest {
    /// Its name.
    pub name: String,
    /// Open.
    pub open: Option<TestResult>,
    /// Closed.
    pub closed: Option<TestResult>,
}

/// What a connector of a kind is tried for, where its board names nothing of its own.
///
/// ```
/// use mend_core::board::ConnectorFamily;
/// use mend_core::inspection::functional_test::usual_tests;
/// assert!(usual_tests(ConnectorFamily::Port).contains(&"charges with the plug either way up"));
/// ```
pub const fn usual_tests(family: ConnectorFamily) -> &'static [&'static str] {
    match family {
        ConnectorFamily::Port => &[
            "the plug latches and does not rock",
            "charges with the plug either way up",
            "data at full speed, either way up",
            "picture at full resolution, where it carries one",
        ],
        ConnectorFamily::Flex | ConnectorFamily::FlexTail => &[
            "the latch closes and holds",
            "every key, light and line on this cable works",
            "no fault while it is flexed",
        ],
        ConnectorFamily::BoardToBoard => &["it clicks in and lies level", "everything behind it works"],
        ConnectorFamily::Jack => {
            &["the plug seats with its click", "both channels or the link", "no crackle while it is turned"]
        }
        ConnectorFamily::Power => {
            &["the plug seats firm", "voltage at the fuse", "charges under load", "nothing warms in five minutes"]
        }
    }
}

/// What all of them come to.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum TestVerdict {
    /// So many are left with the device open.
    TryOpen {
        /// How many.
        left: usize,
    },
    /// Nothing fails: it may be closed, and so many are left then.
    TryClosed {
        /// How many.
        left: usize,
    },
    /// These fail: back to a stage that mends it, whatever is left.
    GoBack {
        /// Which.
        tests: Vec<String>,
    },
    /// All was tried, and nothing fails.
    Passed,
}

/// The verdict. What fails is said at once; nothing is closed over a fault.
///
/// ```
/// use mend_core::inspection::functional_test::{TestResult::Works, TestVerdict, TriedTest, judged};
/// let picture = TriedTest { name: "picture".to_owned(), open: Some(Works), closed: None };
/// assert_eq!(judged(&[picture]), TestVerdict::TryClosed { left: 1 });
/// ```
pub fn judged(tests: &[TriedTest]) -> TestVerdict {
    // A job without a board has no tests yet, and has passed none.
    if tests.is_empty() {
        return TestVerdict::TryOpen { left: 0 };
    }
    let failed = |test: &&TriedTest| [test.open, test.closed].contains(&Some(TestResult::Fails));
    let failed: Vec<String> = tests.iter().filter(failed).map(|test| test.name.clone()).collect();
    if !failed.is_empty() {
        return TestVerdict::GoBack { tests: failed };
    }
    let left = |of: fn(&TriedTest) -> Option<TestResult>| tests.iter().filter(|test| of(test).is_none()).count();
    match (left(|test| test.open), left(|test| test.closed)) {
        (0, 0) => TestVerdict::Passed,
        (0, left) => TestVerdict::TryClosed { left },
        (left, _) => TestVerdict::TryOpen { left },
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn tried(open: Option<TestResult>, closed: Option<TestResult>) -> TriedTest {
        TriedTest { name: "picture".to_owned(), open, closed }
    }

    #[test]
    fn it_is_tried_open_then_closed_and_then_it_has_passed() {
        use TestResult::{NotPossible, Works};
        assert_eq!(judged(&[tried(None, None), tried(Some(Works), None)]), TestVerdict::TryOpen { left: 1 });
        assert_eq!(judged(&[tried(Some(NotPossible), None)]), TestVerdict::TryClosed { left: 1 });
        assert_eq!(judged(&[tried(Some(Works), Some(Works))]), TestVerdict::Passed);
        assert_eq!(judged(&[]), TestVerdict::TryOpen { left: 0 }, "nothing was tried");
    }

    #[test]
    fn what_fails_is_said_before_all_is_tried() {
        let fails = Some(TestResult::Fails);
        let back = TestVerdict::GoBack { tests: vec!["picture".to_owned()] };
        assert_eq!(judged(&[tried(fails, None), tried(None, None)]), back);
        assert_eq!(judged(&[tried(Some(TestResult::Works), fails)]), back, "it was hurt by closing");
    }
}
