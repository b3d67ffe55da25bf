//! What is left to be paid when a device goes back: what was agreed, what was accepted besides, less what was paid before.

use crate::units::Money;

/// What a job comes to.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Account {
    /// The price that was agreed.
    pub agreed: Money,
    /// What was found inside, each accepted by itself.
    pub extras: Vec<Money>,
    /// Paid when it was taken in.
    pub deposit: Money,
}

/// Who owes whom.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Balance {
    /// The customer has this to pay.
    ToPay(Money),
    /// The deposit was more than all of it: this goes back.
    ToReturn(Money),
}

impl Account {
    /// What is left of it.
    ///
    /// ```
    /// use mend_core::shop::estimate::balance::{Account, Balance};
    /// use mend_core::units::Money;
    /// let [agreed, extra, deposit] = [8500, 1250, 2000].map(Money::hundredths);
    /// let account = Account { agreed, extras: vec![extra], deposit };
    /// assert_eq!(account.balance(), Balance::ToPay(Money::hundredths(7750)));
    /// ```
    pub fn balance(&self) -> Balance {
        let extras: i64 = self.extras.iter().map(|extra| extra.in_hundredths()).sum();
        let left = self.agreed.in_hundredths() + extras - self.deposit.in_hundredths();
        if left < 0 { Balance::ToReturn(Money::hundredths(-left)) } else { Balance::ToPay(Money::hundredths(left)) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn balance(agreed: i64, extras: &[i64], deposit: i64) -> Balance {
        let extras = extras.iter().copied().map(Money::hundredths).collect();
        let [agreed, deposit] = [agreed, deposit].map(Money::hundredths);
        Account { agreed, extras, deposit }.balance()
    }

    #[test]
    fn what_was_accepted_is_added_and_a_deposit_is_never_owed_twice() {
        assert_eq!(balance(6000, &[], 0), Balance::ToPay(Money::hundredths(6000)));
        assert_eq!(balance(6000, &[500, 1], 6501), Balance::ToPay(Money::default()));
        assert_eq!(balance(6000, &[], 6100), Balance::ToReturn(Money::hundredths(100)));
    }
}
