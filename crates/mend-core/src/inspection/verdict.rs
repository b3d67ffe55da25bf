//! From marks to a verdict and the step that mends it (job.md, section 11).

use super::pin::PinMark;

/// Up to this share of loose pins is "a few": touch them one by one. Above it, the whole row again (E).
const FEW_SHARE: f64 = 0.2;
/// And never fewer than this many.
const FEW_LEAST: usize = 2;

/// A pin and what it showed, if it has been walked.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Walked {
    /// Its name.
    pub name: String,
    /// Under the body?
    pub hidden: bool,
    /// What it showed.
    pub mark: Option<PinMark>,
}

/// What follows.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Verdict {
    /// Pins are left to walk.
    Unfinished {
        /// How many.
        left: usize,
    },
    /// Every pin firm.
    Sound,
    /// A few to mend with the iron.
    TouchUp {
        /// Which.
        pins: Vec<String>,
    },
    /// Many: flux and air again, pressing.
    Reflow {
        /// How many.
        count: usize,
    },
    /// A hidden pin open, or one missing: the part comes off again.
    StartOver {
        /// Why.
        pins: Vec<String>,
    },
}

impl Verdict {
    /// May the job go on to handover?
    pub fn is_sound(&self) -> bool {
        *self == Self::Sound
    }
}

/// The verdict over all pins. What needs the part off is said at once, even before the walk is finished.
///
/// ```
/// use mend_core::inspection::{PinMark, Verdict, Walked, verdict};
/// let pin = |name: &str, mark| Walked { name: name.to_owned(), hidden: false, mark: Some(mark) };
/// let walk = [pin("A1", PinMark::Firm), pin("A2", PinMark::Moves)];
/// assert_eq!(verdict(&walk), Verdict::TouchUp { pins: vec!["A2".to_owned()] });
/// ```
pub fn verdict(pins: &[Walked]) -> Verdict {
    let open = |mark| matches!(mark, Some(PinMark::Moves | PinMark::Starved));
    let lost = pins.iter().filter(|p| p.mark == Some(PinMark::Missing) || (p.hidden && open(p.mark)));
    let lost: Vec<String> = lost.map(|p| p.name.clone()).collect();
    if !lost.is_empty() {
        return Verdict::StartOver { pins: lost };
    }
    let left = pins.iter().filter(|p| p.mark.is_none()).count();
    if left > 0 {
        return Verdict::Unfinished { left };
    }
    let bad: Vec<String> = pins.iter().filter(|p| p.mark != Some(PinMark::Firm)).map(|p| p.name.clone()).collect();
    let few = ((pins.len() as f64 * FEW_SHARE) as usize).max(FEW_LEAST);
    match bad.len() {
        0 => Verdict::Sound,
        n if n <= few => Verdict::TouchUp { pins: bad },
        n => Verdict::Reflow { count: n },
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn row(marks: &[(PinMark, usize)], hidden: bool) -> Vec<Walked> {
        let all = marks.iter().flat_map(|(mark, n)| std::iter::repeat_n(*mark, *n));
        all.enumerate().map(|(k, mark)| Walked { name: format!("A{}", k + 1), hidden, mark: Some(mark) }).collect()
    }

    #[test]
    fn none_few_and_many_loose_are_three_things() {
        assert_eq!(verdict(&row(&[(PinMark::Firm, 12)], false)), Verdict::Sound);
        let few = verdict(&row(&[(PinMark::Moves, 1), (PinMark::Bridged, 1), (PinMark::Firm, 10)], false));
        assert_eq!(few, Verdict::TouchUp { pins: vec!["A1".to_owned(), "A2".to_owned()] });
        assert_eq!(verdict(&row(&[(PinMark::Moves, 5), (PinMark::Firm, 7)], false)), Verdict::Reflow { count: 5 });
    }

    #[test]
    fn an_open_hidden_pin_means_starting_over() {
        let pins = row(&[(PinMark::Firm, 11), (PinMark::Starved, 1)], true);
        assert_eq!(verdict(&pins), Verdict::StartOver { pins: vec!["A12".to_owned()] });
        let bridged = row(&[(PinMark::Firm, 11), (PinMark::Bridged, 1)], true);
        assert!(matches!(verdict(&bridged), Verdict::TouchUp { .. }), "a bridge can be drawn out from under the body");
    }

    #[test]
    fn a_walk_is_unfinished_until_the_last_pin() {
        let mut pins = row(&[(PinMark::Firm, 4)], false);
        pins[2].mark = None;
        assert_eq!(verdict(&pins), Verdict::Unfinished { left: 1 });
    }
}
