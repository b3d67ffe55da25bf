//! Who asks, and what they may.
//!
//! - [`Visit`]: who asks; known to every handler and page of a request without being handed on
//! - `access`: what each address wants; `permit`: lets in or sends to the sign-in
//! - `own_hours`: when somebody works
//! - `sign_in`: sessions; `secrets`: hashes and tokens; `attempts`: wrong secrets make one wait

mod access;
mod attempts;
mod own_hours;
mod secrets;
pub(crate) mod sign_in;

use axum::extract::{MatchedPath, Request, State};
use axum::http::{HeaderName, HeaderValue, Method};
use axum::middleware::Next;
use axum::response::{IntoResponse, Redirect, Response};
use axum_extra::extract::CookieJar;
use mend_core::shop::people::{Permission, ShopRole};
use mend_store::PersonRow;

pub(crate) use own_hours::OwnHours;
pub(crate) use secrets::{hash_of_secret, hash_of_token, new_token};
pub(crate) use sign_in::SignIn;

use crate::App;
use crate::refusal::Refusal;

/// Somebody who is signed in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Present {
    pub(crate) id: i64,
    pub(crate) name: String,
    pub(crate) role: ShopRole,
}

/// Who asks.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) enum Visit {
    /// The shop itself: a machine that asks nobody for a name.
    Anyone {
        /// Is there anybody who could sign in all the same?
        staffed: bool,
    },
    /// Nobody is signed in, and somebody has to be.
    Stranger,
    /// This person.
    Person(Present),
}

tokio::task_local! {
    static VISIT: Visit;
}

impl Visit {
    /// Who asks for what is being answered; the application itself where nobody asks.
    pub(crate) fn current() -> Self {
        VISIT.try_with(Clone::clone).unwrap_or(Self::Anyone { staffed: false })
    }

    /// May they do that?
    pub(crate) fn may(&self, permission: Permission) -> bool {
        match self {
            Self::Anyone { .. } => true,
            Self::Stranger => false,
            Self::Person(person) => person.role.may(permission),
        }
    }

    /// Is there a way for them to a route?
    pub(crate) fn opens(&self, method: &Method, route: &str) -> bool {
        access::wanted(method, route).is_none_or(|permission| self.may(permission))
    }

    /// The person, if one is signed in.
    pub(crate) fn person(&self) -> Option<&Present> {
        match self {
            Self::Person(person) => Some(person),
            _ => None,
        }
    }

    /// Refuses what they may not.
    pub(crate) fn expect(&self, permission: Permission) -> Result<(), Refusal> {
        match self {
            _ if self.may(permission) => Ok(()),
            Self::Stranger => Err(Refusal::SignIn),
            _ => Err(Refusal::NotAllowed(permission)),
        }
    }
}

/// Somebody's row as who is present; an unknown role, of a later version say, is the one that may least.
fn present(row: &PersonRow) -> Present {
    let role = ShopRole::from_key(&row.role).unwrap_or(ShopRole::Counter);
    Present { id: row.id, name: row.name.clone(), role }
}

/// Finds out who asks.
pub(crate) async fn identify(State(app): State<App>, request: Request, next: Next) -> Response {
    let jar = CookieJar::from_headers(request.headers());
    let visit = match sign_in::session(&app, &jar).await {
        Ok(Some(row)) => Visit::Person(present(&row)),
        Ok(None) if app.sign_in.is_required() => Visit::Stranger,
        Ok(None) => Visit::Anyone { staffed: app.sign_in.is_staffed() },
        Err(refusal) => return refusal.into_response(),
    };
    VISIT.scope(visit, next.run(request)).await
}

/// Lets in whoever may; a stranger who opens a page is sent to the sign-in, and back.
pub(crate) async fn permit(request: Request, next: Next) -> Response {
    let path = request.extensions().get::<MatchedPath>().map(|path| path.as_str().to_owned()).unwrap_or_default();
    let Some(permission) = access::wanted(request.method(), &path) else { return next.run(request).await };
    match Visit::current().expect(permission) {
        Ok(()) => next.run(request).await,
        Err(Refusal::SignIn) if request.method() == Method::GET => to_sign_in(&request),
        Err(refusal) => refusal.into_response(),
    }
}

/// A page is left for the sign-in; a part of a page takes the whole page there.
fn to_sign_in(request: &Request) -> Response {
    let header = |name: &str| request.headers().get(name).and_then(|value| value.to_str().ok());
    if header("hx-request").is_none() {
        let wanted = request.uri().path_and_query().map_or("/", |path| path.as_str());
        return Redirect::to(&sign_in_address(wanted)).into_response();
    }
    let page = header("hx-current-url").and_then(|url| url.parse::<axum::http::Uri>().ok());
    let back = page.as_ref().and_then(|page| page.path_and_query()).map_or("/", |path| path.as_str());
    let mut response = Refusal::SignIn.into_response();
    if let Ok(to) = HeaderValue::from_str(&sign_in_address(back)) {
        response.headers_mut().insert(HeaderName::from_static("hx-redirect"), to);
    }
    response
}

fn sign_in_address(back: &str) -> String {
    format!("/sign-in?back={}", crate::extract::escaped(back))
}
