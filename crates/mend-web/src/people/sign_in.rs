//! Signing in and out: secrets become sessions, and a session is a cookie.

use std::sync::atomic::{AtomicBool, Ordering};

use axum_extra::extract::CookieJar;
use axum_extra::extract::cookie::{Cookie, SameSite};
use mend_core::shop::people::Secret;
use mend_store::{NewSession, PersonRow};

use super::attempts::{AttemptKey, Attempts};
use super::secrets::{hash_of_token, is_secret, new_token};
use crate::App;
use crate::refusal::Refusal;

/// The cookies' names.
const SESSION: &str = "session";
const DEVICE: &str = "device";
/// A session ends after a shift, ms: twelve hours, so that nobody is signed in the next morning (E).
const SHIFT_MS: i64 = 12 * 3600 * 1000;

/// How a shop is signed in to.
#[derive(Debug, Default)]
pub(crate) struct SignIn {
    required: AtomicBool,
    secure: AtomicBool,
    staffed: AtomicBool,
    attempts: Attempts,
}

/// What came of a name and a secret.
#[derive(Debug)]
pub(crate) enum SignedIn {
    /// Both are right.
    Yes(PersonRow),
    /// One of them is not.
    No,
    /// A PIN, at a browser where nobody has signed in with a passphrase.
    PassphraseFirst,
    /// Too many were wrong: not looked at before so many ms have passed.
    Wait(i64),
}

impl SignIn {
    /// Nobody gets in without a name from now on; `secure`: over TLS alone.
    pub(crate) fn require(&self, secure: bool) {
        self.required.store(true, Ordering::Relaxed);
        self.secure.store(secure, Ordering::Relaxed);
    }

    /// Has everybody to sign in?
    pub(crate) fn is_required(&self) -> bool {
        self.required.load(Ordering::Relaxed)
    }

    /// Somebody can sign in.
    pub(crate) fn set_staffed(&self) {
        self.staffed.store(true, Ordering::Relaxed);
    }

    /// Can anybody sign in?
    pub(crate) fn is_staffed(&self) -> bool {
        self.staffed.load(Ordering::Relaxed)
    }

    fn cookie(&self, name: &'static str, token: String) -> Cookie<'static> {
        let cookie = Cookie::build((name, token)).path("/").http_only(true).same_site(SameSite::Lax);
        cookie.secure(self.secure.load(Ordering::Relaxed)).build()
    }
}

fn hashed(jar: &CookieJar, name: &str) -> Option<String> {
    jar.get(name).map(|cookie| hash_of_token(cookie.value()))
}

/// Whose session a browser holds.
pub(crate) async fn session(app: &App, jar: &CookieJar) -> Result<Option<PersonRow>, Refusal> {
    let Some(hash) = hashed(jar, SESSION) else { return Ok(None) };
    let now_ms = app.now_ms();
    app.reading(move |read| read.session(&hash, now_ms)).await
}

/// Is this a browser that takes PINs: one that somebody has signed in at, or one of a machine that asks nobody?
pub(crate) async fn takes_pins(app: &App, jar: &CookieJar) -> Result<bool, Refusal> {
    if !app.sign_in.is_required() {
        return Ok(true);
    }
    match hashed(jar, DEVICE) {
        Some(hash) => app.reading(move |read| read.knows_device(&hash)).await,
        None => Ok(false),
    }
}

/// Looks at a name and a secret.
pub(crate) async fn check(app: &App, jar: &CookieJar, name: String, typed: &str) -> Result<SignedIn, Refusal> {
    let secret = Secret::typed(typed);
    let is_pin = matches!(secret, Secret::Pin(_));
    let known = takes_pins(app, jar).await?;
    if is_pin && !known {
        return Ok(SignedIn::PassphraseFirst);
    }
    let row = app.reading(move |read| read.person_named(&name)).await?;
    let device = hashed(jar, DEVICE).filter(|_| known);
    let key = AttemptKey { person: row.as_ref().map(|row| row.id), device, is_pin };
    if let Err(wait_ms) = app.sign_in.attempts.begin(&key, app.tick_ms()) {
        return Ok(SignedIn::Wait(wait_ms));
    }
    let kept = row.as_ref().map(|row| if is_pin { row.pin.clone() } else { row.passphrase.clone() });
    let right = is_secret(secret, kept.unwrap_or_default()).await?;
    match row.filter(|_| right) {
        Some(row) => {
            app.sign_in.attempts.right(&key);
            Ok(SignedIn::Yes(row))
        }
        None => Ok(SignedIn::No),
    }
}

/// Begins somebody's session at a browser; what it held before ends.
pub(crate) async fn begin(app: &App, jar: CookieJar, person: i64) -> Result<CookieJar, Refusal> {
    app.sign_in.set_staffed();
    let token = new_token()?;
    let device = match jar.get(DEVICE) {
        Some(cookie) => cookie.value().to_owned(),
        None => new_token()?,
    };
    let begun_ms = app.now_ms();
    let session = NewSession {
        hash: hash_of_token(&token),
        person,
        device: hash_of_token(&device),
        begun_ms,
        ends_ms: begun_ms + SHIFT_MS,
    };
    let before = hashed(&jar, SESSION);
    app.writing(move |write| {
        before.iter().try_for_each(|hash| write.end_session(hash))?;
        write.begin_session(&session)
    })
    .await?;
    let mut known = app.sign_in.cookie(DEVICE, device);
    known.make_permanent();
    Ok(jar.add(app.sign_in.cookie(SESSION, token)).add(known))
}

/// Ends the session of a browser.
pub(crate) async fn end(app: &App, jar: CookieJar) -> Result<CookieJar, Refusal> {
    if let Some(hash) = hashed(&jar, SESSION) {
        app.writing(move |write| write.end_session(&hash)).await?;
    }
    Ok(jar.remove(Cookie::build(SESSION).path("/")))
}
