//! What the joints hold and are fed: the part of a bundle or a job that the alloy stop writes.

use mend_core::finding::Finding;
use mend_core::materials::Metal;
use mend_core::solder::{Feed, Guess, JointComposition, MakersMark, Wire, factory_guess};
use serde::{Deserialize, Serialize};

/// What is fed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct FeedFile {
    /// Alloy of the table, or parts like `Sn=43,Pb=43,Bi=14`.
    pub alloy: String,
    /// Mass share of it in a joint, 0-0.95.
    pub share: f64,
    /// Wire, mm.
    #[serde(default = "usual_wire")]
    pub wire_mm: f64,
    /// Mass share of flux in the wire, 0-0.1.
    #[serde(default = "usual_flux")]
    pub flux_share: f64,
    /// Rows that get it.
    pub rows: Vec<String>,
}

impl FeedFile {
    /// Is any of it fed to any joint?
    pub fn is_used(&self) -> bool {
        self.share > 0.0 && !self.rows.is_empty()
    }
}

fn usual_wire() -> f64 {
    Wire::USUAL.diameter_mm
}
fn usual_flux() -> f64 {
    Wire::USUAL.flux_share
}

/// The charge, or what is wrong with it. Without `refit` the new part is soldered with what the factory used.
pub fn read(alloy: &str, feed: Option<&FeedFile>, refit: Option<&str>) -> Result<JointComposition, Vec<Finding>> {
    let factory = Metal::read("alloy", alloy)?;
    let refit = refit.map(|name| Metal::read("refit", name)).transpose()?.unwrap_or_else(|| factory.clone());
    let feed = feed.map(|file| {
        let metal = Metal::read("feed.alloy", &file.alloy)?;
        let wire = Wire { diameter_mm: file.wire_mm, flux_share: file.flux_share };
        Ok::<_, Vec<Finding>>(Feed { metal, wire, share: file.share, rows: file.rows.clone() })
    });
    Ok(JointComposition { factory, feed: feed.transpose()?, refit })
}

/// What the alloy stop keeps of a job: [`read`]'s parts, and what the factory's alloy was guessed from.
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
    pub feed: Option<FeedFile>,
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

    /// The charge, or what is wrong with it.
    pub fn composition(&self) -> Result<JointComposition, Vec<Finding>> {
        read(self.factory(), self.feed.as_ref(), self.refit.as_deref())
    }

    /// As the store keeps it.
    pub fn write(&self) -> Result<String, serde_json::Error> {
        serde_json::to_string(self)
    }

    /// Read back.
    pub fn parse(json: &str) -> Option<Self> {
        serde_json::from_str(json).ok()
    }
}
