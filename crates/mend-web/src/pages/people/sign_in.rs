//! Signing in: a name and a secret; at a browser that knows the shop, one press and a PIN.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use axum_extra::extract::CookieJar;
use serde::Deserialize;

use crate::App;
use crate::extract::{Form, Query};
use crate::pages::Frame;
use crate::pages::scale::is_own_path;
use crate::people::Visit;
use crate::people::sign_in::{self, SignedIn};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "people/sign_in.html")]
pub(crate) struct SignInPage {
    frame: Frame,
    /// Everybody who can sign in, where this browser may see them; else a name is typed.
    names: Vec<String>,
    name: String,
    back: String,
    /// Why it was not taken; empty: nothing was tried.
    objection: String,
    takes_pins: bool,
    /// May one go on without a name?
    optional: bool,
}

/// Where it goes on.
#[derive(Deserialize)]
pub(crate) struct BackQuery {
    #[serde(default)]
    back: String,
    #[serde(default)]
    name: String,
}

#[derive(Deserialize)]
pub(crate) struct SignInForm {
    name: String,
    secret: String,
    #[serde(default)]
    back: String,
}

/// What a page of it shows.
struct SignInTry {
    name: String,
    back: String,
    objection: String,
}

async fn page(app: &App, visitor: Visitor, jar: &CookieJar, tried: SignInTry) -> Result<SignInPage, Refusal> {
    let takes_pins = sign_in::takes_pins(app, jar).await?;
    let everybody = app.reading(|read| read.people()).await?;
    let can = everybody.into_iter().filter(|row| takes_pins && row.left_ms.is_none() && !row.passphrase.is_empty());
    let names = can.map(|row| row.name).collect();
    let SignInTry { name, back, objection } = tried;
    let frame = Frame::new("Sign in", visitor.scale, "", "/sign-in".to_owned());
    Ok(SignInPage { frame, names, name, back, objection, takes_pins, optional: !app.sign_in.is_required() })
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    jar: CookieJar,
    Query(asked): Query<BackQuery>,
) -> Result<SignInPage, Refusal> {
    let tried = SignInTry { name: asked.name, back: asked.back, objection: String::new() };
    page(&app, visitor, &jar, tried).await
}

pub(crate) async fn enter(
    State(app): State<App>,
    visitor: Visitor,
    jar: CookieJar,
    Form(sent): Form<SignInForm>,
) -> Result<Response, Refusal> {
    let name = sent.name.trim().to_owned();
    let (status, objection) = match sign_in::check(&app, &jar, name.clone(), &sent.secret).await? {
        SignedIn::Yes(row) => {
            let jar = sign_in::begin(&app, jar, row.id).await?;
            return Ok((jar, Redirect::to(onward(&sent.back))).into_response());
        }
        SignedIn::No => {
            (StatusCode::UNPROCESSABLE_ENTITY, "That name and that secret do not belong together.".to_owned())
        }
        SignedIn::PassphraseFirst => {
            let objection =
                "Nobody has signed in at this browser yet: type your passphrase. The next time your PIN will do.";
            (StatusCode::UNPROCESSABLE_ENTITY, objection.to_owned())
        }
        SignedIn::Wait(ms) => {
            let objection =
                format!("Too many wrong tries. Wait {} s and try again, or type your passphrase.", (ms + 999) / 1000);
            (StatusCode::TOO_MANY_REQUESTS, objection)
        }
    };
    let tried = SignInTry { name, back: sent.back, objection };
    Ok((status, page(&app, visitor, &jar, tried).await?).into_response())
}

/// Where somebody goes on who has signed in.
pub(super) fn onward(back: &str) -> &str {
    if is_own_path(back) && !back.starts_with("/sign-in") { back } else { "/" }
}

pub(crate) async fn leave(State(app): State<App>, jar: CookieJar) -> Result<(CookieJar, Redirect), Refusal> {
    Ok((sign_in::end(&app, jar).await?, Redirect::to("/sign-in")))
}

/// Whose page of their own it is.
pub(super) async fn myself(app: &App) -> Result<mend_store::PersonRow, Refusal> {
    let Some(id) = Visit::current().person().map(|person| person.id) else { return Err(Refusal::SignIn) };
    app.reading(move |read| read.person(id)).await?.ok_or(Refusal::NotFound("person"))
}
