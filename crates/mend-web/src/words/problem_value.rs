//! Values that can't be taken, in words.

use mend_core::finding::problem::ValueProblem;

use super::{ProblemWords, Words, problem};

impl Words {
    pub(super) fn value_problem(&self, found: &ValueProblem) -> ProblemWords {
        let unlisted = "choose one of the list";
        match found {
            ValueProblem::OutOfRange { value, low, high, unit, owner: Some(owner) } => problem(
                format!("{} can't be", self.quantity(*value, *unit)),
                format!("{owner} takes {}", self.range(*low, *high, *unit)),
            ),
            ValueProblem::OutOfRange { value, low, high, unit, owner: None } => {
                problem(format!("{} can't be", self.quantity(*value, *unit)), self.between(*low, *high, *unit))
            }
            ValueProblem::NotWhole { value, low, high } => {
                problem(format!("{value} can't be"), format!("a whole number from {low} to {high}"))
            }
            ValueProblem::NotANumber { text, low, high, unit } => {
                problem(format!("“{text}” is no number"), self.between(*low, *high, *unit))
            }
            ValueProblem::NotAChoice { text, choices } if choices.is_empty() => {
                problem(format!("“{text}” is none of the choices"), unlisted)
            }
            ValueProblem::NotAChoice { text, choices } => {
                problem(format!("“{text}” is not on the list"), format!("one of {}", choices.join(", ")))
            }
            ValueProblem::NotAValue { text } => {
                problem(format!("“{text}” is no value"), "with its unit: like 100 nF, 120 ohm or 2.2 uH")
            }
            ValueProblem::NoSuchField { known } if known.is_empty() => {
                problem("is no field of this", "choose one that the page shows")
            }
            ValueProblem::NoSuchField { known } => problem("there is no such size", known.join(", ")),
            ValueProblem::BadName { characters, most } => {
                problem(format!("a name of {characters} characters"), format!("one line of 1 to {most} characters"))
            }
            ValueProblem::TooLong { most } => problem(format!("more than {most} characters"), "shorten it"),
            ValueProblem::NotMoney { text } => problem(format!("“{text}” can't be read"), "an amount like 85 or 85.50"),
            ValueProblem::NotADay { text } => {
                problem(format!("“{text}” is not a day"), "year-month-day, like 2026-11-27")
            }
            ValueProblem::NoSuchRow { row } => {
                problem(format!("“{row}” is no row here"), "name rows as the board does")
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::units::{Scale, Unit};

    fn said(found: &ValueProblem, scale: Scale) -> (String, String) {
        let ProblemWords { message, hint } = Words { scale }.value_problem(found);
        (message, hint)
    }

    #[test]
    fn a_value_out_of_range_is_said_with_its_range_on_the_visitors_scale() {
        let owner = Some("Gull".to_owned());
        let hot = ValueProblem::OutOfRange { value: 500.0, low: 100.0, high: 450.0, unit: Unit::Celsius, owner };
        assert_eq!(said(&hot, Scale::Celsius), ("500 °C can't be".into(), "Gull takes 100 to 450 °C".into()));
        assert_eq!(said(&hot, Scale::Fahrenheit), ("932 °F can't be".into(), "Gull takes 212 to 842 °F".into()));
        let long = ValueProblem::outside(9999.0, (1.0, 600.0), Unit::Seconds).expect("outside");
        assert_eq!(said(&long, Scale::Fahrenheit), ("9999 s can't be".into(), "between 1 and 600 s".into()));
        let share = ValueProblem::outside(2.0, (0.0, 1.0), Unit::One).expect("outside");
        assert_eq!(said(&share, Scale::Celsius).1, "between 0 and 1", "no unit, and no blank where it would stand");
    }

    #[test]
    fn what_was_typed_is_quoted_and_the_choices_are_listed() {
        let text = || "tall".to_owned();
        let number = ValueProblem::NotANumber { text: text(), low: 0.1, high: 60.0, unit: Unit::Millimetres };
        assert_eq!(said(&number, Scale::Celsius), ("“tall” is no number".into(), "between 0.1 and 60 mm".into()));
        let choices = vec!["a".to_owned(), "b".to_owned()];
        assert_eq!(said(&ValueProblem::NotAChoice { text: text(), choices }, Scale::Celsius).1, "one of a, b");
        for plain in [
            ValueProblem::NotAChoice { text: text(), choices: vec![] },
            ValueProblem::NotAValue { text: text() },
            ValueProblem::NoSuchField { known: vec![] },
            ValueProblem::NoSuchField { known: vec!["pitch".to_owned()] },
            ValueProblem::NotWhole { value: 8.5, low: 4.0, high: 60.0 },
            ValueProblem::BadName { characters: 90, most: 80 },
            ValueProblem::TooLong { most: 2000 },
            ValueProblem::NotMoney { text: text() },
            ValueProblem::NotADay { text: text() },
            ValueProblem::NoSuchRow { row: text() },
        ] {
            let (message, hint) = said(&plain, Scale::Celsius);
            assert!(!message.is_empty() && !hint.is_empty(), "{plain:?}");
        }
    }
}
