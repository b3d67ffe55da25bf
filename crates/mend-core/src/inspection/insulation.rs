//! Insulation between neighbours: what lies side by side and is not one net must be apart.

use crate::board::{Connector, Joint, Role, row_names};

/// Two pins side by side in a row.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Neighbours {
    /// The left one: the pair goes by its name.
    pub left: String,
    /// The right one.
    pub right: String,
    /// Both are ground, or both supply: the board may join them by itself.
    pub may_be_joined: bool,
}

/// What a meter found between two.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Insulation {
    /// Nothing flows.
    Apart,
    /// It does.
    Joined,
}

impl Insulation {
    /// Both, as on the key line.
    pub const ALL: [Self; 2] = [Self::Apart, Self::Joined];

    /// As it is stored and said.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Apart => "apart",
            Self::Joined => "joined",
        }
    }

    /// Read back.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|found| found.name() == name)
    }
}

/// Every pair of a connector, row by row, from the left.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::inspection::insulation::neighbours;
/// let connector = Bench::try_new().expect("the example").board.connector;
/// let rows = 2;
/// assert_eq!(neighbours(&connector).len(), connector.joints.iter().filter(|joint| joint.is_pin()).count() - rows);
/// ```
pub fn neighbours(connector: &Connector) -> Vec<Neighbours> {
    let pins = || connector.joints.iter().filter(|joint| joint.is_pin());
    let of_row = |row: &str| {
        let mut pins: Vec<&Joint> = pins().filter(|joint| joint.row == row).collect();
        pins.sort_by(|a, b| a.at.x.total_cmp(&b.at.x));
        pins.windows(2).map(|pair| Neighbours::from_pair(pair[0], pair[1])).collect::<Vec<_>>()
    };
    row_names(&connector.joints).into_iter().flat_map(of_row).collect()
}

impl Neighbours {
    fn from_pair(left: &Joint, right: &Joint) -> Self {
        let may_be_joined = left.role == right.role && left.role != Role::Signal;
        Self { left: left.name.clone(), right: right.name.clone(), may_be_joined }
    }
}

/// What all pairs come to.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum InsulationVerdict {
    /// So many are left to be measured, and none of the others is at fault.
    Unfinished {
        /// How many.
        left: usize,
    },
    /// These are joined and should be apart: bridges.
    Bridged {
        /// Their names, `A4-A5`.
        pairs: Vec<String>,
    },
    /// All that have to be are apart.
    Sound,
}

/// The verdict; a bridge is said at once. Pairs that the board may join by itself need not be measured.
///
/// ```
/// use mend_core::inspection::insulation::{Insulation::Joined, InsulationVerdict, Neighbours, insulated};
/// let pair = |may_be_joined| Neighbours { left: "A1".to_owned(), right: "A2".to_owned(), may_be_joined };
/// assert_eq!(insulated(&[(pair(true), Some(Joined))]), InsulationVerdict::Sound);
/// assert_eq!(insulated(&[(pair(false), Some(Joined))]), InsulationVerdict::Bridged { pairs: vec!["A1-A2".to_owned()] });
/// ```
pub fn insulated(measured: &[(Neighbours, Option<Insulation>)]) -> InsulationVerdict {
    let wanted = || measured.iter().filter(|(pair, _)| !pair.may_be_joined);
    let joined = wanted().filter(|(_, found)| *found == Some(Insulation::Joined));
    let pairs: Vec<String> = joined.map(|(pair, _)| format!("{}-{}", pair.left, pair.right)).collect();
    if !pairs.is_empty() {
        return InsulationVerdict::Bridged { pairs };
    }
    match wanted().filter(|(_, found)| found.is_none()).count() {
        0 => InsulationVerdict::Sound,
        left => InsulationVerdict::Unfinished { left },
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;

    #[test]
    fn grounds_side_by_side_may_be_joined_and_a_signal_beside_anything_may_not() {
        let mut connector = Bench::try_new().expect("the example").board.connector;
        let row = connector.joints.iter().find(|joint| joint.is_pin()).expect("a pin").row.clone();
        let mut first = connector.joints.iter_mut().filter(|joint| joint.is_pin() && joint.row == row);
        let roles = [Role::Ground, Role::Ground, Role::Signal];
        roles.into_iter().for_each(|role| first.next().expect("three pins").role = role);
        let pairs = neighbours(&connector);
        assert!(pairs[0].may_be_joined && !pairs[1].may_be_joined);
        let all_joined: Vec<_> = pairs[..2].iter().map(|pair| (pair.clone(), Some(Insulation::Joined))).collect();
        let bridged = vec![format!("{}-{}", pairs[1].left, pairs[1].right)];
        assert_eq!(insulated(&all_joined), InsulationVerdict::Bridged { pairs: bridged });
    }

    #[test]
    fn what_is_left_is_counted_and_no_row_is_joined_to_the_next() {
        let connector = Bench::try_new().expect("the example").board.connector;
        let pairs = neighbours(&connector);
        let row_of = |name: &str| connector.joints.iter().find(|joint| joint.name == name).map(|joint| &joint.row);
        assert!(pairs.iter().all(|pair| row_of(&pair.left) == row_of(&pair.right)));
        let none: Vec<_> = pairs.iter().map(|pair| (pair.clone(), None)).collect();
        let left = pairs.iter().filter(|pair| !pair.may_be_joined).count();
        assert_eq!(insulated(&none), InsulationVerdict::Unfinished { left });
    }
}
