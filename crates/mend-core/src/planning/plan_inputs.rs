//! What a plan of a job is made from as a person enters it, but for the board: the station by name, alloys by name, the recipe.

use serde::{Deserialize, Serialize};

use crate::board::{Board, KeepIntact};
use crate::finding::Finding;
use crate::heat::purpose::Purpose;
use crate::heat::recipe::Recipe;
use crate::method::MethodChoice;
use crate::solder::{CompositionEntry, FeedEntry, JointComposition};

/// What a plan of a job is made from, but for the board.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PlanInputs {
    /// Name of the station.
    pub station: String,
    /// The factory's alloy in the joints: of the table, or parts like `Sn=43,Pb=43,Bi=14`.
    pub alloy: String,
    /// What is fed to some of them before heat.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub feed: Option<FeedEntry>,
    /// What the new part is soldered with; left out: as the factory did.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub refit: Option<String>,
    /// What is kept intact; older files say only whether the part is.
    #[serde(default, alias = "must_live", alias = "part_must_live")]
    pub keep_intact: KeepIntact,
    /// The method that was chosen, and by which techniques.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<MethodChoice>,
    /// What the heat is for.
    #[serde(default, skip_serializing_if = "is_removal")]
    pub purpose: Purpose,
    /// What is done with it.
    pub settings: Recipe,
}

fn is_removal(purpose: &Purpose) -> bool {
    *purpose == Purpose::Remove
}

impl PlanInputs {
    /// The same settings for joints that hold this.
    pub fn with(self, file: &CompositionEntry) -> Self {
        Self { alloy: file.factory().to_owned(), feed: file.feed.clone(), refit: file.refit.clone(), ..self }
    }

    /// What the joints hold, as the alloy stop keeps it.
    pub fn composition_entry(&self) -> CompositionEntry {
        CompositionEntry {
            alloy: self.alloy.clone(),
            feed: self.feed.clone(),
            refit: self.refit.clone(),
            ..CompositionEntry::default()
        }
    }

    /// What the joints hold before heat, or what is wrong with it.
    pub fn composition(&self) -> Result<JointComposition, Vec<Finding>> {
        self.composition_entry().composition()
    }

    /// What the joints of a board hold in the run that is planned: of a fit what they hold with the new part on them.
    pub fn heated_composition(&self, board: &Board) -> Result<JointComposition, Vec<Finding>> {
        let composition = self.composition()?;
        Ok(if self.purpose.fits() { composition.for_fit(board) } else { composition })
    }
}
