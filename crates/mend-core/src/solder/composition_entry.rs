//! What the joints hold and are fed as a person enters it: alloys by name, an amount as a fraction of the joint. Computes the
//! [`JointComposition`] that is meant; what may be fed to a board is checked by [`JointComposition::check`].

use serde::{Deserialize, Serialize};

use super::factory_guess::{Guess, MakersMark, factory_guess};
use super::joint_composition::{Feed, JointComposition};
use super::wire::Wire;
use crate::finding::Finding;
use crate::materials::Metal;

/// What is fed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct FeedEntry {
    /// Alloy of the table, or parts like `Sn=43,Pb=43,Bi=14`.
    pub alloy: String,
    /// Mass fraction of it in a joint, 0-0.95.
    #[serde(alias = "share")]
    pub mixing_fraction: f64,
    /// Diameter of the wire, mm.
    #[serde(default = "usual_wire")]
    pub wire_mm: f64,
    /// Mass fraction of flux in the wire, 0-0.1.
    #[serde(default = "usual_flux")]
    pub flux_share: f64,
    /// Rows that get it.
    pub rows: Vec<String>,
}

fn usual_wire() -> f64 {
    Wire::USUAL.diameter_mm
}

fn usual_flux() -> f64 {
    Wire::USUAL.flux_share
}

impl FeedEntry {
    /// Is any of it fed to any joint?
    pub fn is_used(&self) -> bool {
        self.mixing_fraction > 0.0 && !self.rows.is_empty()
    }

    fn feed(&self) -> Result<Feed, Vec<Finding>> {
        let metal = Metal::parse("feed.alloy", &self.alloy)?;
        let wire = Wire { diameter_mm: self.wire_mm, flux_share: self.flux_share };
        Ok(Feed { metal, wire, mixing_fraction: self.mixing_fraction, rows: self.rows.clone() })
    }
}

impl From<&Feed> for FeedEntry {
    fn from(feed: &Feed) -> Self {
        Self {
            alloy: feed.metal.name.clone(),
            mixing_fraction: feed.mixing_fraction,
            wire_mm: feed.wire.diameter_mm,
            flux_share: feed.wire.flux_share,
            rows: feed.rows.clone(),
        }
    }
}

/// What is entered of the joints: their alloy, or what it is guessed from; what is fed; what the new part is soldered with.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CompositionEntry {
    /// The factory's alloy; empty: as guessed.
    #[serde(default)]
    pub alloy: String,
    /// When the board was built, where that is known.
    #[serde(default)]
    pub year: Option<u32>,
    /// What is printed on it.
    #[serde(default)]
    pub mark: MakersMark,
    /// What is fed.
    #[serde(default)]
    pub feed: Option<FeedEntry>,
    /// What the new part is soldered with; left out: as the factory did.
    #[serde(default)]
    pub refit: Option<String>,
}

impl CompositionEntry {
    /// The guess at the factory's alloy.
    pub fn guess(&self) -> Guess {
        factory_guess(self.year, self.mark)
    }

    /// The factory's alloy, as entered or as guessed.
    pub fn factory(&self) -> &str {
        if self.alloy.is_empty() { self.guess().alloy } else { &self.alloy }
    }

    /// What the joints hold and are fed, or every name that is no alloy.
    ///
    /// ```
    /// use mend_core::solder::{CompositionEntry, FeedEntry};
    /// let feed = FeedEntry {
    ///     alloy: "Sn42Bi58".to_owned(),
    ///     mixing_fraction: 0.4,
    ///     wire_mm: 0.5,
    ///     flux_share: 0.02,
    ///     rows: vec!["A".to_owned()],
    /// };
    /// let entry = CompositionEntry { alloy: "SAC305".to_owned(), feed: Some(feed), ..CompositionEntry::default() };
    /// let composition = entry.composition().expect("alloys of the table");
    /// assert_eq!(composition.fed().map(|feed| feed.metal.name.as_str()), Some("Sn42Bi58"));
    /// assert_eq!(composition.refit.name, "SAC305");
    /// ```
    pub fn composition(&self) -> Result<JointComposition, Vec<Finding>> {
        let factory = Metal::parse("alloy", self.factory())?;
        let refit = self.refit.as_deref().map(|name| Metal::parse("refit", name)).transpose()?;
        let feed = self.feed.as_ref().map(FeedEntry::feed).transpose()?;
        Ok(JointComposition { refit: refit.unwrap_or_else(|| factory.clone()), factory, feed, finished: Vec::new() })
    }
}
