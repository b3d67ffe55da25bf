//! What an import has to say: what it took for what, and what it left out. Nothing is guessed silently.

use std::collections::BTreeMap;

use crate::reading::shown;

/// Counted by what it is.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct ImportNotes {
    /// What was not understood or not needed, by name.
    pub left_out: BTreeMap<String, usize>,
    /// What was taken for something that the file does not say, in words.
    pub taken: BTreeMap<String, usize>,
}

/// More names than this tell nobody anything.
const MOST_NAMES: usize = 60;

impl ImportNotes {
    pub(crate) fn leave_out(&mut self, what: &str) {
        count(&mut self.left_out, what);
    }
    pub(crate) fn take(&mut self, what: &str) {
        count(&mut self.taken, what);
    }
    /// Both together.
    pub fn and(mut self, other: &Self) -> Self {
        for (into, from) in [(&mut self.left_out, &other.left_out), (&mut self.taken, &other.taken)] {
            from.iter().for_each(|(what, times)| *into.entry(what.clone()).or_default() += times);
        }
        self
    }
}

fn count(names: &mut BTreeMap<String, usize>, what: &str) {
    let what = shown(what, 80);
    let what = if names.len() >= MOST_NAMES && !names.contains_key(&what) { "others".to_owned() } else { what };
    *names.entry(what).or_default() += 1;
}
