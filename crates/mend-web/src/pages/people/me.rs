//! One's own passphrase and PIN.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use axum_extra::extract::CookieJar;
use serde::Deserialize;

use super::sign_in::myself;
use super::words::NewSecrets;
use crate::App;
use crate::extract::Form;
use crate::pages::Frame;
use crate::people::hash_of_secret;
use crate::people::sign_in::{self, SignedIn};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

#[derive(Template, WebTemplate)]
#[template(path = "people/me.html")]
pub(crate) struct MePage {
    frame: Frame,
    has_pin: bool,
    kept: bool,
    findings: Vec<FindingView>,
}

#[derive(Deserialize)]
pub(crate) struct OwnSecretsForm {
    /// The passphrase as it is.
    now: String,
    #[serde(default)]
    passphrase: String,
    #[serde(default)]
    pin: String,
}

async fn page(app: &App, visitor: Visitor, kept: bool, findings: Vec<FindingView>) -> Result<MePage, Refusal> {
    let row = myself(app).await?;
    let frame = Frame::new(row.name, visitor.scale, "", "/people/me".to_owned());
    Ok(MePage { frame, has_pin: !row.pin.is_empty(), kept, findings })
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor) -> Result<MePage, Refusal> {
    page(&app, visitor, false, Vec::new()).await
}

pub(crate) async fn change(
    State(app): State<App>,
    visitor: Visitor,
    jar: CookieJar,
    Form(sent): Form<OwnSecretsForm>,
) -> Result<Response, Refusal> {
    let row = myself(&app).await?;
    match sign_in::check(&app, &jar, row.name.clone(), &sent.now).await? {
        SignedIn::Yes(_) => {}
        SignedIn::Wait(ms) => return Err(Refusal::Wait(ms)),
        SignedIn::No | SignedIn::PassphraseFirst => {
            return Err(Refusal::field("passphrase", "is not the one you have now", "type it again"));
        }
    }
    let secrets = match NewSecrets::parse(&sent.passphrase, &sent.pin) {
        Ok(secrets) => secrets,
        Err(findings) => {
            let said = visitor.words().findings(&findings);
            let page = page(&app, visitor, false, said).await?;
            return Ok((StatusCode::UNPROCESSABLE_ENTITY, page).into_response());
        }
    };
    let jar = if keep(&app, row.id, secrets).await? { sign_in::begin(&app, jar, row.id).await? } else { jar };
    Ok((jar, page(&app, visitor, true, Vec::new()).await?).into_response())
}

/// Keeps what was chosen; true where the passphrase is a new one, which ends every session.
pub(super) async fn keep(app: &App, person: i64, secrets: NewSecrets) -> Result<bool, Refusal> {
    if let Some(pin) = secrets.pin {
        let hash = hash_of_secret(pin).await?;
        app.writing(move |write| write.set_pin(person, &hash)).await?;
    }
    let Some(passphrase) = secrets.passphrase else { return Ok(false) };
    let hash = hash_of_secret(passphrase).await?;
    app.writing(move |write| write.set_passphrase(person, &hash)).await?;
    Ok(true)
}
