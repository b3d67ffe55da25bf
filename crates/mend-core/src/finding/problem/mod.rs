//! Every kind of problem that a rule can find, with what it is about: names as the board gives them, quantities with their unit in
//! the field's name.

mod alloy;
mod board;
mod draft;
mod joint;
mod plan;
mod settings;
mod value;

use serde::{Deserialize, Serialize};

pub use alloy::AlloyProblem;
pub use board::{BoardProblem, Named};
pub use draft::DraftProblem;
pub use joint::JointProblem;
pub use plan::PlanProblem;
pub use settings::SettingsProblem;
pub use value::ValueProblem;

/// What is the matter. Written as `{"kind": …}` with its values; no kind stands in two of the lists.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum Problem {
    /// A value that can't be.
    Value(ValueProblem),
    /// A board, its part or what stands near.
    Board(BoardProblem),
    /// An act on a draft.
    Draft(DraftProblem),
    /// Settings of the heat.
    Settings(SettingsProblem),
    /// What a heat run showed.
    Plan(PlanProblem),
    /// An alloy, or what joints are fed.
    Alloy(AlloyProblem),
    /// A finished joint.
    Joint(JointProblem),
    /// Said in words by whoever read a file or a form; also what older versions wrote.
    Written {
        /// What is wrong, with the value.
        message: String,
        /// What would mend it.
        hint: String,
    },
}

macro_rules! from_list {
    ($($list:ident => $variant:ident),*) => {
        $(impl From<$list> for Problem {
            fn from(problem: $list) -> Self {
                Self::$variant(problem)
            }
        })*
    };
}

from_list!(
    ValueProblem => Value,
    BoardProblem => Board,
    DraftProblem => Draft,
    SettingsProblem => Settings,
    PlanProblem => Plan,
    AlloyProblem => Alloy,
    JointProblem => Joint
);

impl Problem {
    /// A problem in the words of whoever read a file or a form.
    pub fn written(message: impl Into<String>, hint: impl Into<String>) -> Self {
        Self::Written { message: message.into(), hint: hint.into() }
    }
}
