//! What is wrong with an alloy, or with what joints are fed.

use serde::{Deserialize, Serialize};

/// What is wrong with an alloy, or with what joints are fed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum AlloyProblem {
    /// A share of an element that can't be, wt%.
    ElementShare { percent: f64 },
    /// Shares that do not sum to 100 wt%, give or take `slack`.
    SharesSum { percent: f64, slack: f64 },
    /// A name that is empty or too long.
    #[serde(rename = "bad-alloy-name")]
    BadName { characters: usize, most: usize },
    /// Parts without mass.
    NoMass,
    /// A name that is not in the alloy table.
    NotInTable { text: String, known: Vec<String> },
    /// A part of a composition without its share.
    PartWithoutShare { part: String },
    /// A part of a composition whose share is none.
    BadShare { part: String },
    /// No element that is computed and no alloy of the table.
    NotAMetal { text: String, elements: Vec<String> },
    /// A mixing fraction that can't be fed, 0-1.
    FeedShare { share: f64, most: f64 },
    /// More than the joints of a row can take, wt% of the joint.
    TooMuchFed { percent: f64, alloy: String, row: String },
    /// Where the fed alloy melts could not be computed.
    FeedNotComputed { alloy: String },
    /// Where the metal of a row melts could not be computed.
    RowNotComputed { row: String },
    /// Eight floods and wicks do not clean a row.
    NeverClean { row: String },
    /// Lead into a lead-free product.
    LeadIntoLeadFree { alloy: String },
}
