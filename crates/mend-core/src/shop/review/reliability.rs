//! What plans promised, and what came of it.

use super::interval::Share;
use super::outcome::JobOutcome;

/// Of jobs whose plan gave a chance between two figures, how many came through without damage.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reliability {
    /// The mean of the chances that were given.
    pub stated: f64,
    /// What came of them.
    pub came: Share,
}

/// Ends of the classes of stated chances.
const CHANCES: [f64; 5] = [0.5, 0.8, 0.9, 0.97, 1.0];

/// Chances that plans gave, in classes, and what came of them.
pub(super) fn reliability(outcomes: &[JobOutcome]) -> Vec<Reliability> {
    let mut classes = [(0.0, 0, 0); CHANCES.len()];
    for outcome in outcomes.iter().filter(|outcome| !outcome.declined) {
        let Some(chance) = outcome.chance else { continue };
        let Some(class) = CHANCES.iter().position(|high| chance <= *high) else { continue };
        let (sum, whole, n) = &mut classes[class];
        (*sum, *whole, *n) = (*sum + chance, *whole + usize::from(outcome.damaged.is_empty()), *n + 1);
    }
    let told = classes.into_iter().filter(|(.., n)| *n > 0);
    told.map(|(sum, whole, n)| Reliability { stated: sum / n as f64, came: Share::new(whole, n) }).collect()
}
