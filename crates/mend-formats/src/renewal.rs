//! What a shop stored under older names, as it is written today. What can't be read stays as it is: an export loses nothing.

use mend_core::planning::sequence::step::Step;

use crate::reading::{Accepted, format_name};
use crate::{board, composition, equipment, plan, shop};

/// A board's file.
pub fn board(text: &str) -> String {
    renewed(text, &board::ACCEPTED, |text| board::write(&board::parse(text.as_bytes()).ok()?).ok())
}

/// An equipment file.
pub fn equipment(text: &str) -> String {
    renewed(text, &equipment::ACCEPTED, |text| equipment::write(&equipment::parse(text.as_bytes()).ok()?).ok())
}

/// A plan.
pub fn plan(text: &str) -> String {
    renewed(text, &plan::ACCEPTED, |text| plan::write(&plan::read_kept(text)?).ok())
}

/// What a plan was made from. It has no format's name: it is read and written.
pub fn inputs(text: &str) -> String {
    or_as_it_is(text, |text| shop::write_inputs(&shop::read_inputs(text)?).ok())
}

/// What the joints hold.
pub fn composition(text: &str) -> String {
    or_as_it_is(text, |text| composition::write(&composition::parse(text)?).ok())
}

/// The steps of a bench run.
pub fn steps(text: &str) -> String {
    or_as_it_is(text, |text| serde_json::to_string(&serde_json::from_str::<Vec<Step>>(text).ok()?).ok())
}

/// Written anew where it is under an older name; what is under the present one is handed on to the byte.
fn renewed(text: &str, accepted: &Accepted, write: impl FnOnce(&str) -> Option<String>) -> String {
    let older = format_name(text.as_bytes()).is_some_and(|name| name != accepted.written);
    if older { or_as_it_is(text, write) } else { text.to_owned() }
}

fn or_as_it_is(text: &str, write: impl FnOnce(&str) -> Option<String>) -> String {
    write(text).unwrap_or_else(|| text.to_owned())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_older_name_is_written_as_the_present_one_and_everything_else_as_it_is() {
        let older = r#"{"format":"urgent-mend/means/1","level":"trained","tips_mm":[2],"preheater":true,"sucker":"none","wire":false,"shields":[],"alloys":["SAC305"]}"#;
        let present = equipment(older);
        assert!(present.contains("urgent-mend/equipment/2") && !present.contains("means"), "{present}");
        assert_eq!(equipment(&present), present, "the present one to the byte");
        let unreadable = older.replace("SAC305", "butter");
        assert_eq!(equipment(&unreadable), unreadable, "nothing is lost");
    }

    #[test]
    fn a_feeds_share_is_its_mixing_fraction() {
        let older =
            r#"{"alloy":"SAC305","feed":{"alloy":"Sn42Bi58","share":0.4,"wire_mm":0.5,"flux_share":0.02,"rows":[]}}"#;
        let present = composition(older);
        assert!(present.contains(r#""mixing_fraction":0.4"#) && !present.contains(r#""share""#), "{present}");
        assert_eq!(composition("no JSON"), "no JSON");
        assert_eq!((inputs("[]"), steps("{}")), ("[]".to_owned(), "{}".to_owned()));
    }
}
