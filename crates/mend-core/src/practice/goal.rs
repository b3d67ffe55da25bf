//! What is to be done in an attempt, and what stands against it on a board.

use serde::{Deserialize, Serialize};

use crate::board::{Board, row_names};
use crate::heat::purpose::Purpose;
use crate::materials::{Alloy, Metal};
use crate::solder::{Feed, JointComposition, Wire};

/// What is fed before it is cleaned up, where nothing was: low-melt, to this mass fraction of each joint.
const LOW_MELT: (&str, f64) = ("Sn42Bi58", 0.6);

/// What is to be done.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum PracticeGoal {
    /// The part comes off.
    #[default]
    Remove,
    /// The new part, in its place, is soldered.
    Fit,
    /// Every plated hole is emptied with iron and braid.
    ClearHoles,
    /// What was fed comes off every joint, until what stays is within limits.
    CleanUp,
}

/// Why a goal can't be practised on a board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum GoalObstacle {
    /// Its part has no plated hole.
    NoHole,
    /// Nothing was fed to its joints.
    NothingFed,
}

impl PracticeGoal {
    /// All of them, in the order in which a job has them.
    pub const ALL: [Self; 4] = [Self::Remove, Self::CleanUp, Self::ClearHoles, Self::Fit];

    /// What the heat is for.
    pub const fn purpose(self) -> Purpose {
        match self {
            Self::Remove => Purpose::Remove,
            Self::Fit => Purpose::Fit,
            Self::ClearHoles | Self::CleanUp => Purpose::Clear,
        }
    }

    /// Is a part to be gripped?
    pub const fn has_part(self) -> bool {
        self.purpose().has_part()
    }

    /// What stands against it on a board whose joints hold this.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// use mend_core::practice::goal::{GoalObstacle, PracticeGoal};
    /// let bench = Bench::try_new().expect("the example");
    /// let against = |goal: PracticeGoal| goal.obstacle(&bench.board, &bench.composition);
    /// assert_eq!(against(PracticeGoal::Fit), None);
    /// assert_eq!(against(PracticeGoal::CleanUp), Some(GoalObstacle::NothingFed));
    /// ```
    pub fn obstacle(self, board: &Board, composition: &JointComposition) -> Option<GoalObstacle> {
        match self {
            Self::ClearHoles if board.connector.holes() == 0 => Some(GoalObstacle::NoHole),
            Self::CleanUp if composition.fed().is_none() => Some(GoalObstacle::NothingFed),
            _ => None,
        }
    }
}

/// What somebody feeds to every joint who then cleans it up. None: the table no longer has the alloy, which a test holds.
///
/// ```
/// use mend_core::example::Bench;
/// let board = Bench::try_new().expect("the example").board;
/// assert!(mend_core::practice::goal::low_melt(&board).is_some());
/// ```
pub fn low_melt(board: &Board) -> Option<Feed> {
    let (alloy, mixing_fraction) = LOW_MELT;
    let metal = Metal::from(Alloy::named(alloy)?);
    let rows = row_names(&board.connector.joints).into_iter().map(str::to_owned).collect();
    Some(Feed { metal, wire: Wire::USUAL, mixing_fraction, rows })
}
