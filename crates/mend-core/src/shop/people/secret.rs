//! What may be somebody's passphrase or PIN.

use std::fmt;

/// Shortest and longest PIN, digits.
const PIN: std::ops::RangeInclusive<usize> = 4..=8;
/// Shortest and longest passphrase, characters: NIST SP 800-63B-4 asks for 15 where nothing else is asked, and for room for 64.
const PASSPHRASE: std::ops::RangeInclusive<usize> = 15..=128;

/// A secret as it was typed. It is never shown.
#[derive(Clone, PartialEq, Eq)]
pub enum Secret {
    /// Digits, for the bench that somebody is signed in at already.
    Pin(String),
    /// Words, for any browser.
    Passphrase(String),
}

/// Why something can't be a secret.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SecretFault {
    /// A PIN of fewer than 4 or more than 8 digits, or not of digits.
    NoPin,
    /// One digit again and again, or digits one after the other: tried first by everybody.
    EasyPin,
    /// A passphrase of fewer than 15 or more than 128 characters.
    NoPassphrase,
    /// A passphrase of fewer than five different characters.
    EasyPassphrase,
}

impl fmt::Debug for Secret {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::Pin(_) => "Pin(..)",
            Self::Passphrase(_) => "Passphrase(..)",
        })
    }
}

impl Secret {
    /// A new PIN.
    ///
    /// ```
    /// use mend_core::shop::people::{Secret, SecretFault};
    /// assert!(Secret::new_pin("4071").is_ok());
    /// assert_eq!(Secret::new_pin("1234"), Err(SecretFault::EasyPin));
    /// ```
    pub fn new_pin(typed: &str) -> Result<Self, SecretFault> {
        let digits = typed.as_bytes();
        if !PIN.contains(&digits.len()) || !digits.iter().all(u8::is_ascii_digit) {
            return Err(SecretFault::NoPin);
        }
        let steps = |by: i16| digits.windows(2).all(|pair| i16::from(pair[1]) - i16::from(pair[0]) == by);
        if steps(0) || steps(1) || steps(-1) {
            return Err(SecretFault::EasyPin);
        }
        Ok(Self::Pin(typed.to_owned()))
    }

    /// A new passphrase.
    ///
    /// ```
    /// use mend_core::shop::people::{Secret, SecretFault};
    /// assert!(Secret::new_passphrase("seven herons on the mole").is_ok());
    /// assert_eq!(Secret::new_passphrase("heron"), Err(SecretFault::NoPassphrase));
    /// ```
    pub fn new_passphrase(typed: &str) -> Result<Self, SecretFault> {
        if !PASSPHRASE.contains(&typed.chars().count()) {
            return Err(SecretFault::NoPassphrase);
        }
        let different: std::collections::BTreeSet<char> = typed.chars().collect();
        if different.len() < 5 {
            return Err(SecretFault::EasyPassphrase);
        }
        Ok(Self::Passphrase(typed.to_owned()))
    }

    /// What somebody typed to come in: digits that could be a PIN are one.
    pub fn typed(typed: &str) -> Self {
        let could_be_pin = PIN.contains(&typed.len()) && typed.bytes().all(|byte| byte.is_ascii_digit());
        if could_be_pin { Self::Pin(typed.to_owned()) } else { Self::Passphrase(typed.to_owned()) }
    }

    /// Its characters.
    pub fn reveal(&self) -> &str {
        match self {
            Self::Pin(typed) | Self::Passphrase(typed) => typed,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_everybody_tries_first_is_no_pin() {
        for easy in ["0000", "7777777", "1234", "98765"] {
            assert_eq!(Secret::new_pin(easy), Err(SecretFault::EasyPin), "{easy}");
        }
        for none in ["", "123", "123456789", "12a4", "١٢٣٤"] {
            assert_eq!(Secret::new_pin(none), Err(SecretFault::NoPin), "{none}");
        }
    }

    #[test]
    fn a_passphrase_is_long_and_of_more_than_one_letter() {
        assert_eq!(Secret::new_passphrase("short"), Err(SecretFault::NoPassphrase));
        assert_eq!(Secret::new_passphrase(&"a".repeat(20)), Err(SecretFault::EasyPassphrase));
        assert_eq!(Secret::new_passphrase(&"x1".repeat(70)), Err(SecretFault::NoPassphrase));
    }

    #[test]
    fn a_secret_is_not_printed() {
        assert_eq!(format!("{:?}", Secret::typed("4071")), "Pin(..)");
        assert_eq!(format!("{:?}", Secret::typed("seven herons on the mole")), "Passphrase(..)");
    }
}
