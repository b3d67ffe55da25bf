//! Moves, and the stock that is their sum.

use serde::{Deserialize, Serialize};

/// What happened to some of an item. Quantities are in the item's own unit.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum MoveKind {
    /// Ordered from the supplier.
    Ordered,
    /// No longer on its way: it came, or the order was cancelled.
    OffOrder,
    /// Came in, ordered or not.
    Received,
    /// Came off a donor.
    Harvested,
    /// Promised to a job.
    Reserved,
    /// Not promised to it any more. What is used is released first.
    Released,
    /// Used up by a job.
    Used,
    /// Went back to the supplier.
    Returned,
    /// Thrown away.
    Scrapped,
    /// The shelf was counted: the difference, up or down.
    Counted,
}

impl MoveKind {
    /// All of them.
    pub const ALL: [Self; 10] = [
        Self::Ordered,
        Self::OffOrder,
        Self::Received,
        Self::Harvested,
        Self::Reserved,
        Self::Released,
        Self::Used,
        Self::Returned,
        Self::Scrapped,
        Self::Counted,
    ];

    /// Its key, as it is stored.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Ordered => "ordered",
            Self::OffOrder => "off-order",
            Self::Received => "received",
            Self::Harvested => "harvested",
            Self::Reserved => "reserved",
            Self::Released => "released",
            Self::Used => "used",
            Self::Returned => "returned",
            Self::Scrapped => "scrapped",
            Self::Counted => "counted",
        }
    }

    /// The kind of a key.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.key() == key)
    }
}

/// What there is of an item.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct StockLevel {
    /// On the shelf.
    pub on_hand: f64,
    /// Of that, promised to jobs.
    pub reserved: f64,
    /// On its way.
    pub on_order: f64,
}

impl StockLevel {
    /// The level after moves, in whatever order: each adds or takes, so the sum of a kind does for all of that kind.
    ///
    /// ```
    /// use mend_core::shop::stock::{MoveKind, StockLevel};
    /// let came = [(MoveKind::Received, 3.0), (MoveKind::OffOrder, 3.0)];
    /// let level = StockLevel::after([(MoveKind::Ordered, 5.0), (MoveKind::Reserved, 1.0)].into_iter().chain(came));
    /// assert_eq!((level.on_hand, level.reserved, level.on_order), (3.0, 1.0, 2.0));
    /// assert_eq!(level.free(), 2.0);
    /// ```
    pub fn after(moves: impl IntoIterator<Item = (MoveKind, f64)>) -> Self {
        let mut level = Self::default();
        for (kind, quantity) in moves {
            match kind {
                MoveKind::Ordered => level.on_order += quantity,
                MoveKind::OffOrder => level.on_order -= quantity,
                MoveKind::Received | MoveKind::Harvested | MoveKind::Counted => level.on_hand += quantity,
                MoveKind::Reserved => level.reserved += quantity,
                MoveKind::Released => level.reserved -= quantity,
                MoveKind::Used | MoveKind::Returned | MoveKind::Scrapped => level.on_hand -= quantity,
            }
        }
        level
    }

    /// On the shelf and nobody's.
    pub fn free(&self) -> f64 {
        self.on_hand - self.reserved
    }

    /// May so much of it be promised to a job, or leave the shelf otherwise?
    pub fn spares(&self, quantity: f64) -> bool {
        // A thousandth of a unit is lost in adding.
        quantity > 0.0 && quantity <= self.free() + 1e-3
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn a_key_names_one_kind() {
        assert!(MoveKind::ALL.into_iter().all(|kind| MoveKind::from_key(kind.key()) == Some(kind)));
    }

    #[test]
    fn the_last_one_is_promised_once() {
        let one = StockLevel::after([(MoveKind::Received, 1.0)]);
        let promised = StockLevel::after([(MoveKind::Received, 1.0), (MoveKind::Reserved, 1.0)]);
        assert!(one.spares(1.0) && !promised.spares(1.0) && !one.spares(0.0) && !one.spares(-1.0));
    }

    proptest! {
        /// Whatever is promised, released and used within what is there, the shelf never owes anything.
        #[test]
        fn within_what_is_free_nothing_is_owed(acts in prop::collection::vec((0_u8..4, 1_u8..4), 0..60)) {
            let (mut moves, mut promised) = (Vec::new(), 0.0);
            for (act, quantity) in acts {
                let quantity = f64::from(quantity);
                let level = StockLevel::after(moves.iter().copied());
                match act {
                    0 => moves.push((MoveKind::Received, quantity)),
                    1 if level.spares(quantity) => {
                        moves.push((MoveKind::Reserved, quantity));
                        promised += quantity;
                    }
                    2 if promised >= quantity => {
                        moves.extend([(MoveKind::Released, quantity), (MoveKind::Used, quantity)]);
                        promised -= quantity;
                    }
                    3 if level.spares(quantity) => moves.push((MoveKind::Scrapped, quantity)),
                    _ => {}
                }
                let level = StockLevel::after(moves.iter().copied());
                prop_assert!(level.free() >= 0.0 && level.reserved == promised && level.on_order == 0.0);
            }
        }
    }
}
