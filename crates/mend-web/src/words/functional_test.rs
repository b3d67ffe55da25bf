//! What the functional tests come to, in words.

use mend_core::inspection::functional_test::TestVerdict;

/// In a heading.
pub fn test_verdict(of: &TestVerdict) -> String {
    match of {
        TestVerdict::TryOpen { left: 1 } => "One to try, as little closed up as possible".to_owned(),
        TestVerdict::TryOpen { left } => format!("{left} to try, as little closed up as possible"),
        TestVerdict::TryClosed { left: 1 } => "Close it, and try it once more".to_owned(),
        TestVerdict::TryClosed { left } => format!("Close it, and try {left} once more"),
        TestVerdict::GoBack { tests } => format!("{}: it fails", tests.join(", ")),
        TestVerdict::Passed => "All works, open and closed".to_owned(),
    }
}
