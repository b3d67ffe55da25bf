//! A link that works once: somebody chooses their own passphrase and PIN. The first owner also types a name.

use std::convert::Infallible;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{FromRequestParts, Path, State};
use axum::http::StatusCode;
use axum::http::request::Parts;
use axum::response::{IntoResponse, Redirect, Response};
use axum_extra::extract::CookieJar;
use mend_core::shop::people::ShopRole;
use mend_store::{Invited, NewPerson, PersonRow};
use serde::Deserialize;

use super::list::checked_name;
use super::me::keep;
use super::words::NewSecrets;
use crate::App;
use crate::extract::Form;
use crate::pages::Frame;
use crate::people::{hash_of_token, new_token, sign_in};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

/// A link is worth this long, ms.
const LINK_MS: i64 = 3 * 24 * 3600 * 1000;

#[derive(Template, WebTemplate)]
#[template(path = "people/welcome.html")]
pub(crate) struct WelcomePage {
    frame: Frame,
    /// The address that it is sent to.
    here: String,
    /// Whose it is; empty: the first owner's, who types a name.
    name: String,
    typed_name: String,
    findings: Vec<FindingView>,
}

#[derive(Deserialize)]
pub(crate) struct WelcomeForm {
    #[serde(default)]
    name: String,
    passphrase: String,
    #[serde(default)]
    pin: String,
}

/// Makes a link for somebody.
pub(super) async fn link_for(app: &App, invited: Invited) -> Result<String, Refusal> {
    let token = new_token()?;
    let (hash, ends_ms) = (hash_of_token(&token), app.now_ms() + LINK_MS);
    app.writing(move |write| write.invite(&hash, invited, ends_ms)).await?;
    Ok(format!("/welcome/{token}"))
}

/// The link by which a shop's owner comes in; none where the shop has one already.
pub(crate) async fn first_owner_link(app: &App) -> Result<Option<String>, Refusal> {
    if app.reading(|read| read.people()).await?.iter().any(is_owner) {
        return Ok(None);
    }
    link_for(app, Invited::FirstOwner).await.map(Some)
}

/// Is this an owner who can sign in?
pub(super) fn is_owner(row: &PersonRow) -> bool {
    row.role == ShopRole::Owner.key() && row.left_ms.is_none() && !row.passphrase.is_empty()
}

/// A link as it was opened.
struct Opened {
    hash: String,
    invited: Invited,
    /// Empty: not known yet.
    name: String,
}

async fn open(app: &App, token: &str) -> Result<Opened, Refusal> {
    let (hash, now_ms) = (hash_of_token(token), app.now_ms());
    let of = hash.clone();
    let invited = app.reading(move |read| read.invitation(&of, now_ms)).await?;
    let gone =
        Refusal::NotFound("link: it has been used, or is too old. The owner can make another on the People page");
    let invited = invited.ok_or(gone)?;
    let name = match invited {
        Invited::FirstOwner => String::new(),
        Invited::Person(id) => app.reading(move |read| read.person(id)).await?.map(|row| row.name).unwrap_or_default(),
    };
    Ok(Opened { hash, invited, name })
}

/// What was typed, and what is wrong with it.
#[derive(Default)]
struct WelcomeTry {
    name: String,
    findings: Vec<FindingView>,
}

fn page(visitor: Visitor, token: &str, name: String, tried: WelcomeTry) -> WelcomePage {
    let frame = Frame::new("Welcome", visitor.scale, "", "/".to_owned());
    WelcomePage { frame, here: format!("/welcome/{token}"), name, typed_name: tried.name, findings: tried.findings }
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Path(token): Path<String>,
) -> Result<WelcomePage, Refusal> {
    let opened = open(&app, &token).await?;
    Ok(page(visitor, &token, opened.name, WelcomeTry::default()))
}

/// Who comes to a link, with their cookies.
pub(crate) struct Guest {
    visitor: Visitor,
    jar: CookieJar,
}

impl FromRequestParts<App> for Guest {
    type Rejection = Infallible;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Infallible> {
        let visitor = Visitor::from_request_parts(parts, app).await?;
        Ok(Self { visitor, jar: CookieJar::from_headers(&parts.headers) })
    }
}

pub(crate) async fn enter(
    State(app): State<App>,
    Guest { visitor, jar }: Guest,
    Path(token): Path<String>,
    Form(sent): Form<WelcomeForm>,
) -> Result<Response, Refusal> {
    let opened = open(&app, &token).await?;
    let (secrets, name) = match checked(&sent, opened.invited) {
        Ok(checked) => checked,
        Err(findings) => {
            let tried = WelcomeTry { name: sent.name, findings: visitor.words().findings(&findings) };
            return Ok((StatusCode::UNPROCESSABLE_ENTITY, page(visitor, &token, opened.name, tried)).into_response());
        }
    };
    let person = come_in(&app, opened, name).await?;
    keep(&app, person, secrets).await?;
    Ok((sign_in::begin(&app, jar, person).await?, Redirect::to("/")).into_response())
}

fn checked(sent: &WelcomeForm, invited: Invited) -> Result<(NewSecrets, String), Vec<mend_core::finding::Finding>> {
    let name = match invited {
        Invited::FirstOwner => checked_name(&sent.name)?,
        Invited::Person(_) => String::new(),
    };
    let secrets = NewSecrets::parse(&sent.passphrase, &sent.pin)?;
    if secrets.passphrase.is_none() {
        let finding = mend_core::finding::Finding::written("request", "passphrase", "is not given");
        return Err(vec![finding.hint("type one; with it you can sign in at any browser")]);
    }
    Ok((secrets, name))
}

/// Uses the link up; answers whose it is.
async fn come_in(app: &App, opened: Opened, name: String) -> Result<i64, Refusal> {
    let now_ms = app.now_ms();
    let came = app.writing(move |write| {
        if !write.use_invitation(&opened.hash)? {
            return Ok(None);
        }
        match opened.invited {
            Invited::Person(id) => Ok(Some(id)),
            Invited::FirstOwner => {
                let [role, level] = ["owner", "practised"].map(str::to_owned);
                write.add_person(&NewPerson { name, role, level }, now_ms)
            }
        }
    });
    came.await?.ok_or(Refusal::Outdated("That link has been used, or the name is taken".to_owned()))
}
