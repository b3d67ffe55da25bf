//! Counted out and in: how many of each kind are out, and what is missing when it is to be closed.

use super::item::{ItemKind, ScrewHead};
use super::map::OpeningMap;
use super::taps::{ItemState, Taps};

/// Things that are counted together.
#[derive(Debug, Clone, PartialEq)]
pub enum Heap {
    /// Screws of a head, a length and a colour; mm.
    Screws { head: ScrewHead, length_mm: f64, thread_mm: f64, colour: String },
    /// Cables.
    Cables,
    /// Everything else that comes out.
    Other,
}

impl Heap {
    fn of(what: &ItemKind) -> Option<Self> {
        match what {
            ItemKind::Screw { head, length_mm, thread_mm, colour } => {
                let (head, length_mm, thread_mm) = (*head, *length_mm, *thread_mm);
                Some(Self::Screws { head, length_mm, thread_mm, colour: colour.clone() })
            }
            ItemKind::Cable { .. } => Some(Self::Cables),
            ItemKind::Hazard { .. } => None,
            _ => Some(Self::Other),
        }
    }
}

/// A heap counted.
#[derive(Debug, Clone, PartialEq)]
pub struct Count {
    /// What.
    pub heap: Heap,
    /// How many there are on the map.
    pub of: usize,
    /// How many have been taken out, put back or not.
    pub out: usize,
    /// How many of these are back.
    pub back: usize,
}

/// All of a map counted.
#[derive(Debug, Clone, PartialEq)]
pub struct OpeningTally {
    /// Each heap, screws first, in the order of the map.
    pub counts: Vec<Count>,
    /// What is out and not back, by number, the last that came out first: it goes back first.
    pub missing: Vec<u32>,
    /// The next that comes out.
    pub next: Option<u32>,
}

impl OpeningTally {
    /// Is everything that came out back?
    pub fn is_whole(&self) -> bool {
        self.missing.is_empty()
    }
}

/// Counts a map.
///
/// ```
/// use mend_core::opening::{item::ItemKind, map::{MapEdit, OpeningMap}, tally::tally, taps::{OpeningTap, Taps}};
/// let clip = MapEdit::Add { page: 0, at: [0.5, 0.5], what: ItemKind::Clip, note: String::new() };
/// let map = OpeningMap::empty().edited(&clip).and_then(|map| map.edited(&clip)).expect("there is room");
/// let found = tally(&map, &Taps::after(&[OpeningTap::Out(1)]));
/// assert_eq!((found.counts[0].out, found.counts[0].of, found.next), (1, 2, Some(2)));
/// assert_eq!(found.missing, [1]);
/// ```
pub fn tally(map: &OpeningMap, taps: &Taps) -> OpeningTally {
    let mut counts: Vec<Count> = Vec::new();
    for item in &map.items {
        let Some(heap) = Heap::of(&item.what) else { continue };
        let state = taps.state(item.id);
        let (out, back) = (usize::from(state != ItemState::In), usize::from(state == ItemState::Back));
        match counts.iter_mut().find(|count| count.heap == heap) {
            Some(count) => (count.of, count.out, count.back) = (count.of + 1, count.out + out, count.back + back),
            None => counts.push(Count { heap, of: 1, out, back }),
        }
    }
    let rank = |count: &Count| match count.heap {
        Heap::Screws { .. } => 0,
        Heap::Cables => 1,
        Heap::Other => 2,
    };
    counts.sort_by_key(rank);
    let out = map.items.iter().filter(|item| item.what.comes_out());
    let missing = out.clone().rev().filter(|item| taps.state(item.id) == ItemState::Out).map(|item| item.id).collect();
    let next = out.clone().find(|item| taps.state(item.id) == ItemState::In).map(|item| item.id);
    OpeningTally { counts, missing, next }
}

#[cfg(test)]
mod tests {
    use super::super::map::MapEdit;
    use super::super::taps::OpeningTap;
    use super::*;

    #[test]
    fn screws_of_a_kind_are_one_heap_and_a_hazard_is_none() {
        let screw =
            |length_mm| ItemKind::Screw { head: ScrewHead::Cross, length_mm, thread_mm: 2.0, colour: String::new() };
        let hazard = ItemKind::Hazard { of: super::super::item::Hazard::Glass };
        let all = [ItemKind::Clip, screw(4.0), hazard, screw(6.0), screw(4.0)];
        let map = all.into_iter().fold(OpeningMap::empty(), |map, what| {
            map.edited(&MapEdit::Add { page: 0, at: [0.5, 0.5], what, note: String::new() }).expect("there is room")
        });
        let taps = Taps::after(&[OpeningTap::Out(2), OpeningTap::Out(5), OpeningTap::Back(5)]);
        let found = tally(&map, &taps);
        assert_eq!(
            found.counts.iter().map(|count| (count.of, count.out, count.back)).collect::<Vec<_>>(),
            [(2, 2, 1), (1, 0, 0), (1, 0, 0)]
        );
        assert_eq!((found.missing.as_slice(), found.next, found.is_whole()), (&[2][..], Some(1), false));
    }
}
