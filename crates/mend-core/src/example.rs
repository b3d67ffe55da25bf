//! A made-up bench for the examples of this documentation: a board with a USB-C port and a latch beside it, a station, a usual
//! shop, joints as the factory left them, air from below. Nothing of it is a default of the application.

use crate::board::library::{self, Values};
use crate::board::{Board, ComponentKind, Face, KeepIntact, Outline, Point, Pose, Rect, StackUp, Turn};
use crate::heat::known::Knowledge;
use crate::heat::motion::Motion;
use crate::heat::purpose::Purpose;
use crate::heat::recipe::Recipe;
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::materials::{Alloy, Metal};
use crate::method::equipment::{Equipment, SkillLevel, Sucker};
use crate::method::subject::Subject;
use crate::method::usual::{TAPE, TENT};
use crate::planning::order::Order;
use crate::planning::search::request::{Effort, SearchRequest};
use crate::solder::JointComposition;
use crate::units::{Flow, Length, Temperature};
use crate::watch::Watch;

/// All that a job at the bench is made of.
#[derive(Debug)]
pub struct Bench {
    /// The board.
    pub board: Board,
    /// The station.
    pub station: Station,
    /// What the shop has and can.
    pub equipment: Equipment,
    /// What the joints hold.
    pub composition: JointComposition,
    /// What is done.
    pub recipe: Recipe,
    /// Nobody cancels it.
    pub watch: Watch,
}

/// Ambient temperature at this bench.
pub const AMBIENT: Temperature = Temperature::celsius(23.0);

impl Bench {
    /// The bench; none where the library no longer makes the port or the table no longer has the alloys, which a test holds.
    pub fn try_new() -> Option<Self> {
        let metal = |name: &str| Alloy::named(name).map(Metal::from);
        Some(Self {
            board: board()?,
            station: Station::blind("example station", Temperature::celsius(480.0), &[22.0, 10.0]),
            equipment: Equipment {
                level: SkillLevel::Trained,
                tips: vec![Length::mm(2.0), Length::mm(4.0)],
                preheater: true,
                sucker: Sucker::Pump,
                wire: true,
                shields: vec![TAPE, TENT],
                alloys: ["SAC305", "Sn63Pb37", "Sn42Bi58"].into_iter().filter_map(metal).collect(),
            },
            composition: JointComposition::factory(metal("SAC305")?),
            recipe: Recipe::from(air_from_below()),
            watch: Watch::new(),
        })
    }

    /// What is to be done with what.
    pub fn subject(&self) -> Subject<'_> {
        let Self { board, station, equipment, composition, .. } = self;
        let (keep_intact, purpose) = (KeepIntact::Board, Purpose::Remove);
        Subject { board, composition, station, equipment, keep_intact, known: &Knowledge::NOTHING, purpose }
    }

    /// A plan is asked for.
    pub fn order(&self) -> Order<'_> {
        let Self { board, station, composition, recipe, watch, .. } = self;
        let (purpose, keep_intact) = (Purpose::Remove, KeepIntact::Board);
        let known = &Knowledge::NOTHING;
        Order { board, composition, station, recipe, ambient: AMBIENT, known, purpose, keep_intact, watch }
    }

    /// A quick search for settings is asked for.
    pub fn search_request<'a>(&'a self, subject: &'a Subject<'a>) -> SearchRequest<'a> {
        SearchRequest { subject, ambient: AMBIENT, effort: Effort::Look, watch: &self.watch }
    }
}

fn board() -> Option<Board> {
    let port = library::kind("usb-c-top")?.make(&Values::new()).ok()?;
    let latch = Rect { centre: Point { x: 30.0, y: 16.0 }, width: 12.0, depth: 3.0 };
    Some(Board {
        name: "example board".to_owned(),
        maker: "nobody".to_owned(),
        outline: Outline::rectangle(60.0, 40.0),
        stack: StackUp::usual(Length::mm(1.0)),
        connector: port.placed(Pose { at: Point { x: 30.0, y: 6.0 }, turn: Turn::None, face: Face::Top }),
        components: vec![ComponentKind::FlexLatch.at("latch", Face::Top, latch)],
    })
}

fn air_from_below() -> HotAir {
    HotAir {
        set: Temperature::celsius(420.0),
        flow: Flow::litres_per_minute(90.0),
        nozzle: Length::mm(22.0),
        distance: Length::mm(25.0),
        face: Face::Bottom,
        motion: Motion::Still,
        aim: [0.0, 0.0],
        approach: None,
        tilt: None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::rules;

    #[test]
    fn the_example_is_a_sound_board_at_a_station_that_gives_what_is_set() {
        let bench = Bench::try_new().expect("library and table hold what it needs");
        assert_eq!(rules::check(&bench.board), vec![]);
        assert!(!crate::finding::any_blocking(&bench.order().refusals()));
        assert_eq!(bench.equipment.alloys.len(), 3);
    }
}
