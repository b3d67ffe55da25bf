//! What the jet does with its hands: it pushes small parts whose own joints are molten, and on the face that hangs down a
//! molten part may drop. Round figures: nothing here has been measured on a bench.

use super::blowing::Blowing;
use super::jet::{AIR_DENSITY, Jet};
use crate::board::Component;
use crate::units::ZERO_CELSIUS_IN_KELVIN;

/// Decay of the jet's speed along its axis: u = 6.2 D / Z u0 far out (T, round free jet 5.8-6.5).
const SPEED_DECAY: f64 = 6.2;
/// Speed along the board one diameter from the axis, of that on the axis; it falls as D / r (T, radial wall jet, 1.0-1.1).
const WALL_JET: f64 = 1.03;
/// Drag of a block standing on a wall (T, 1.0-1.2).
const DRAG: f64 = 1.1;
/// Surface tension of molten solder under flux, N/m (D, 0.40-0.53).
const SURFACE_TENSION: f64 = 0.45;
/// Mass per land area that molten solder still holds hanging, mg/mm²: 30 g per square inch, the usual rule where boards are
/// reflowed on both faces (D).
const HANGS_MG_PER_MM2: f64 = 30_000.0 / 645.16;

/// Speed along the board at `r` metres from the axis, m/s.
pub(crate) fn speed(jet: &Jet, r: f64) -> f64 {
    let exit_k = jet.ambient_k + jet.exit_excess;
    let density = AIR_DENSITY * ambient_over(jet.ambient_k, exit_k);
    let exit_speed = jet.mass_flow / (density * std::f64::consts::FRAC_PI_4 * jet.diameter * jet.diameter);
    let effective = jet.diameter * (jet.ambient_k / exit_k).sqrt();
    let centre = exit_speed * (1.0 + (jet.distance / (SPEED_DECAY * effective)).powi(4)).powf(-0.25);
    centre * (WALL_JET * jet.diameter / r.max(1e-9)).min(1.0)
}

/// Dynamic pressure along the board at `r` metres from the axis: rho u² / 2, Pa, of the gas as hot as it is there.
pub(crate) fn dynamic_pressure(jet: &Jet, r: f64) -> f64 {
    let density = AIR_DENSITY * ambient_over(jet.ambient_k, jet.ambient_k + jet.gas_excess(r));
    0.5 * density * speed(jet, r).powi(2)
}

/// Air thins with its temperature (T, ideal gas); [`AIR_DENSITY`] is that at 23 °C.
fn ambient_over(ambient_k: f64, gas_k: f64) -> f64 {
    let at_rated = ZERO_CELSIUS_IN_KELVIN + 23.0;
    if gas_k > 0.0 { at_rated / gas_k } else { at_rated / ambient_k }
}

/// Push of a jet on a component over what its molten joints hold: F = c_d p A of its longer side, against gamma L with L
/// twice its shorter side (a fillet at either end; E, x0.5-2). From 1 on it goes; the margin wanted is a factor of two.
pub(crate) fn push(blowing: &Blowing, component: &Component) -> f64 {
    let (long, short) = sides(component);
    let reach = blowing.nearest(component.body.centre);
    let pressure = dynamic_pressure(&blowing.jet, reach * 1e-3);
    let force = DRAG * pressure * long * component.height.in_mm() * 1e-6;
    force / (SURFACE_TENSION * 2.0 * short * 1e-3)
}

/// Weight of a component over what its molten lands hold while it hangs: from 1 on it drops.
pub(crate) fn hang(component: &Component) -> f64 {
    let volume = component.covers().area() * component.height.in_mm();
    let land = component.soldered() * component.covers().area();
    component.material.density() * volume / land.max(1e-9) / HANGS_MG_PER_MM2
}

fn sides(component: &Component) -> (f64, f64) {
    let (w, d) = (component.body.width, component.body.depth);
    (w.max(d), w.min(d))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::{ComponentKind, Face, Point, Rect};
    use crate::heat::jet::JetLaw;
    use crate::heat::motion::Motion;
    use crate::heat::tool::{Blower, HotAir};
    use crate::materials::BodyMaterial;
    use crate::units::{Flow, Length, Temperature};

    fn blowing(flow: f64, nozzle: f64) -> Blowing {
        let air = HotAir {
            set: Temperature::celsius(400.0),
            flow: Flow::litres_per_minute(flow),
            nozzle: Length::mm(nozzle),
            distance: Length::mm(10.0),
            face: Face::Top,
            motion: Motion::Still,
            aim: [0.0, 0.0],
            approach: None,
            tilt: None,
        };
        let jet = Jet::new(&air, &JetLaw::from_blower(Blower::Pump), Temperature::celsius(23.0));
        Blowing { jet, face: Face::Top, path: vec![Point { x: 0.0, y: 0.0 }], tilt: None }
    }

    fn part([width, depth, height]: [f64; 3], material: BodyMaterial) -> Component {
        let body = Rect { centre: Point { x: 6.0, y: 0.0 }, width, depth };
        let plain = ComponentKind::Chip.at("C1", Face::Top, body);
        Component { height: Length::mm(height), material, own_joints: None, ..plain }
    }

    #[test]
    fn the_outlet_gives_the_speed_of_its_mass_flow() {
        // By hand: 60 L/min x 0.8 of 1.19 kg/m³ through 8 mm at 0.98 x 377 K over ambient, nozzle loss taken off.
        let jet = blowing(60.0, 8.0).jet;
        let exit_k = 296.15 + jet.exit_excess;
        let by_hand = 60.0 / 60_000.0 * 0.8 * (exit_k / 296.15) / (std::f64::consts::FRAC_PI_4 * 64e-6);
        assert!((speed(&jet, 0.0) / by_hand - 1.0).abs() < 0.03, "{} against {by_hand}", speed(&jet, 0.0));
        assert!(speed(&jet, 0.03) < 0.3 * by_hand);
    }

    #[test]
    fn a_narrow_nozzle_at_full_flow_blows_a_chip_capacitor_and_a_gentle_one_does_not() {
        let chip = part([1.0, 0.5, 0.5], BodyMaterial::Ceramic);
        assert!(push(&blowing(100.0, 5.0), &chip) > 1.0, "{}", push(&blowing(100.0, 5.0), &chip));
        assert!(push(&blowing(20.0, 10.0), &chip) < 0.2, "{}", push(&blowing(20.0, 10.0), &chip));
        assert!(push(&blowing(40.0, 8.0), &chip) > push(&blowing(30.0, 8.0), &chip));
    }

    #[test]
    fn a_chip_hangs_and_a_can_drops() {
        assert!(hang(&part([1.0, 0.5, 0.5], BodyMaterial::Ceramic)) < 0.5);
        assert!(hang(&part([6.3, 6.3, 5.8], BodyMaterial::ElectrolyticCan)) > 2.0);
    }
}
