//! What can be seen while it is done: never a temperature.

use super::attempt::{Attempt, Endured};
use super::harm::Harmed;
use crate::board::Rect;
use crate::heat::shield::ShieldKind;

/// How the flux on the joints looks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum FluxLook {
    /// As it was put on.
    Still,
    /// It runs, from 100 °C on (E, 80-120).
    Runs,
    /// It smokes, from 180 °C on (E, within 20 K).
    Smokes,
    /// It has been so hot for so long that it is brown.
    Brown,
}

/// How plastic looks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum PlasticLook {
    /// As it was.
    Sound,
    /// It turns glossy: a second counts by now.
    Glossy,
    /// It sags: half of what it stands is gone.
    Sags,
    /// It is damaged.
    Damaged,
}

/// How a joint looks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum JointLook {
    /// Under the body: nobody sees it.
    Hidden,
    /// Dull, as it is while it is solid.
    Matt,
    /// Shiny, as it is while it is liquid.
    Shiny,
    /// Its land or barrel is gone.
    Torn,
}

/// What becomes of a component, to be seen.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ComponentLook {
    /// Its body.
    pub plastic: PlasticLook,
    /// It is no longer where it was.
    pub moved: bool,
}

/// All that can be seen and heard.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Cues {
    /// The flux.
    pub flux: FluxLook,
    /// The part's body.
    pub body: PlasticLook,
    /// A part that is gripped moves: nothing holds it any more.
    pub twitches: bool,
    /// The part is up.
    pub part_off: bool,
    /// How loud the fan is, 0-100.
    pub fan: u8,
    /// The joint that the tip is on, from 1; 0: none.
    pub tip_on: u8,
    /// Passes of braid on the joint under the tip.
    pub passes: u8,
    /// It is over.
    pub finished: bool,
    /// Each shield: does its tape curl?
    pub curls: Vec<bool>,
    /// Each component.
    pub components: Vec<ComponentLook>,
    /// Each joint.
    pub joints: Vec<JointLook>,
}

/// Bytes of [`Cues::bytes`] before those of shields, components and joints.
pub const FIXED_BYTES: usize = 8;
/// From where on flux runs and smokes, °C.
const FLUX_C: [f64; 2] = [100.0, 180.0];
/// It is brown after so long, s (E, 10-40).
const BROWN_S: f64 = 20.0;
/// Adhesive of tape lets go from here on, °C (D, silicone adhesive is rated to 260).
const TAPE_CURLS_C: f64 = 260.0;

impl PlasticLook {
    fn of(endured: &Endured) -> Self {
        match (endured.taken, endured.glossy_s) {
            (taken, _) if taken >= 1.0 => Self::Damaged,
            (taken, _) if taken >= 0.5 => Self::Sags,
            (_, Some(_)) => Self::Glossy,
            _ => Self::Sound,
        }
    }
}

impl Cues {
    /// Of an attempt as it stands.
    pub fn of(attempt: &Attempt) -> Self {
        let (hands, scene) = (&attempt.hands, &attempt.scene);
        let highest = scene.station.flow_range.1.in_litres_per_minute();
        let passes = hands.tip_on.map_or(0, |joint| attempt.joints[joint].passes);
        Self {
            flux: flux(attempt),
            body: attempt.body.as_ref().map_or(PlasticLook::Sound, PlasticLook::of),
            twitches: hands.grips && attempt.is_free(),
            part_off: attempt.part_off_s.is_some(),
            fan: if hands.blows { (100.0 * hands.flow / highest).round().clamp(0.0, 100.0) as u8 } else { 0 },
            tip_on: hands.tip_on.map_or(0, |joint| u8::try_from(joint + 1).unwrap_or(u8::MAX)),
            passes: u8::try_from(passes).unwrap_or(u8::MAX),
            finished: attempt.finished,
            curls: curls(attempt),
            components: (0..attempt.components.len()).map(|k| component(attempt, k)).collect(),
            joints: (0..attempt.joints.len()).map(|k| joint(attempt, k)).collect(),
        }
    }

    /// As a screen takes it, a byte each: flux, body, bits (1 twitches, 2 part off, 4 finished), fan, tip, passes, two spare; then
    /// shields, components (4: moved) and joints.
    pub fn bytes(&self) -> Vec<u8> {
        let bits = u8::from(self.twitches) | u8::from(self.part_off) << 1 | u8::from(self.finished) << 2;
        let fixed: [u8; FIXED_BYTES] =
            [self.flux as u8, self.body as u8, bits, self.fan, self.tip_on, self.passes, 0, 0];
        let components = self.components.iter().map(|look| look.plastic as u8 | u8::from(look.moved) << 2);
        let joints = self.joints.iter().map(|look| *look as u8);
        fixed
            .into_iter()
            .chain(self.curls.iter().map(|curls| u8::from(*curls)))
            .chain(components)
            .chain(joints)
            .collect()
    }
}

fn flux(attempt: &Attempt) -> FluxLook {
    let celsius = attempt.rig.under(&attempt.rig.network.pads);
    match celsius {
        _ if attempt.browned_s >= BROWN_S => FluxLook::Brown,
        c if c >= FLUX_C[1] => FluxLook::Smokes,
        c if c >= FLUX_C[0] => FluxLook::Runs,
        _ => FluxLook::Still,
    }
}

fn curls(attempt: &Attempt) -> Vec<bool> {
    let rig = &attempt.rig;
    let curl = |shield: &crate::heat::shield::Shield| {
        let area: Rect = shield.area();
        let tape = matches!(shield.kind, ShieldKind::Polyimide { .. } | ShieldKind::AluminiumTape);
        tape && rig.under(&rig.place(shield.face, &area)) >= TAPE_CURLS_C
    };
    attempt.scene.shields.iter().map(curl).collect()
}

fn component(attempt: &Attempt, k: usize) -> ComponentLook {
    let name = &attempt.scene.board.components[k].name;
    let gone = |what: &Harmed| match what {
        Harmed::Floated { name: moved } | Harmed::BlownAway { name: moved } | Harmed::Dropped { name: moved } => {
            moved == name
        }
        _ => false,
    };
    let moved = attempt.harms.iter().any(|harm| gone(&harm.what));
    ComponentLook { plastic: PlasticLook::of(&attempt.components[k]), moved }
}

fn joint(attempt: &Attempt, k: usize) -> JointLook {
    let fate = &attempt.joints[k];
    match fate {
        _ if fate.torn && attempt.part_off_s.is_some() => JointLook::Torn,
        _ if attempt.is_hidden(k) => JointLook::Hidden,
        _ if fate.free => JointLook::Shiny,
        _ => JointLook::Matt,
    }
}
