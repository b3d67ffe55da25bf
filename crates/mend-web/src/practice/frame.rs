//! What a screen is sent ten times a second: the cues that changed since what it was sent last. A screen that is slow misses some,
//! and the next holds all that changed meanwhile.

use mend_core::heat::shield::Shield;

/// How a frame begins: everything, or what changed.
const WHOLE: u8 = 0;
const CHANGED: u8 = 1;

/// An attempt at a step, as a screen may be sent it.
#[derive(Debug, Clone, Default, PartialEq)]
pub(crate) struct CuesAt {
    pub(crate) tick: u32,
    /// The last move that is kept: the browser may forget it.
    pub(crate) kept: u32,
    pub(crate) cues: Vec<u8>,
    /// What is laid on: it is told apart, and before the cues that count with it.
    pub(crate) laid: Vec<Shield>,
}

impl CuesAt {
    /// The frame after another; whole where there was none. A byte that says which, the step and the move, 4 bytes each, the least
    /// first; then all cues, or for each that changed its place, 2 bytes, and itself.
    pub(crate) fn frame(&self, before: Option<&Self>) -> Vec<u8> {
        let before = before.filter(|before| before.cues.len() == self.cues.len());
        let mut frame = vec![if before.is_some() { CHANGED } else { WHOLE }];
        frame.extend(self.tick.to_le_bytes());
        frame.extend(self.kept.to_le_bytes());
        match before {
            None => frame.extend(&self.cues),
            Some(before) => {
                let changed = self.cues.iter().zip(&before.cues).enumerate().filter(|(_, (now, was))| now != was);
                for (place, (now, _)) in changed {
                    frame.extend(u16::try_from(place).unwrap_or(u16::MAX).to_le_bytes());
                    frame.push(*now);
                }
            }
        }
        frame
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_frame_holds_what_changed_and_is_small() {
        let at = |tick: u32, cues: Vec<u8>| CuesAt { tick, kept: 7, cues, laid: Vec::new() };
        let first = at(1, vec![0, 0, 3]);
        assert_eq!(first.frame(None), [0, 1, 0, 0, 0, 7, 0, 0, 0, 0, 0, 3]);
        assert_eq!(at(300, vec![0, 2, 3]).frame(Some(&first)), [1, 44, 1, 0, 0, 7, 0, 0, 0, 1, 0, 2]);
        let all = at(2, vec![9; 1900]);
        assert!(all.frame(Some(&at(1, vec![0; 1900]))).len() < 6000, "every cue of a large board at once");
    }
}
