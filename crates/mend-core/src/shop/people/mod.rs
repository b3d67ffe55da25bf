//! Who works in a shop, what they may do, and how long a wrong secret makes one wait.
//!
//! - [`ShopRole`] and [`Permission`]: who may do what
//! - [`patience`]: how long after wrong tries the next one is looked at
//! - [`Secret`]: a passphrase or a PIN that can be taken as one
//!
//! It compares no secret and knows no clock: hashing and sessions are the web's.

pub mod patience;
mod role;
mod secret;

pub use role::{Permission, ShopRole};
pub use secret::{Secret, SecretFault};
