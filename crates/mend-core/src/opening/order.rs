//! The cell first: while it is connected no other connector is opened, and it is connected again last.

use super::item::{Hazard, ItemKind};
use super::map::OpeningMap;
use super::taps::{ItemState, Taps};

/// What is wrong with the order of a map.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum OrderProblem {
    /// There is a cell on it, and nobody has said which cable is the cell's.
    NoCellCable,
    /// These cables come out before the cell's.
    BeforeCell(Vec<u32>),
}

fn has_cell(map: &OpeningMap) -> bool {
    map.items.iter().any(|item| item.what == ItemKind::Hazard { of: Hazard::Cell })
}

fn is_cell_cable(map: &OpeningMap, id: u32) -> bool {
    map.item(id).is_some_and(|item| matches!(item.what, ItemKind::Cable { of_cell: true, .. }))
}

/// What is wrong with a map's order; none where it may be followed.
///
/// ```
/// use mend_core::opening::item::{Hazard, ItemKind, Latch};
/// use mend_core::opening::map::{MapEdit, OpeningMap};
/// use mend_core::opening::order::{OrderProblem, order_problem};
/// let add = |what| MapEdit::Add { page: 0, at: [0.5, 0.5], what, note: String::new() };
/// let cell = add(ItemKind::Hazard { of: Hazard::Cell });
/// let map = OpeningMap::empty().edited(&cell).expect("there is room");
/// assert_eq!(order_problem(&map), Some(OrderProblem::NoCellCable));
/// let cable = add(ItemKind::Cable { latch: Latch::PushFit, of_cell: true });
/// assert_eq!(order_problem(&map.edited(&cable).expect("there is room")), None);
/// ```
pub fn order_problem(map: &OpeningMap) -> Option<OrderProblem> {
    let Some(cell) = map.items.iter().rposition(|item| is_cell_cable(map, item.id)) else {
        return has_cell(map).then_some(OrderProblem::NoCellCable);
    };
    let before = map.items[..cell].iter().filter(|item| item.what.waits_for_cell());
    let before: Vec<u32> = before.map(|item| item.id).collect();
    (!before.is_empty()).then_some(OrderProblem::BeforeCell(before))
}

/// May a thing be taken out now? A connector may not while a cell is connected: its cable's number. A device may have two of them.
pub fn waits_for(map: &OpeningMap, taps: &Taps, id: u32) -> Option<u32> {
    let waits = map.item(id).is_some_and(|item| item.what.waits_for_cell());
    let connected = |id: u32| is_cell_cable(map, id) && taps.state(id) != ItemState::Out;
    map.items.iter().map(|item| item.id).find(|id| waits && connected(*id))
}

/// May a thing be put back now? The cell may not while another connector is open: those that are.
pub fn comes_before(map: &OpeningMap, taps: &Taps, id: u32) -> Vec<u32> {
    if !is_cell_cable(map, id) {
        return Vec::new();
    }
    let open = map.items.iter().filter(|item| item.what.waits_for_cell() && taps.state(item.id) == ItemState::Out);
    open.map(|item| item.id).collect()
}

#[cfg(test)]
mod tests {
    use super::super::item::{ItemKind, Latch};
    use super::super::map::MapEdit;
    use super::super::taps::OpeningTap;
    use super::*;

    /// A cable, then the cell's.
    fn map() -> OpeningMap {
        let cable = |of_cell| ItemKind::Cable { latch: Latch::FlipUp, of_cell };
        [cable(false), cable(true), ItemKind::Clip].into_iter().fold(OpeningMap::empty(), |map, what| {
            map.edited(&MapEdit::Add { page: 0, at: [0.5, 0.5], what, note: String::new() }).expect("there is room")
        })
    }

    #[test]
    fn an_order_in_which_the_cell_is_not_the_first_cable_is_refused() {
        assert_eq!(order_problem(&map()), Some(OrderProblem::BeforeCell(vec![1])));
        let mended = map().edited(&MapEdit::Move { id: 2, before: Some(1) }).expect("both are there");
        assert_eq!(order_problem(&mended), None);
    }

    #[test]
    fn a_connector_waits_for_the_cell_going_and_the_cell_for_all_connectors_coming_back() {
        let (map, closed) = (map(), Taps::default());
        assert_eq!((waits_for(&map, &closed, 1), waits_for(&map, &closed, 3)), (Some(2), None), "a clip does not wait");
        let open = Taps::after(&[OpeningTap::Out(2), OpeningTap::Out(1)]);
        assert_eq!(waits_for(&map, &open, 1), None);
        assert_eq!(comes_before(&map, &open, 2), [1]);
        assert!(
            comes_before(&map, &Taps::after(&[OpeningTap::Out(2), OpeningTap::Out(1), OpeningTap::Back(1)]), 2)
                .is_empty()
        );
    }

    #[test]
    fn every_cell_is_open_before_a_connector_is_also_when_it_is_opened_again() {
        let cable = |of_cell| ItemKind::Cable { latch: Latch::FlipUp, of_cell };
        let add = |map: OpeningMap, what| {
            map.edited(&MapEdit::Add { page: 0, at: [0.5, 0.5], what, note: String::new() }).expect("there is room")
        };
        let map = [cable(true), cable(true), cable(false)].into_iter().fold(OpeningMap::empty(), add);
        assert_eq!((waits_for(&map, &Taps::after(&[OpeningTap::Out(1)]), 3), order_problem(&map)), (Some(2), None));
        let closed = [OpeningTap::Out(1), OpeningTap::Out(2), OpeningTap::Back(2), OpeningTap::Back(1)];
        assert_eq!(waits_for(&map, &Taps::after(&closed), 3), Some(1), "it is connected again");
    }
}
