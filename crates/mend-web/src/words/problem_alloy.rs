//! What is wrong with an alloy or a feed, in words.

use mend_core::finding::problem::AlloyProblem;

use super::{ProblemWords, Words, problem};

const PARTS: &str = "name an alloy like SAC305, or give parts like Sn=43,Pb=43,Bi=14";

impl Words {
    pub(super) fn alloy_problem(&self, found: &AlloyProblem) -> ProblemWords {
        match found {
            AlloyProblem::ElementShare { percent } => {
                problem(format!("{percent} % can't be"), "a share is between 0 and 100 %")
            }
            AlloyProblem::SharesSum { percent, slack } => problem(
                format!("the parts sum to {percent:.2} %"),
                format!("they must sum to 100 %, give or take {slack}"),
            ),
            AlloyProblem::BadName { characters: 0, .. } => problem("no solder is named", PARTS),
            AlloyProblem::BadName { .. } => problem("is too long", PARTS),
            AlloyProblem::NoMass => problem("has no mass", "give parts that sum to 100 %"),
            AlloyProblem::NotInTable { text, known } => problem(
                format!("“{text}” is not in the alloy table"),
                format!("take one of {}, or give parts like Sn=43,Pb=57", known.join(", ")),
            ),
            AlloyProblem::PartWithoutShare { part } => problem(format!("“{part}” has no share"), "write it as Sn=43"),
            AlloyProblem::BadShare { part } => {
                problem(format!("“{part}” is no share"), "a share is a number between 0 and 100")
            }
            AlloyProblem::NotAMetal { text, elements } => problem(
                format!("“{text}” is no element that is computed and no alloy of the table"),
                format!("take {}, or an alloy of the table", elements.join(", ")),
            ),
            AlloyProblem::FeedShare { share, most } => problem(
                format!("a mixing fraction of {share} can't be fed"),
                format!("between 0 and {most} of a joint's metal"),
            ),
            AlloyProblem::TooMuchFed { percent, alloy, row } => problem(
                format!("{percent:.0} % of {alloy} is more than {row} can take"),
                "feed less, or clear these joints first",
            ),
            AlloyProblem::FeedNotComputed { alloy } => {
                problem(format!("where {alloy} melts could not be computed"), "take another alloy")
            }
            AlloyProblem::RowNotComputed { row } => problem(
                format!("where the metal of {row} melts could not be computed"),
                "take another alloy or another amount",
            ),
            AlloyProblem::NeverClean { row } => problem(
                format!("eight floods and wicks do not clean {row}"),
                "feed less, or an alloy without bismuth and indium",
            ),
            AlloyProblem::LeadIntoLeadFree { alloy } => problem(
                format!("{alloy} brings lead into a lead-free product"),
                "the shop decides and says so on the record; local rules apply",
            ),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_solder_that_can_not_be_read_says_how_to_write_it() {
        let said = |found: AlloyProblem| Words::default().alloy_problem(&found);
        assert_eq!(said(AlloyProblem::BadName { characters: 0, most: 200 }).message, "no solder is named");
        assert!(said(AlloyProblem::BadName { characters: 201, most: 200 }).hint.contains("Sn=43,Pb=43,Bi=14"));
        assert_eq!(said(AlloyProblem::SharesSum { percent: 97.0, slack: 0.5 }).message, "the parts sum to 97.00 %");
        let elements = vec!["Sn".to_owned(), "Pb".to_owned()];
        let unknown = said(AlloyProblem::NotAMetal { text: "Xx".to_owned(), elements });
        assert_eq!(unknown.hint, "take Sn, Pb, or an alloy of the table");
    }
}
