//! Everybody who works here: role, level, and the link by which they come in.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::http::HeaderMap;
use axum::response::Redirect;
use mend_core::finding::Finding;
use mend_core::method::equipment::SkillLevel;
use mend_core::shop::people::ShopRole;
use mend_formats::shop_settings::DAYS;
use mend_store::{Invited, NewPerson, PersonRow};

use super::welcome::{is_owner, link_for};
use crate::App;
use crate::extract::Form;
use crate::pages::{Frame, word};
use crate::people::{OwnHours, Visit};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Longest name, characters.
const LONGEST_NAME: usize = 60;

/// What a role may, in a line.
fn role_says(role: ShopRole) -> &'static str {
    match role {
        ShopRole::Owner => "everything, with settings and people",
        ShopRole::Technician => "bench, stations, counter",
        ShopRole::Trainee => "bench and counter; may not go on against the ledger or a warning",
        ShopRole::Counter => "taking in, quotes, giving back; sees nothing of the bench",
    }
}

/// A choice of a list.
struct ChoiceView {
    key: String,
    name: &'static str,
}

/// Somebody, as the page shows them.
struct PersonView {
    row: PersonRow,
    /// What they can sign in with.
    secrets: &'static str,
    is_me: bool,
    own: OwnHours,
    /// Days of the week: key, letter, and do they work then?
    days: Vec<(&'static str, &'static str, bool)>,
}

#[derive(Template, WebTemplate)]
#[template(path = "people/list.html")]
pub(crate) struct PeoplePage {
    frame: Frame,
    here: Vec<PersonView>,
    gone: Vec<PersonRow>,
    roles: [(ShopRole, &'static str); 4],
    levels: Vec<ChoiceView>,
    /// A link that was just made: whose, and what it is.
    link: Option<(String, String)>,
    required: bool,
}

/// The days of a week, and whether somebody works on them.
fn days_of(row: &PersonRow) -> Vec<(&'static str, &'static str, bool)> {
    let own = OwnHours::parse(&row.hours);
    DAYS.iter().map(|day| (*day, &day[..2], own.has_day(day))).collect()
}

async fn page(app: &App, visitor: Visitor, link: Option<(String, String)>) -> Result<PeoplePage, Refusal> {
    let me = Visit::current().person().map(|person| person.id);
    let everybody = app.reading(|read| read.people()).await?;
    let (here, gone): (Vec<_>, Vec<_>) = everybody.into_iter().partition(|row| row.left_ms.is_none());
    let view = |row: PersonRow| PersonView {
        secrets: match (row.passphrase.is_empty(), row.pin.is_empty()) {
            (true, _) => "can't sign in yet",
            (false, true) => "passphrase",
            (false, false) => "passphrase and PIN",
        },
        is_me: me == Some(row.id),
        days: days_of(&row),
        own: OwnHours::parse(&row.hours),
        row,
    };
    let levels = SkillLevel::ALL.map(|level| ChoiceView { key: word(&level), name: level.name() });
    Ok(PeoplePage {
        frame: Frame::new("People", visitor.scale, "shop", "/people".to_owned()),
        here: here.into_iter().map(view).collect(),
        gone,
        roles: ShopRole::ALL.map(|role| (role, role_says(role))),
        levels: levels.into(),
        link,
        required: app.sign_in.is_required(),
    })
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor) -> Result<PeoplePage, Refusal> {
    page(&app, visitor, None).await
}

/// What is typed of somebody.
pub(crate) struct PersonForm {
    name: String,
    role: String,
    level: String,
    hours: OwnHours,
}

/// A name as it is kept.
pub(super) fn checked_name(typed: &str) -> Result<String, Vec<Finding>> {
    let name = typed.trim();
    if (1..=LONGEST_NAME).contains(&name.chars().count()) && !name.chars().any(char::is_control) {
        return Ok(name.to_owned());
    }
    Err(vec![Finding::written("request", "name", format!("“{name}” is no name")).hint("type 1 to 60 characters")])
}

impl PersonForm {
    fn read(sent: &[(String, String)]) -> Result<Self, Refusal> {
        let get = |name: &str| sent.iter().find(|(field, _)| field == name).map_or(String::new(), |(_, v)| v.clone());
        Ok(Self { name: get("name"), role: get("role"), level: get("level"), hours: OwnHours::read(sent)? })
    }

    fn checked(&self) -> Result<NewPerson, Refusal> {
        let name = checked_name(&self.name)?;
        let role = ShopRole::from_key(&self.role);
        let hint = "owner, technician, trainee or counter";
        let role = role.ok_or_else(|| Refusal::field("role", format!("“{}” is no role", self.role), hint))?;
        let level = SkillLevel::ALL.map(|level| word(&level)).into_iter().find(|key| *key == self.level);
        let hint = "learning, trained or practised";
        let level = level.ok_or_else(|| Refusal::field("level", format!("“{}” is no level", self.level), hint))?;
        Ok(NewPerson { name, role: role.key().to_owned(), level })
    }
}

fn taken(name: &str) -> Refusal {
    Refusal::field("name", format!("somebody else is called “{name}”"), "add a second name or a letter")
}

pub(crate) async fn add(
    State(app): State<App>,
    visitor: Visitor,
    headers: HeaderMap,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<PeoplePage, Refusal> {
    let (person, now_ms) = (PersonForm::read(&sent)?.checked()?, app.now_ms());
    let name = person.name.clone();
    let added = app.writing(move |write| write.add_person(&person, now_ms)).await?;
    let id = added.ok_or_else(|| taken(&name))?;
    linked(&app, visitor, headers, id).await
}

async fn load(app: &App, Path(id): &Path<String>) -> Result<PersonRow, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("person"))?;
    app.reading(move |read| read.person(id)).await?.ok_or(Refusal::NotFound("person"))
}

/// The page with a new link for somebody: its whole address, to be sent or opened here.
async fn linked(app: &App, visitor: Visitor, headers: HeaderMap, id: i64) -> Result<PeoplePage, Refusal> {
    let row = load(app, &Path(id.to_string())).await?;
    let path = link_for(app, Invited::Person(id)).await?;
    let said = |name: &str| headers.get(name).and_then(|value| value.to_str().ok()).unwrap_or_default().to_owned();
    // The browser says over what it asked; without it, as plain as the address can be.
    let origin = Some(said("origin")).filter(|origin| origin.starts_with("http"));
    let origin = origin.unwrap_or_else(|| format!("http://{}", said("host")));
    page(app, visitor, Some((row.name, format!("{origin}{path}")))).await
}

pub(crate) async fn link(
    State(app): State<App>,
    visitor: Visitor,
    path: Path<String>,
    headers: HeaderMap,
) -> Result<PeoplePage, Refusal> {
    let row = load(&app, &path).await?;
    linked(&app, visitor, headers, row.id).await
}

pub(crate) async fn change(
    State(app): State<App>,
    path: Path<String>,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let (row, sent) = (load(&app, &path).await?, PersonForm::read(&sent)?);
    let NewPerson { name, role, level } = sent.checked()?;
    let changed = PersonRow { name: name.clone(), role, level, hours: sent.hours.stored()?, ..row };
    let required = app.sign_in.is_required();
    let done = app.writing(move |write| {
        let stays = changed.role == ShopRole::Owner.key();
        if required && !stays && !has_other_owner(&write.read().people()?, changed.id) {
            return Ok(Changed::NoOwner);
        }
        Ok(if write.change_person(&changed)? { Changed::Yes } else { Changed::NameTaken })
    });
    done.await?.answer(&name)
}

/// What came of a change.
enum Changed {
    Yes,
    NameTaken,
    /// It would lock everybody out.
    NoOwner,
}

impl Changed {
    fn answer(self, name: &str) -> Result<Redirect, Refusal> {
        match self {
            Self::Yes => Ok(Redirect::to("/people")),
            Self::NameTaken => Err(taken(name)),
            Self::NoOwner => Err(Refusal::field(
                "role",
                "would leave the shop without an owner",
                "make somebody else an owner first",
            )),
        }
    }
}

/// Is there an owner who can sign in besides this one?
fn has_other_owner(everybody: &[PersonRow], than: i64) -> bool {
    everybody.iter().any(|row| row.id != than && is_owner(row))
}

pub(crate) async fn leave(State(app): State<App>, path: Path<String>) -> Result<Redirect, Refusal> {
    let (row, now_ms) = (load(&app, &path).await?, app.now_ms());
    let required = app.sign_in.is_required();
    let done = app.writing(move |write| {
        if required && !has_other_owner(&write.read().people()?, row.id) {
            return Ok(Changed::NoOwner);
        }
        write.set_left(row.id, Some(now_ms))?;
        Ok(Changed::Yes)
    });
    done.await?.answer("")
}

pub(crate) async fn back(State(app): State<App>, path: Path<String>) -> Result<Redirect, Refusal> {
    let id = load(&app, &path).await?.id;
    app.writing(move |write| write.set_left(id, None)).await?;
    Ok(Redirect::to("/people"))
}
