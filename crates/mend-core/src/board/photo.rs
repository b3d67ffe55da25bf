//! A photograph under a board: which place of the board each of its pixels shows.
//!
//! A photograph taken from straight above is the board scaled, turned and shifted (a similarity); the far face is seen from
//! behind and is mirrored first. With c = s e^(i angle), m = -1 where mirrored, pixel (u, v) with v downwards shows
//! z = c (m u - i v) + o, in mm as x + iy.

use serde::{Deserialize, Serialize};

use super::geometry::Point;

/// How a photograph lies on the board's map.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Placement {
    /// Size of a pixel, mm.
    pub mm_per_px: f64,
    /// Turned to the left by so many degrees.
    pub turn_deg: f64,
    /// Left and right changed: the far face, seen through the board.
    pub mirrored: bool,
    /// Where its first pixel lies, [x, y] mm.
    pub at_mm: [f64; 2],
}

/// Points that were lined up, and how well they fit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LinedUp {
    /// Where the photograph lies now.
    pub placement: Placement,
    /// How far the points are off after it, root mean square, mm.
    pub off_mm: f64,
    /// How far they would be off had it been mirrored the other way, mm.
    pub mirrored_off_mm: f64,
}

/// A point as a complex number.
type Z = (f64, f64);

fn times(a: Z, b: Z) -> Z {
    (a.0 * b.0 - a.1 * b.1, a.0 * b.1 + a.1 * b.0)
}

impl Placement {
    /// A photograph of this many pixels over a width in mm, its middle at a place.
    pub fn over(size_px: (u32, u32), middle: Point, width_mm: f64, mirrored: bool) -> Self {
        let (width_px, height_px) = size_px;
        let mm_per_px = width_mm / f64::from(width_px.max(1));
        let half = (width_mm / 2.0, mm_per_px * f64::from(height_px) / 2.0);
        let left = if mirrored { middle.x + half.0 } else { middle.x - half.0 };
        Self { mm_per_px, turn_deg: 0.0, mirrored, at_mm: [left, middle.y + half.1] }
    }

    fn factor(&self) -> Z {
        let angle = self.turn_deg.to_radians();
        (self.mm_per_px * angle.cos(), self.mm_per_px * angle.sin())
    }

    /// The place that a pixel shows.
    pub fn shows(&self, u: f64, v: f64) -> Point {
        let mirror = if self.mirrored { -1.0 } else { 1.0 };
        let turned = times(self.factor(), (mirror * u, -v));
        Point { x: turned.0 + self.at_mm[0], y: turned.1 + self.at_mm[1] }
    }

    /// As an SVG matrix (a b c d e f), with y downwards.
    pub fn matrix(&self) -> [f64; 6] {
        let (p, q) = self.factor();
        let mirror = if self.mirrored { -1.0 } else { 1.0 };
        [p * mirror, -q * mirror, q, p, self.at_mm[0], -self.at_mm[1]]
    }

    /// After z -> a z + b of the whole map.
    fn after(&self, a: Z, b: Z) -> Self {
        let (scale, turn) = (a.0.hypot(a.1), a.1.atan2(a.0).to_degrees());
        let at = times(a, (self.at_mm[0], self.at_mm[1]));
        let turn_deg = (self.turn_deg + turn + 180.0).rem_euclid(360.0) - 180.0;
        Self { mm_per_px: self.mm_per_px * scale, turn_deg, mirrored: self.mirrored, at_mm: [at.0 + b.0, at.1 + b.1] }
    }

    /// Scaled about `a`, so that `a` and `b`, as they lie now, are `length_mm` apart. None where they are one place.
    pub fn scaled(&self, a: Point, b: Point, length_mm: f64) -> Option<Self> {
        let now = (b.x - a.x).hypot(b.y - a.y);
        let factor = length_mm / now;
        let sound = now > 1e-6 && factor.is_finite() && factor > 0.0;
        sound.then(|| self.after((factor, 0.0), (a.x * (1.0 - factor), a.y * (1.0 - factor))))
    }

    /// Turned about `a`, so that the line from `a` to `b`, as it lies now, is level or upright, whichever is nearer. None
    /// where they are one place.
    pub fn levelled(&self, a: Point, b: Point) -> Option<Self> {
        let (dx, dy) = (b.x - a.x, b.y - a.y);
        if dx.hypot(dy) < 1e-6 {
            return None;
        }
        let angle = dy.atan2(dx);
        let quarter = std::f64::consts::FRAC_PI_2;
        Some(self.turned_about(a, (angle / quarter).round() * quarter - angle))
    }

    fn turned_about(&self, a: Point, angle: f64) -> Self {
        let turn = (angle.cos(), angle.sin());
        let moved = times(turn, (a.x, a.y));
        self.after(turn, (a.x - moved.0, a.y - moved.1))
    }

    /// Turned about a place by degrees to the left.
    pub fn turned(&self, about: Point, degrees: f64) -> Self {
        self.turned_about(about, degrees.to_radians())
    }

    /// Shifted.
    pub fn moved(&self, dx: f64, dy: f64) -> Self {
        self.after((1.0, 0.0), (dx, dy))
    }

    /// Mirrored left to right about the upright line through x: the other face, or the same one seen from behind.
    pub fn mirrored_about(&self, x: f64) -> Self {
        // z -> 2x - conj z, and conj(c (m u - i v)) = conj c (m u + i v) = -conj c (-m u - i v).
        Self {
            turn_deg: -self.turn_deg,
            mirrored: !self.mirrored,
            at_mm: [2.0 * x - self.at_mm[0], self.at_mm[1]],
            ..*self
        }
    }

    /// Laid so that `seen`, places as they lie now, come to lie on `wanted`: least squares over shift, turn and scale.
    /// None for fewer than two, or where they are one place.
    ///
    /// With both sets about their own means, a = sum(conj(s) w) / sum |s|² minimises sum |a s - w|² (T).
    pub fn lined_up(&self, seen: &[Point], wanted: &[Point]) -> Option<LinedUp> {
        let (a, b, off_mm) = similarity(seen, wanted)?;
        let behind: Vec<Point> = seen.iter().map(|p| Point { x: -p.x, y: p.y }).collect();
        let (_, _, mirrored_off_mm) = similarity(&behind, wanted)?;
        Some(LinedUp { placement: self.after(a, b), off_mm, mirrored_off_mm })
    }
}

/// a and b of z -> a z + b, and what is left, root mean square.
fn similarity(seen: &[Point], wanted: &[Point]) -> Option<(Z, Z, f64)> {
    let count = seen.len().min(wanted.len());
    if count < 2 {
        return None;
    }
    let mean = |all: &[Point]| {
        let sum = all[..count].iter().fold((0.0, 0.0), |s, p| (s.0 + p.x, s.1 + p.y));
        (sum.0 / count as f64, sum.1 / count as f64)
    };
    let (from, to) = (mean(seen), mean(wanted));
    let pairs = || {
        let about = |p: &Point, m: Z| (p.x - m.0, p.y - m.1);
        seen[..count].iter().zip(wanted).map(move |(s, w)| (about(s, from), about(w, to)))
    };
    let spread: f64 = pairs().map(|(s, _)| s.0 * s.0 + s.1 * s.1).sum();
    if spread < 1e-9 {
        return None;
    }
    let sum = pairs().map(|(s, w)| times((s.0, -s.1), w)).fold((0.0, 0.0), |t, z| (t.0 + z.0, t.1 + z.1));
    let a = (sum.0 / spread, sum.1 / spread);
    let off: f64 = pairs().map(|(s, w)| (times(a, s), w)).map(|(s, w)| (s.0 - w.0).powi(2) + (s.1 - w.1).powi(2)).sum();
    let shifted = times(a, from);
    Some((a, (to.0 - shifted.0, to.1 - shifted.1), (off / count as f64).sqrt()))
}

#[cfg(test)]
mod tests {
    use super::*;

    const PHOTO: Placement = Placement { mm_per_px: 0.05, turn_deg: 30.0, mirrored: false, at_mm: [10.0, 40.0] };

    fn near(a: Point, b: Point) -> bool {
        (a.x - b.x).hypot(a.y - b.y) < 1e-9
    }
    fn at(x: f64, y: f64) -> Point {
        Point { x, y }
    }

    #[test]
    fn two_clicks_give_the_scale_and_the_first_stays() {
        let (a, b) = (PHOTO.shows(100.0, 200.0), PHOTO.shows(500.0, 500.0));
        let scaled = PHOTO.scaled(a, b, 8.94).expect("two places");
        // 500 pixels apart are 8.94 mm now.
        assert!((scaled.mm_per_px - 8.94 / 500.0).abs() < 1e-12);
        assert!(near(scaled.shows(100.0, 200.0), a));
        assert_eq!(PHOTO.scaled(a, a, 8.94), None);
        assert_eq!(PHOTO.scaled(a, b, 0.0), None);
    }

    #[test]
    fn an_edge_is_levelled_and_the_picture_drawn_where_it_shows() {
        let (a, b) = (PHOTO.shows(0.0, 0.0), PHOTO.shows(900.0, 0.0));
        let level = PHOTO.levelled(a, b).expect("two places");
        assert!(level.turn_deg.abs() < 1e-9 && near(level.shows(0.0, 0.0), a));
        for placement in [PHOTO, level, PHOTO.mirrored_about(3.0)] {
            let [a, b, c, d, e, f] = placement.matrix();
            let shown = placement.shows(7.0, 11.0);
            assert!(near(at(a * 7.0 + c * 11.0 + e, -(b * 7.0 + d * 11.0 + f)), shown), "{placement:?}");
        }
    }

    #[test]
    fn mirroring_keeps_the_axis_and_is_undone_by_itself() {
        let mirrored = PHOTO.mirrored_about(12.0);
        let (before, after) = (PHOTO.shows(40.0, 70.0), mirrored.shows(40.0, 70.0));
        assert!(near(after, at(24.0 - before.x, before.y)));
        assert_eq!(mirrored.mirrored_about(12.0), PHOTO);
    }

    #[test]
    fn three_points_line_the_faces_up_and_a_forgotten_mirror_shows() {
        let far = Placement { mm_per_px: 0.08, turn_deg: -170.0, mirrored: true, at_mm: [3.0, -5.0] };
        let pixels = [(100.0, 120.0), (900.0, 150.0), (420.0, 600.0)];
        let seen = pixels.map(|(u, v)| far.shows(u, v));
        let truth = Placement { mm_per_px: 0.04, turn_deg: 12.0, mirrored: true, at_mm: [60.0, 30.0] };
        let wanted = pixels.map(|(u, v)| truth.shows(u, v));
        let fit = far.lined_up(&seen, &wanted).expect("three places");
        assert!(fit.off_mm < 1e-9 && fit.mirrored_off_mm > 1.0, "{fit:?}");
        assert!(pixels.iter().all(|(u, v)| near(fit.placement.shows(*u, *v), truth.shows(*u, *v))));
        let straight = Placement { mirrored: false, ..far };
        let seen = pixels.map(|(u, v)| straight.shows(u, v));
        let fit = straight.lined_up(&seen, &wanted).expect("three places");
        assert!(fit.off_mm > 1.0 && fit.mirrored_off_mm < 1e-9, "it was not mirrored: {fit:?}");
    }

    #[test]
    fn a_slip_of_the_hand_is_shared_between_the_points_and_said() {
        let seen = [at(0.0, 0.0), at(40.0, 0.0), at(0.0, 30.0)];
        let wanted = [at(0.3, 0.0), at(40.0, 0.0), at(0.0, 30.0)];
        let fit = PHOTO.lined_up(&seen, &wanted).expect("three places");
        assert!((0.05..0.2).contains(&fit.off_mm), "{}", fit.off_mm);
    }
}
