//! Tokens, and how secrets are kept: argon2id for what people choose, SHA-256 for what is drawn at random.

use argon2::Argon2;
use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};
use mend_core::shop::people::Secret;
use sha2::{Digest, Sha256};
use tokio::sync::Semaphore;

use crate::refusal::Refusal;

/// Bytes of a token: nobody guesses 256 bits.
const TOKEN_BYTES: usize = 32;
/// So many secrets are hashed at a time: each wants 19 MiB and a core for a twentieth of a second.
static HASHING: Semaphore = Semaphore::const_new(2);

/// A token that nobody can guess, in letters and digits.
pub(crate) fn new_token() -> Result<String, Refusal> {
    let mut bytes = [0; TOKEN_BYTES];
    getrandom::fill(&mut bytes).map_err(|error| Refusal::Broken(format!("no random numbers: {error}")))?;
    Ok(in_hex(&bytes))
}

/// How a token is kept: a copied database lets nobody in.
pub(crate) fn hash_of_token(token: &str) -> String {
    in_hex(&Sha256::digest(token.as_bytes()))
}

fn in_hex(bytes: &[u8]) -> String {
    bytes.iter().map(|byte| format!("{byte:02x}")).collect()
}

/// How a secret is kept, with a salt of its own.
pub(crate) async fn hash_of_secret(secret: Secret) -> Result<String, Refusal> {
    let hash =
        hashing(move || Argon2::default().hash_password(secret.reveal().as_bytes()).map(|hash| hash.to_string()));
    hash.await?.map_err(|error| Refusal::Broken(format!("a secret can't be hashed: {error}")))
}

/// Is this the secret that was kept? Nothing kept takes as long as a wrong one: how long an answer takes says nothing.
pub(super) async fn is_secret(typed: Secret, kept: String) -> Result<bool, Refusal> {
    hashing(move || match PasswordHash::new(&kept) {
        Ok(kept) => Argon2::default().verify_password(typed.reveal().as_bytes(), &kept).is_ok(),
        Err(_) => {
            let _ = Argon2::default().hash_password(typed.reveal().as_bytes());
            false
        }
    })
    .await
}

async fn hashing<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, Refusal> {
    let _turn = HASHING.acquire().await;
    tokio::task::spawn_blocking(work).await.map_err(|error| Refusal::Broken(error.to_string()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn only_the_right_secret_opens_and_no_two_hashes_are_alike() {
        let secret = || Secret::typed("seven herons on the mole");
        let (one, other) =
            (hash_of_secret(secret()).await.expect("hashed"), hash_of_secret(secret()).await.expect("hashed"));
        assert!(one.starts_with("$argon2id$") && one != other);
        assert!(is_secret(secret(), one.clone()).await.expect("looked at"));
        assert!(!is_secret(Secret::typed("seven herons on the mole."), one).await.expect("looked at"));
        assert!(!is_secret(secret(), String::new()).await.expect("looked at"));
    }

    #[test]
    fn tokens_differ_and_are_not_kept_themselves() {
        let token = new_token().expect("drawn");
        assert!(token.len() == 64 && token != new_token().expect("drawn") && hash_of_token(&token) != token);
    }
}
