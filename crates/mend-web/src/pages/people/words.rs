//! Why something can't be a secret, in words.

use mend_core::finding::Finding;
use mend_core::shop::people::{Secret, SecretFault};

fn finding(place: &str, fault: SecretFault) -> Finding {
    let (message, hint) = match fault {
        SecretFault::NoPin => ("is no PIN", "type 4 to 8 digits"),
        SecretFault::EasyPin => ("is tried first by everybody", "choose digits that are no row and not all the same"),
        SecretFault::NoPassphrase => {
            ("has to have 15 to 128 characters", "a few words that only you put together will do")
        }
        SecretFault::EasyPassphrase => ("has too few different characters", "a few words will do"),
    };
    Finding::written("request", place, message).hint(hint)
}

/// What was typed to be one's own.
pub(super) struct NewSecrets {
    pub(super) passphrase: Option<Secret>,
    pub(super) pin: Option<Secret>,
}

impl NewSecrets {
    /// Reads both; what is left empty is none.
    pub(super) fn parse(passphrase: &str, pin: &str) -> Result<Self, Vec<Finding>> {
        let mut bad = Vec::new();
        let mut kept = |place: &str, typed: &str, read: fn(&str) -> Result<Secret, SecretFault>| {
            if typed.is_empty() {
                return None;
            }
            read(typed).map_err(|fault| bad.push(finding(place, fault))).ok()
        };
        let passphrase = kept("passphrase", passphrase, Secret::new_passphrase);
        let pin = kept("PIN", pin, Secret::new_pin);
        if bad.is_empty() { Ok(Self { passphrase, pin }) } else { Err(bad) }
    }
}
