//! Screws of like head and thread, and of different length: a long one in a short hole goes through the board.

use super::item::ItemKind;
use super::map::OpeningMap;

/// Lengths nearer than this are one, mm.
const SAME_MM: f64 = 0.25;

/// The screws of a map that have a twin of another length, by number.
///
/// ```
/// use mend_core::opening::item::{ItemKind, ScrewHead};
/// use mend_core::opening::look_alike::look_alikes;
/// use mend_core::opening::map::{MapEdit, OpeningMap};
/// let screw = |length_mm| MapEdit::Add {
///     page: 0,
///     at: [0.5, 0.5],
///     what: ItemKind::Screw { head: ScrewHead::Cross, length_mm, thread_mm: 2.0, colour: String::new() },
///     note: String::new(),
/// };
/// let map = [4.0, 4.0, 6.5].iter().fold(OpeningMap::empty(), |map, mm| map.edited(&screw(*mm)).expect("there is room"));
/// assert_eq!(look_alikes(&map), [1, 2, 3]);
/// ```
pub fn look_alikes(map: &OpeningMap) -> Vec<u32> {
    let screw = |what: &ItemKind| match what {
        ItemKind::Screw { head, length_mm, thread_mm, colour } => {
            Some((*head, (thread_mm * 10.0).round() as i64, colour.clone(), *length_mm))
        }
        _ => None,
    };
    let twin = |what: &ItemKind| {
        let Some((head, thread, colour, length)) = screw(what) else { return false };
        map.items
            .iter()
            .filter_map(|other| screw(&other.what))
            .any(|other| (other.0, other.1, &other.2) == (head, thread, &colour) && (other.3 - length).abs() > SAME_MM)
    };
    map.items.iter().filter(|item| twin(&item.what)).map(|item| item.id).collect()
}

#[cfg(test)]
mod tests {
    use super::super::item::ScrewHead;
    use super::super::map::MapEdit;
    use super::*;

    #[test]
    fn screws_that_can_be_told_apart_are_no_look_alikes() {
        let add = |head, length_mm, colour: &str| MapEdit::Add {
            page: 0,
            at: [0.1, 0.1],
            what: ItemKind::Screw { head, length_mm, thread_mm: 2.0, colour: colour.to_owned() },
            note: String::new(),
        };
        let all = [add(ScrewHead::Cross, 4.0, ""), add(ScrewHead::Hex, 6.0, ""), add(ScrewHead::Cross, 6.0, "black")];
        let map = all.iter().fold(OpeningMap::empty(), |map, edit| map.edited(edit).expect("there is room"));
        assert!(look_alikes(&map).is_empty());
        let swapped = map.edited(&add(ScrewHead::Cross, 4.1, "")).expect("there is room");
        assert!(look_alikes(&swapped).is_empty(), "a tenth of a millimetre is how it was measured");
    }
}
