//! Roles and what each may do.

use serde::{Deserialize, Serialize};

/// What somebody does in a shop.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum ShopRole {
    /// The shop is theirs.
    Owner,
    /// Repairs.
    Technician,
    /// Learns to repair.
    Trainee,
    /// Takes in and gives back.
    Counter,
}

/// What is allowed or not.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Permission {
    /// To be there: the list of jobs, help, one's own name.
    Enter,
    /// Taking in, quotes, giving back, customers, stock.
    Counter,
    /// Everything of a job at the bench.
    Bench,
    /// Stations, equipment, instruments.
    BenchSettings,
    /// Going on against the ledger's arithmetic or a warning.
    Override,
    /// The shop's settings and its people; everybody's figures.
    Shop,
}

impl Permission {
    /// All of them.
    pub const ALL: [Self; 6] =
        [Self::Enter, Self::Counter, Self::Bench, Self::BenchSettings, Self::Override, Self::Shop];
}

impl ShopRole {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::Owner, Self::Technician, Self::Trainee, Self::Counter];

    /// Its key, as it is stored.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Owner => "owner",
            Self::Technician => "technician",
            Self::Trainee => "trainee",
            Self::Counter => "counter",
        }
    }

    /// The role of a key.
    ///
    /// ```
    /// use mend_core::shop::people::ShopRole;
    /// assert_eq!(ShopRole::from_key("trainee"), Some(ShopRole::Trainee));
    /// assert_eq!(ShopRole::from_key("king"), None);
    /// ```
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|role| role.key() == key)
    }

    /// May somebody of this role do that?
    ///
    /// ```
    /// use mend_core::shop::people::{Permission, ShopRole};
    /// assert!(ShopRole::Technician.may(Permission::Override));
    /// assert!(!ShopRole::Trainee.may(Permission::Override));
    /// ```
    pub const fn may(self, permission: Permission) -> bool {
        match permission {
            Permission::Enter | Permission::Counter => true,
            Permission::Bench => !matches!(self, Self::Counter),
            Permission::BenchSettings | Permission::Override => matches!(self, Self::Owner | Self::Technician),
            Permission::Shop => matches!(self, Self::Owner),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_role_may_what_it_is_for() {
        let may = |role: ShopRole| Permission::ALL.map(|permission| role.may(permission));
        assert_eq!(may(ShopRole::Owner), [true; 6]);
        assert_eq!(may(ShopRole::Technician), [true, true, true, true, true, false]);
        assert_eq!(may(ShopRole::Trainee), [true, true, true, false, false, false]);
        assert_eq!(may(ShopRole::Counter), [true, true, false, false, false, false]);
    }

    #[test]
    fn a_key_names_one_role() {
        for role in ShopRole::ALL {
            assert_eq!(ShopRole::from_key(role.key()), Some(role));
        }
    }
}
