//! A nozzle at work: its jet, the face it meets, the places it visits.

use super::jet::Jet;
use super::tool::Tilt;
use crate::board::{Face, Point, Rect};

/// A nozzle at work.
#[derive(Debug, Clone)]
pub struct Blowing {
    /// The jet.
    pub jet: Jet,
    /// The face.
    pub face: Face,
    /// Where the axis goes, mm; each place for the same share of the time.
    pub path: Vec<Point>,
    /// How it leans.
    pub tilt: Option<Tilt>,
}

/// How much farther the footprint of a leaning jet reaches where it blows to than where it comes from, per sine of its lean (E).
const SKEW: f64 = 0.5;

impl Tilt {
    /// A place that is (x, y) off the axis, mm, as far off as the same heat of an upright jet falls. A round jet meets the board in an
    /// ellipse that is 1/cos as long, and its air runs off to where it blows: farther there, less far behind.
    fn upright_mm(&self, x: f64, y: f64) -> f64 {
        let (sin, cos) = self.lean_deg.to_radians().sin_cos();
        let (across, along) = self.towards_deg.to_radians().sin_cos();
        let (down, beside) = (x * along + y * across, y * along - x * across);
        let reach = if down > 0.0 { 1.0 + SKEW * sin } else { 1.0 - SKEW * sin };
        (down * cos / reach).hypot(beside)
    }

    /// What is left of the heat on the axis: the root of the cosine, 0.84 at 45 degrees (E, after the shape of measured oblique
    /// jets: Goldstein and Franchett 1988).
    fn on_axis(&self) -> f64 {
        self.lean_deg.to_radians().cos().max(0.0).sqrt()
    }
}

impl Blowing {
    /// Mean h and mean h x gas excess at a place. Exact where a sweep is quick against the board (heating.md, equation 8).
    pub fn at(&self, place: Point) -> (f64, f64) {
        let share = 1.0 / self.path.len() as f64;
        self.path.iter().fold((0.0, 0.0), |(h, q), axis| {
            let (r, kept) = match &self.tilt {
                None => (axis.distance_to(place), 1.0),
                Some(tilt) => (tilt.upright_mm(place.x - axis.x, place.y - axis.y), tilt.on_axis()),
            };
            let r = r * 1e-3;
            let transfer = self.jet.transfer(r) * share * kept;
            (h + transfer, q + transfer * self.jet.gas_excess(r))
        })
    }

    /// Mean over a rectangle, 3 x 3 points.
    pub fn over(&self, rect: &Rect) -> (f64, f64) {
        let thirds = [-1.0 / 3.0, 0.0, 1.0 / 3.0];
        let points = thirds.iter().flat_map(|a| thirds.iter().map(move |b| (a, b)));
        let sum = points.fold((0.0, 0.0), |(h, q), (a, b)| {
            let p = Point { x: rect.centre.x + a * rect.width, y: rect.centre.y + b * rect.depth };
            let (dh, dq) = self.at(p);
            (h + dh, q + dq)
        });
        (sum.0 / 9.0, sum.1 / 9.0)
    }

    /// How near the axis comes to a place on its way, mm.
    pub fn nearest(&self, place: Point) -> f64 {
        self.path.iter().map(|axis| axis.distance_to(place)).fold(f64::INFINITY, f64::min)
    }

    /// Radius within which each place of the path gives at least half of the heat that it gives on its axis, mm: the
    /// footprint that is drawn. By halving between the axis and fifteen diameters.
    pub fn half_heat_mm(&self) -> f64 {
        let heat = |r: f64| self.jet.transfer(r) * self.jet.gas_excess(r);
        let (mut near, mut far) = (0.0, 15.0 * self.jet.diameter);
        for _ in 0..40 {
            let middle = (near + far) / 2.0;
            if heat(middle) > 0.5 * heat(0.0) { near = middle } else { far = middle }
        }
        near * 1e3
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::{AMBIENT, Bench};
    use crate::heat::jet::JetLaw;
    use crate::heat::tool::Blower;

    fn leaning(lean_deg: f64) -> Blowing {
        let air = Bench::try_new().expect("the example").recipe.air.expect("hot air");
        let jet = Jet::new(&air, &JetLaw::from_blower(Blower::Fan), AMBIENT);
        let tilt = Some(Tilt { lean_deg, towards_deg: 90.0 });
        Blowing { jet, face: Face::Top, path: vec![Point { x: 0.0, y: 0.0 }], tilt }
    }

    #[test]
    fn a_leaning_jet_heats_more_where_it_blows_to_and_an_upright_one_evenly() {
        let heat = |blowing: &Blowing, y: f64| blowing.at(Point { x: 0.0, y }).1;
        let leans = leaning(45.0);
        assert!(heat(&leans, 40.0) > 1.4 * heat(&leans, -40.0));
        assert!(heat(&leans, 0.0) < heat(&leaning(0.0), 0.0));
        let upright = Blowing { tilt: None, ..leaning(0.0) };
        for y in [-15.0, 0.0, 15.0] {
            assert!((heat(&leaning(0.0), y) - heat(&upright, y)).abs() < 1e-9, "no lean is upright");
        }
        let beside = leans.at(Point { x: 40.0, y: 0.0 }).1;
        assert!(beside < heat(&leans, 40.0), "the ellipse lies along the way that it blows");
    }
}
