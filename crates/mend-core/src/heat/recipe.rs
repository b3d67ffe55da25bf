//! A recipe: the stages one after the other, what helps at the same time, and the shields that stay on throughout.

use serde::{Deserialize, Serialize};

use super::bridge::Bridge;
use super::iron::Iron;
use super::motion::Motion;
use super::preheater::Preheater;
use super::shield::Shield;
use super::tool::{Approach, HotAir, Tilt, is_middle};
use crate::board::{Board, Face};
use crate::units::{Duration, Flow, Length, Temperature};

/// The tools of one release: stages before, then the air under which the part comes away.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(try_from = "RecipeFile", into = "RecipeFile")]
pub struct Recipe {
    /// The last stage: the part comes away under this air; none where what helps does it alone.
    pub air: Option<HotAir>,
    /// When to give up if nothing is said sooner: the longest that the last stage lasts.
    pub longest: Duration,
    /// What comes before, in order.
    pub preheat: Vec<HeatingStage>,
    /// What helps during the last stage.
    pub during: HeatingAids,
    /// What lies over components, all the time.
    pub shields: Vec<Shield>,
    /// What joins the joints, all the time.
    pub bridge: Option<Bridge>,
    /// What holds the nozzle.
    pub held: Held,
    /// How warm the board is before the first tool, from a pass before; ambient where nothing is said.
    pub begins_at: Option<Temperature>,
    /// Is the part levered up joint by joint, each while it is liquid, instead of coming away all at once?
    pub levered: bool,
}

fn is_false(value: &bool) -> bool {
    !value
}

/// What holds the nozzle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Held {
    /// A hand: its distance and its aim are guesses.
    #[default]
    Hand,
    /// A stand.
    Stand,
}

fn by_hand(held: &Held) -> bool {
    *held == Held::Hand
}

/// As it is written: the air's own fields stand beside the rest. Spelt out, not flattened: a reader that flattens can't say
/// which field was wrong.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct RecipeFile {
    #[serde(default, skip_serializing_if = "Option::is_none")]
    set_c: Option<Temperature>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    flow_lpm: Option<Flow>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    nozzle_mm: Option<Length>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    distance_mm: Option<Length>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    face: Option<Face>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    motion: Option<Motion>,
    #[serde(default, skip_serializing_if = "is_middle")]
    aim_mm: [f64; 2],
    #[serde(default, skip_serializing_if = "Option::is_none")]
    approach: Option<Approach>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    tilt: Option<Tilt>,
    longest_s: Duration,
    #[serde(default, alias = "before", skip_serializing_if = "Vec::is_empty")]
    preheat: Vec<HeatingStage>,
    #[serde(default, alias = "with", skip_serializing_if = "HeatingAids::is_none")]
    during: HeatingAids,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    shields: Vec<Shield>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    bridge: Option<Bridge>,
    #[serde(default, skip_serializing_if = "by_hand")]
    held: Held,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    begins_at_c: Option<Temperature>,
    #[serde(default, skip_serializing_if = "is_false")]
    levered: bool,
}

/// Said of an air of which only a part is written.
const HALF_AN_AIR: &str =
    "missing field: air has set_c, flow_lpm, nozzle_mm, distance_mm, face and motion, or none of them";

impl TryFrom<RecipeFile> for Recipe {
    type Error = &'static str;

    fn try_from(w: RecipeFile) -> Result<Self, Self::Error> {
        let air = match (w.set_c, w.flow_lpm, w.nozzle_mm, w.distance_mm, w.face, w.motion) {
            (Some(set), Some(flow), Some(nozzle), Some(distance), Some(face), Some(motion)) => {
                let (aim, approach, tilt) = (w.aim_mm, w.approach, w.tilt);
                Some(HotAir { set, flow, nozzle, distance, face, motion, aim, approach, tilt })
            }
            (None, None, None, None, None, None) => None,
            _ => return Err(HALF_AN_AIR),
        };
        let (preheat, during, shields, bridge) = (w.preheat, w.during, w.shields, w.bridge);
        let (longest, held, begins_at, levered) = (w.longest_s, w.held, w.begins_at_c, w.levered);
        Ok(Self { air, longest, preheat, during, shields, bridge, held, begins_at, levered })
    }
}

impl From<Recipe> for RecipeFile {
    fn from(recipe: Recipe) -> Self {
        let Recipe { air, longest, preheat, during, shields, bridge, held, begins_at, levered } = recipe;
        Self {
            set_c: air.map(|air| air.set),
            flow_lpm: air.map(|air| air.flow),
            nozzle_mm: air.map(|air| air.nozzle),
            distance_mm: air.map(|air| air.distance),
            face: air.map(|air| air.face),
            motion: air.map(|air| air.motion),
            aim_mm: air.map_or([0.0, 0.0], |air| air.aim),
            approach: air.and_then(|air| air.approach),
            tilt: air.and_then(|air| air.tilt),
            longest_s: longest,
            preheat,
            during,
            shields,
            bridge,
            held,
            begins_at_c: begins_at,
            levered,
        }
    }
}

/// A stage before the last: a soak, a preheater alone, or a pause with nothing on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HeatingStage {
    /// Hot air, if any.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air: Option<HotAir>,
    /// What helps at the same time.
    #[serde(default, alias = "with", skip_serializing_if = "HeatingAids::is_none")]
    pub during: HeatingAids,
    /// How long.
    #[serde(rename = "lasts_s")]
    pub lasts: Duration,
    /// Until the next tool is at work: nothing blows meanwhile, a preheater stays.
    #[serde(rename = "change_s", default)]
    pub change: Duration,
}

/// What works beside the air.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HeatingAids {
    /// A preheater.
    #[serde(default, alias = "plate", skip_serializing_if = "Option::is_none")]
    pub preheater: Option<Preheater>,
    /// An iron.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub iron: Option<Iron>,
    /// One in the other hand, or the other arm of hot tweezers.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub second_iron: Option<Iron>,
}

impl HeatingAids {
    /// Nothing beside the air?
    pub fn is_none(&self) -> bool {
        self.preheater.is_none() && self.irons().next().is_none()
    }

    /// Every iron.
    pub fn irons(&self) -> impl Iterator<Item = &Iron> {
        self.iron.iter().chain(&self.second_iron)
    }
}

impl From<HotAir> for Recipe {
    /// One stage of up to four minutes, nothing else.
    fn from(air: HotAir) -> Self {
        Self { air: Some(air), ..Self::from(HeatingAids::default()) }
    }
}

impl From<HeatingAids> for Recipe {
    /// One stage of up to four minutes without air, nothing else.
    fn from(during: HeatingAids) -> Self {
        let longest = Duration::seconds(240.0);
        let held = Held::default();
        let (preheat, shields, bridge, begins_at) = (Vec::new(), Vec::new(), None, None);
        Self { air: None, longest, preheat, during, shields, bridge, held, begins_at, levered: false }
    }
}

impl Recipe {
    /// From the first tool to the last stage, whole seconds.
    pub fn seconds_before(&self) -> usize {
        self.preheat.iter().map(HeatingStage::seconds).sum()
    }

    /// Every air, in order.
    pub fn airs(&self) -> impl Iterator<Item = &HotAir> {
        self.preheat.iter().filter_map(|stage| stage.air.as_ref()).chain(&self.air)
    }

    /// The face that the last stage works on: its air's, else the part's own, where a hand gets to.
    pub fn face(&self, board: &Board) -> Face {
        self.air.map_or(board.connector.face, |air| air.face)
    }

    /// Is one joint heated after the other, each for itself? Then none need be molten with another.
    pub fn in_turn(&self, board: &Board) -> bool {
        let mut irons = self.during.irons();
        self.air.is_none() && irons.next().is_some_and(|iron| iron.one_joint(board).is_some()) && irons.next().is_none()
    }

    /// From the first tool to the maximum heating time, whole seconds.
    pub fn seconds(&self) -> usize {
        self.seconds_before() + self.longest.in_seconds() as usize
    }
}

impl HeatingStage {
    /// How long with the change after it, whole seconds.
    pub fn seconds(&self) -> usize {
        self.lasts.in_seconds() as usize + self.change.in_seconds() as usize
    }

    /// What it is, in a word or two.
    pub fn name(&self) -> &'static str {
        match (&self.air, &self.during.preheater, self.during.irons().next()) {
            (Some(_), Some(_), _) => "air and preheater",
            (Some(_), None, _) => "air",
            (None, Some(_), _) => "preheater",
            (None, None, Some(_)) => "iron",
            (None, None, None) => "pause",
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::method::usual;

    #[test]
    fn seconds_count_stages_and_the_changes_between_them() {
        let bench = Bench::try_new().expect("the example");
        let stage = usual::soak(&bench.board, &bench.station, &bench.recipe.air.expect("hot air"));
        let recipe = Recipe { preheat: vec![stage.clone(), stage], ..bench.recipe };
        assert_eq!((recipe.seconds_before(), recipe.seconds()), (100, 340));
        assert_eq!(recipe.airs().count(), 3);
    }

    #[test]
    fn a_joint_on_its_own_is_heated_in_turn_and_a_row_is_not() {
        let board = Bench::try_new().expect("the example").board;
        let held_on = |row: &str| {
            let iron = Iron { row: row.to_owned(), ..usual::iron(&board) };
            Recipe::from(HeatingAids { iron: Some(iron), ..HeatingAids::default() })
        };
        assert!(held_on("leg 1").in_turn(&board) && !held_on("anchors").in_turn(&board));
        assert_eq!(held_on("anchors").face(&board), board.connector.face, "where a hand gets to");
    }

    #[test]
    fn a_stage_is_called_by_what_is_hot_in_it() {
        let bench = Bench::try_new().expect("the example");
        let preheater = HeatingAids { preheater: Some(usual::preheater(&bench.board)), ..HeatingAids::default() };
        assert_eq!(usual::warm(preheater.clone()).name(), "preheater");
        assert_eq!(usual::warm(HeatingAids::default()).name(), "pause");
        let both = HeatingStage { air: bench.recipe.air, ..usual::warm(preheater) };
        assert_eq!(both.name(), "air and preheater");
    }

    #[test]
    fn half_an_air_is_refused() {
        let half = r#"{"set_c": 400, "longest_s": 240}"#;
        let why = serde_json::from_str::<Recipe>(half).expect_err("no flow").to_string();
        assert!(why.contains("missing field: air has set_c"), "{why}");
        let none: Recipe = serde_json::from_str(r#"{"longest_s": 240}"#).expect("an iron may do without air");
        assert_eq!(none.air, None);
    }
}
