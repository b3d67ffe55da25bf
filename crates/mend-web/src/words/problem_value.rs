//! Values that can't be taken, in words.

use mend_core::finding::problem::ValueProblem;

use super::{ProblemWords, Words, problem};

impl Words {
    pub(super) fn value_problem(&self, found: &ValueProblem) -> ProblemWords {
        let unlisted = "choose one of the list";
        match found {
            ValueProblem::OutOfRange { value, low, high, unit, owner: Some(owner) } => problem(
                format!("{} can't be", self.quantity(*value, *unit)),
                format!("{owner} takes {}", self.range((*low, *high), *unit)),
            ),
            ValueProblem::OutOfRange { value, low, high, unit, owner: None } => {
                problem(format!("{} can't be", self.quantity(*value, *unit)), self.between((*low, *high), *unit))
            }
            ValueProblem::NotWhole { value, low, high } => {
                problem(format!("{value} can't be"), format!("a whole number from {low} to {high}"))
            }
            ValueProblem::NotANumber { text, low, high, unit } => {
                problem(format!("“{text}” is no number"), self.between((*low, *high), *unit))
            }
            ValueProblem::NotAChoice { text, choices } if choices.is_empty() => {
                problem(format!("“{text}” is none of the choices"), unlisted)
            }
            ValueProblem::NotAChoice { text, choices } => {
                problem(format!("“{text}” is not on the list"), format!("one of {}", choices.join(", ")))
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
