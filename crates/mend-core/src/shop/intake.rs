//! The intake: its fields, what each may hold, and the terms a customer consents to.

use crate::finding::Finding;
use crate::finding::problem::ValueProblem;
use crate::method::JobKind;
use crate::units::Money;

/// What a field holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FieldKind {
    /// A line of text.
    Line,
    /// Several lines.
    Text,
    /// One of these.
    Choice(&'static [&'static str]),
    /// Yes, or empty.
    Tick,
    /// An amount of money.
    Money,
    /// A day, `2026-11-27`.
    Day,
}

/// A field of the intake.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct IntakeField {
    /// As it is stored and sent.
    pub key: &'static str,
    /// As it is read.
    pub label: &'static str,
    /// What it may hold.
    pub kind: FieldKind,
    /// Must it be there before work begins?
    pub wanted: bool,
}

const fn field(key: &'static str, label: &'static str, kind: FieldKind, wanted: bool) -> IntakeField {
    IntakeField { key, label, kind, wanted }
}

/// How a port breaks.
const BROKE: &[&str] = &["knock with cable in", "drop", "tug", "wear", "liquid", "earlier repair", "not known"];

/// The kinds of jobs by name.
const KINDS: [&str; 6] = {
    let mut names = [""; 6];
    let mut k = 0;
    while k < names.len() {
        names[k] = JobKind::ALL[k].name();
        k += 1;
    }
    names
};

impl IntakeField {
    /// All of them, in the order in which they are asked.
    pub const ALL: [Self; 17] = [
        field("kind", "Kind of job", FieldKind::Choice(&KINDS), false),
        field("customer", "Customer", FieldKind::Line, true),
        field("contact", "Phone or mail", FieldKind::Line, false),
        field("device", "Device and model", FieldKind::Line, true),
        field("serial", "Serial number", FieldKind::Line, false),
        field("symptom", "Symptom, in the customer's words", FieldKind::Text, true),
        field("broke", "How it broke", FieldKind::Choice(BROKE), true),
        field("earlier_work", "Signs of earlier work", FieldKind::Text, true),
        field("inside", "Customer's own parts inside", FieldKind::Text, true),
        field("unchanged", "Must not change", FieldKind::Line, false),
        field("power_on", "Power-on test before opening", FieldKind::Text, true),
        field("consent", "Risk explained, terms accepted", FieldKind::Tick, true),
        field("terms", "Agreed terms", FieldKind::Text, false),
        field("price", "Price agreed", FieldKind::Money, true),
        field("deposit", "Deposit", FieldKind::Money, false),
        field("due", "Due", FieldKind::Day, true),
        field("waits_for", "Waits for", FieldKind::Line, false),
    ];

    /// Must it be there before work begins on a job of this kind? A donor has no customer.
    pub fn is_wanted(self, kind: JobKind) -> bool {
        self.wanted && (kind != JobKind::Harvest || self.key == "device")
    }

    /// The field of that key.
    pub fn named(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|field| field.key == key)
    }
}

/// Longest text a field takes, characters.
const LONGEST: usize = 2000;

/// The value as it is to be kept, or what is wrong with it. An empty value is always fine: it is not there yet.
///
/// ```
/// use mend_core::shop::{IntakeField, check_field};
/// let price = IntakeField::named("price").expect("a field");
/// assert_eq!(check_field(price, " 85 "), Ok("85.00".to_owned()));
/// assert!(check_field(price, "cheap").is_err());
/// ```
pub fn check_field(field: IntakeField, value: &str) -> Result<String, Finding> {
    let value = value.trim();
    let object = |problem: ValueProblem| Err(Finding::blocking("intake", field.key, problem));
    let text = || value.to_owned();
    if value.chars().count() > LONGEST {
        return object(ValueProblem::TooLong { most: LONGEST });
    }
    if value.is_empty() {
        return Ok(String::new());
    }
    match field.kind {
        FieldKind::Money => match value.parse::<Money>() {
            Ok(amount) => Ok(amount.to_string()),
            Err(_) => object(ValueProblem::NotMoney { text: text() }),
        },
        FieldKind::Choice(choices) if !choices.contains(&value) => {
            let choices = choices.iter().map(|choice| (*choice).to_owned()).collect();
            object(ValueProblem::NotAChoice { text: text(), choices })
        }
        FieldKind::Day if !is_day(value) => object(ValueProblem::NotADay { text: text() }),
        _ => Ok(text()),
    }
}

/// A day that the calendar has, `2026-11-27`.
fn is_day(value: &str) -> bool {
    let parts: Vec<&str> = value.split('-').collect();
    let number =
        |at: usize, digits: usize| parts.get(at).filter(|p| p.len() == digits).and_then(|p| p.parse::<u32>().ok());
    let (Some(year), Some(month), Some(day)) = (number(0, 4), number(1, 2), number(2, 2)) else { return false };
    parts.len() == 3 && (1..=days_of(year, month)).contains(&day)
}

/// How many days a month has (Gregorian); none where there is no such month.
const fn days_of(year: u32, month: u32) -> u32 {
    let leap = year.is_multiple_of(4) && (!year.is_multiple_of(100) || year.is_multiple_of(400));
    match month {
        1 | 3 | 5 | 7 | 8 | 10 | 12 => 31,
        4 | 6 | 9 | 11 => 30,
        2 if leap => 29,
        2 => 28,
        _ => 0,
    }
}

/// What is explained before a customer consents.
///
/// ```
/// assert!(mend_core::shop::consent_terms().iter().all(|term| term.ends_with('.')));
/// ```
pub fn consent_terms() -> [&'static str; 4] {
    [
        "Heat near plastics and other parts: what the plan shows as near its limit may be marked or lost.",
        "Pads or barrels under a torn port may already be lifted; that shows only when it is off.",
        "If it can't be mended, the price of the diagnosis is due and the device goes back as it came.",
        "Data stays untouched: nothing is updated, wiped or signed in to.",
    ]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_value_that_can_not_be_names_the_field_and_the_way_out() {
        let of = |key: &str, value: &str| check_field(IntakeField::named(key).expect("a field"), value);
        assert_eq!(of("price", "85"), Ok("85.00".to_owned()));
        let refused = of("price", "cheap").expect_err("not money");
        let not_money = ValueProblem::NotMoney { text: "cheap".to_owned() };
        assert_eq!((refused.place.as_str(), refused.problem), ("price", not_money.into()));
        assert!(of("due", "2026-13-01").is_err());
        assert!(of("due", "2026-11-27").is_ok() && of("due", "2028-02-29").is_ok());
        for none in ["2026-02-31", "2026-02-29", "2026-04-31", "2026-00-10", "2026-1-1", "2026-11-27-1"] {
            assert!(of("due", none).is_err(), "{none}");
        }
        assert!(of("broke", "meteor").is_err());
        assert_eq!(of("symptom", ""), Ok(String::new()));
        assert!(of("symptom", &"a".repeat(2001)).is_err());
    }
}
