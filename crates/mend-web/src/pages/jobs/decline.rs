//! A job that is given back as it is: an earlier modification, or not worth it. Its reason and what is paid all the same stay on record.

use axum::extract::State;
use axum::response::Redirect;
use mend_core::units::Money;
use mend_store::LogRow;
use serde::Deserialize;

use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::{DECLINED, Job};
use crate::refusal::Refusal;

/// Longest name and longest reason, characters.
const LONGEST: [usize; 2] = [80, 300];

/// Who gives it back, why, and for what fee.
#[derive(Deserialize)]
pub(crate) struct Declining {
    #[serde(default)]
    who: String,
    #[serde(default)]
    why: String,
    #[serde(default)]
    fee: String,
}

impl Declining {
    /// As it stays on record: the reason, and the fee behind it.
    fn row(&self, at_ms: i64) -> Result<LogRow, Refusal> {
        let wanted = |field: &'static str, value: &str, most: usize| {
            let value = value.trim();
            let fits = (1..=most).contains(&value.chars().count());
            let object = || Refusal::field(field, "is wanted, and not too long", &format!("1 to {most} characters"));
            if fits { Ok(value.to_owned()) } else { Err(object()) }
        };
        let who = wanted("name", &self.who, LONGEST[0])?;
        let why = wanted("reason", &self.why, LONGEST[1])?;
        let fee = match self.fee.trim() {
            "" => "nothing to pay".to_owned(),
            fee => fee.parse::<Money>().map(|fee| format!("to pay {fee}")).map_err(|_| {
                Refusal::field("fee", format!("“{fee}” is no amount"), "like 20.00; empty: nothing to pay")
            })?,
        };
        Ok(LogRow { what: DECLINED.to_owned(), who, reason: format!("{why}; {fee}"), at_ms })
    }
}

pub(crate) async fn decline(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<Declining>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    if job.is_closed() {
        return Err(Refusal::NotYet("This job is closed already"));
    }
    let (id, now) = (job.row.id, app.now_ms());
    let row = sent.row(now)?;
    app.changing(id, move |w| {
        w.log_job(id, &row)?;
        w.release(id, now, None)?;
        w.hand_over(id, now)?;
        match Job::read(w.read(), id)? {
            Some(closed) => closed.keep_outcome(w, now),
            None => Ok(()),
        }
    })
    .await?;
    for part in &job.parts {
        crate::pages::stock::serve_waiting(&app, part.need.item).await?;
    }
    Ok(Redirect::to(&format!("/jobs/{id}/handover")))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_job_is_given_back_for_a_reason_and_a_fee_that_is_an_amount() {
        let of = |who: &str, why: &str, fee: &str| {
            Declining { who: who.to_owned(), why: why.to_owned(), fee: fee.to_owned() }.row(7)
        };
        let row = of(" Tam ", "modified before", "20").expect("all there");
        assert_eq!((row.who.as_str(), row.reason.as_str()), ("Tam", "modified before; to pay 20.00"));
        assert!(of("Tam", "not worth it", "").expect("no fee").reason.ends_with("nothing to pay"));
        for (who, why, fee) in [("", "x", ""), ("Tam", " ", ""), ("Tam", "x", "a tenner")] {
            assert!(matches!(of(who, why, fee), Err(Refusal::Bad(_))), "{who} {why} {fee}");
        }
    }
}
