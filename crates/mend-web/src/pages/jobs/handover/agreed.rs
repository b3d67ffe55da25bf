//! What the customer said, what was found, what was agreed and is left to be paid.

use mend_core::shop::estimate::balance::{Account, Balance};
use mend_core::units::Money;
use mend_store::ExtraRow;

use super::line::{SheetLine, line};
use crate::job::{CONDITION, CONDITION_AFTER, Job};
use crate::words;

fn typed(job: &Job, what: &str, key: &str) -> Option<SheetLine> {
    Some(job.intake(key)).filter(|value| !value.is_empty()).map(|value| line(what, value))
}

pub(super) fn found(job: &Job) -> Vec<SheetLine> {
    let lines = [
        typed(job, "Reported", "symptom"),
        typed(job, "How it broke", "broke"),
        typed(job, "Earlier work", "earlier_work"),
        typed(job, "Yours, inside", "inside"),
        typed(job, "Before opening", "power_on"),
    ];
    lines.into_iter().flatten().collect()
}

/// Lands that were not whole, before the heat and with the part off.
pub(super) fn broken(job: &Job) -> Vec<SheetLine> {
    let lists = [("Lands, as found", CONDITION), ("Lands, part off", CONDITION_AFTER)];
    let of = |(what, list): (&str, &str)| {
        let broken = job.broken_in(list);
        let listed: Vec<String> =
            broken.iter().map(|(joint, state)| format!("{} {}", joint.name, state.name())).collect();
        (!listed.is_empty()).then(|| line(what, listed.join(", ")))
    };
    lists.into_iter().filter_map(of).collect()
}

/// What was found while inside, with the answer.
pub(super) fn extra(row: &ExtraRow) -> SheetLine {
    let price = if row.price.is_empty() { String::new() } else { format!(", {}", row.price) };
    let answer =
        if row.answer.is_empty() { "not answered".to_owned() } else { format!("{} by {}", row.answer, row.who) };
    line("Found inside", format!("{}{price}: {answer}", row.what))
}

pub(super) fn agreed(job: &Job) -> Vec<SheetLine> {
    let part = job.board.as_ref().map_or("", |(_, board)| board.connector.name.as_str());
    let price = words::price_line(job.kind(), part);
    let declined = job.declined().map(|row| line("Given back as it is", row.reason.clone()));
    let lines = [
        declined,
        // Of a job that was given back as it is only what its reason says is to be paid.
        typed(job, &price, "price").filter(|_| job.declined().is_none()),
        typed(job, "Deposit", "deposit"),
        typed(job, "Terms", "terms"),
        typed(job, "Left unchanged", "unchanged"),
    ];
    lines.into_iter().flatten().collect()
}

/// What is left to be paid, with what it is made of; none where no price was agreed, or of a job that was given back as it is.
pub(super) fn to_pay(job: &Job, extras: &[ExtraRow], currency: &str) -> Option<SheetLine> {
    let agreed = job.intake("price").parse::<Money>().ok().filter(|_| job.declined().is_none())?;
    let accepted = extras.iter().filter(|row| row.is_accepted());
    let extras: Vec<Money> = accepted.filter_map(|row| row.price.parse().ok()).collect();
    let deposit = job.intake("deposit").parse().unwrap_or_default();
    let added = extras.iter().map(|extra| format!(" + {extra}"));
    let paid = (deposit > Money::default()).then(|| format!(" − {deposit}"));
    let besides: String = added.chain(paid).collect();
    let made_of = if besides.is_empty() { besides } else { format!(" ({agreed}{besides})") };
    Some(match (Account { agreed, extras, deposit }).balance() {
        Balance::ToPay(left) => line("Left to pay", format!("{left} {currency}{made_of}")),
        Balance::ToReturn(left) => line("To give back", format!("{left} {currency}{made_of}")),
    })
}
