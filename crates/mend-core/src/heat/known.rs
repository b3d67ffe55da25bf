//! What measuring and jobs have taught of the things that are guessed, and what is believed of them with it.
//!
//! A lesson is a bell over all of them at once, as precision and pull (precision times mean): lessons then simply add, and one that
//! is left out is not added. What nobody has taught has no precision, and the blind guess stands.

use nalgebra::{SMatrix, SVector};

use super::spread::{EIGHT_IN_TEN, FLOOR};

/// How many things can be taught.
pub const TEACHABLE: usize = 7;
/// A number for each of them.
pub type TeachableValues = SVector<f64, TEACHABLE>;
/// A number for each pair of them.
pub type Pairs = SMatrix<f64, TEACHABLE, TEACHABLE>;

/// A thing that can be taught, in the order of [`TeachableValues`]: the logarithm of its factor on the model, unless said.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Teachable {
    /// The jet's transfer: of a station with a nozzle.
    Jet,
    /// Real against displayed flow: of a station.
    Flow,
    /// What leaves the nozzle against what is set, K: of a station.
    Outlet,
    /// How far the nozzle is held: of a person.
    Distance,
    /// Conductivity in plane: of a board.
    Conduction,
    /// Heat capacity with the small parts nobody describes: of a board.
    Capacity,
    /// What is lost to the room: of a place.
    Losses,
}

impl Teachable {
    /// All of them, in the order of [`TeachableValues`].
    pub const ALL: [Self; TEACHABLE] =
        [Self::Jet, Self::Flow, Self::Outlet, Self::Distance, Self::Conduction, Self::Capacity, Self::Losses];

    /// Nothing is ever known better than this: standard deviation of the logarithm, or K (E: 0.05 of the design; 2 K of an outlet).
    pub const fn floor(self) -> f64 {
        match self {
            Self::Outlet => 2.0,
            _ => FLOOR,
        }
    }
}

/// What lessons say together.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Knowledge {
    /// Precision: of a thing that nobody taught, 0.
    pub precision: Pairs,
    /// Precision times mean.
    pub pull: TeachableValues,
}

impl Knowledge {
    /// Nothing yet.
    pub const NOTHING: Self = Self {
        precision: SMatrix::from_array_storage(nalgebra::ArrayStorage([[0.0; TEACHABLE]; TEACHABLE])),
        pull: SMatrix::from_array_storage(nalgebra::ArrayStorage([[0.0; TEACHABLE]; 1])),
    };

    /// What both say.
    ///
    /// ```
    /// use mend_core::heat::known::{Knowledge, Teachable};
    /// let (once, nothing) = (Knowledge::one(Teachable::Flow, -0.1, 0.05), Knowledge::NOTHING);
    /// assert_eq!(once.and(&nothing), once);
    /// ```
    pub fn and(&self, other: &Self) -> Self {
        Self { precision: self.precision + other.precision, pull: self.pull + other.pull }
    }

    /// One thing alone, by its mean and standard deviation.
    pub fn one(what: Teachable, mean: f64, spread: f64) -> Self {
        let (mut made, k) = (Self::NOTHING, what as usize);
        made.precision[(k, k)] = 1.0 / (spread * spread);
        made.pull[k] = mean / (spread * spread);
        made
    }

    /// Has anything been taught of a thing?
    pub fn teaches(&self, what: Teachable) -> bool {
        self.precision[(what as usize, what as usize)] > 0.0
    }

    /// Has nothing been taught?
    pub fn is_nothing(&self) -> bool {
        *self == Self::NOTHING
    }

    /// The same with each thing having wandered by so much since (standard deviation): a station ages.
    ///
    /// The covariance grows by the square of it; as a precision that is `P (1 + Q P)^-1`, which needs no inverse of `P`.
    pub fn wandered(&self, by: &TeachableValues) -> Self {
        let wander = Pairs::from_diagonal(&by.component_mul(by));
        let Some(shrinks) = (Pairs::identity() + wander * self.precision).try_inverse() else { return *self };
        let precision = self.precision * shrinks;
        Self { precision: (precision + precision.transpose()) * 0.5, pull: shrinks.transpose() * self.pull }
    }

    /// What it says of some things alone, the others being guessed as widely as `blind` has them.
    ///
    /// With the others' prior added and integrated over, what is left is the Schur complement of the precision.
    pub fn of(&self, kept: &[Teachable], blind: &Belief) -> Self {
        let inside = |k: usize| kept.iter().any(|what| *what as usize == k);
        // Where something is kept a one stands in for its own block, so that one inverse serves whichever are dropped.
        let dropped = Pairs::from_fn(|i, j| match (inside(i), inside(j)) {
            (false, false) if i == j => self.precision[(i, i)] + 1.0 / blind.covariance[(i, i)],
            (false, false) => self.precision[(i, j)],
            _ if i == j => 1.0,
            _ => 0.0,
        });
        let across = Pairs::from_fn(|i, j| if inside(i) && !inside(j) { self.precision[(i, j)] } else { 0.0 });
        let Some(inverse) = dropped.try_inverse() else { return Self::NOTHING };
        let own = Pairs::from_fn(|i, j| if inside(i) && inside(j) { self.precision[(i, j)] } else { 0.0 });
        let pulled = |k: usize, there: bool| if inside(k) == there { self.pull[k] } else { 0.0 };
        let (pull, others) =
            (TeachableValues::from_fn(|k, _| pulled(k, true)), TeachableValues::from_fn(|k, _| pulled(k, false)));
        Self { precision: own - across * inverse * across.transpose(), pull: pull - across * (inverse * others) }
    }
}

impl Default for Knowledge {
    fn default() -> Self {
        Self::NOTHING
    }
}

/// A bell over all teachable things: what is believed of them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Belief {
    /// Mean.
    pub mean: TeachableValues,
    /// Covariance.
    pub covariance: Pairs,
}

impl Belief {
    /// About as-computed, with these standard deviations.
    pub fn from_spreads(spreads: &TeachableValues) -> Self {
        Self { mean: TeachableValues::zeros(), covariance: Pairs::from_diagonal(&spreads.component_mul(spreads)) }
    }

    /// With lessons; no spread falls below its floor.
    #[must_use]
    pub fn taught(&self, known: &Knowledge) -> Self {
        // P' = (P^-1 + K)^-1 = (1 + P K)^-1 P: no inverse of either is needed.
        let Some(inverse) = (Pairs::identity() + self.covariance * known.precision).try_inverse() else { return *self };
        let covariance = inverse * self.covariance;
        let covariance = (covariance + covariance.transpose()) * 0.5;
        let mean = inverse * (self.mean + self.covariance * known.pull);
        Self { mean, covariance }.floored()
    }

    fn floored(mut self) -> Self {
        for (k, what) in Teachable::ALL.into_iter().enumerate() {
            let floor = what.floor() * what.floor();
            self.covariance[(k, k)] = self.covariance[(k, k)].max(floor);
        }
        self
    }

    /// What has been learnt between `before` and this: the bell that makes the one out of the other.
    ///
    /// The two are compared in the directions in which they differ: where this is no surer than before, chance made it so, and
    /// nothing was learnt there.
    pub fn lesson(&self, before: &Self) -> Knowledge {
        let Some(root) = before.covariance.cholesky() else { return Knowledge::NOTHING };
        let Some(whiten) = root.l().try_inverse() else { return Knowledge::NOTHING };
        let seen = (whiten * self.covariance * whiten.transpose()).symmetric_eigen();
        // As surenesses of the whitened belief before, which was 1 each way.
        let gained = seen.eigenvalues.map(|variance| (1.0 / variance.max(1e-6) - 1.0).max(0.0));
        let turn = seen.eigenvectors;
        let moved = turn.transpose() * (whiten * (self.mean - before.mean));
        // mean' = mean + (1 + g)^-1 g (said - mean): what was said lies (1 + g) / g as far.
        let said = TeachableValues::from_fn(|k, _| if gained[k] > 0.0 { moved[k] * (1.0 + gained[k]) } else { 0.0 });
        let back = whiten.transpose() * turn;
        let precision = back * Pairs::from_diagonal(&gained) * back.transpose();
        Knowledge { precision, pull: back * said + precision * before.mean }
    }

    /// Standard deviation of one thing.
    pub fn spread(&self, what: Teachable) -> f64 {
        self.covariance[(what as usize, what as usize)].max(0.0).sqrt()
    }

    /// Where the middle eight in ten of one thing begin, its middle, and where they end.
    pub fn band(&self, what: Teachable) -> [f64; 3] {
        let (mean, half) = (self.mean[what as usize], EIGHT_IN_TEN * self.spread(what));
        [mean - half, mean, mean + half]
    }

    /// The values at a point of the standard bell.
    pub(super) fn at(&self, bell: &TeachableValues) -> TeachableValues {
        self.mean + self.root() * bell
    }

    /// Mean and covariance of weighted points.
    pub fn from_points(points: &[(TeachableValues, f64)]) -> Self {
        let all: f64 = points.iter().map(|(_, weight)| weight).sum::<f64>().max(f64::MIN_POSITIVE);
        let mean = points.iter().fold(TeachableValues::zeros(), |sum, (at, weight)| sum + at * (weight / all));
        let off = |at: &TeachableValues| (at - mean) * (at - mean).transpose();
        let covariance = points.iter().fold(Pairs::zeros(), |sum, (at, weight)| sum + off(at) * (weight / all));
        Self { mean, covariance }.floored()
    }

    /// A part of the way, 0-1, towards another.
    #[must_use]
    pub fn towards(&self, other: &Self, part: f64) -> Self {
        let between = |a: f64, b: f64| a + (b - a) * part;
        let (mean, covariance) =
            (self.mean.zip_map(&other.mean, between), self.covariance.zip_map(&other.covariance, between));
        Self { mean, covariance }
    }

    /// With every spread so many times as wide.
    #[must_use]
    pub fn widened(&self, factor: f64) -> Self {
        Self { covariance: self.covariance * (factor * factor), ..*self }
    }

    /// Logarithm of its density at a point, up to what is the same for all points of all beliefs.
    pub fn log_density(&self, at: &TeachableValues) -> f64 {
        let Some(root) = self.covariance.cholesky() else { return f64::NEG_INFINITY };
        let off = at - self.mean;
        -0.5 * off.dot(&root.solve(&off)) - root.l().diagonal().map(f64::ln).sum()
    }

    /// What turns a standard bell into this one.
    fn root(&self) -> Pairs {
        let spreads = self.covariance.diagonal().map(|variance| variance.max(0.0).sqrt());
        let plain = self.covariance == Pairs::from_diagonal(&self.covariance.diagonal());
        if plain {
            Pairs::from_diagonal(&spreads)
        } else {
            self.covariance.cholesky().map_or_else(|| Pairs::from_diagonal(&spreads), |root| root.l())
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn blind() -> Belief {
        Belief::from_spreads(&TeachableValues::from([0.25, 0.15, 15.0, 0.25, 0.3, 0.15, 0.2]))
    }

    #[test]
    fn a_lesson_makes_the_belief_after_out_of_the_one_before() {
        let said = Knowledge::one(Teachable::Jet, -0.3, 0.08).and(&Knowledge::one(Teachable::Flow, 0.1, 0.2));
        let after = blind().taught(&said);
        let lesson = after.lesson(&blind());
        let again = blind().taught(&lesson);
        assert!((again.mean - after.mean).amax() < 1e-9 && (again.covariance - after.covariance).amax() < 1e-9);
        assert!((after.mean[0] + 0.3 * 0.0625 / (0.0625 + 0.0064)).abs() < 1e-9, "as two bells multiply");
    }

    #[test]
    fn nothing_is_learnt_where_chance_made_a_belief_wider() {
        let mut after = blind();
        after.covariance[(0, 0)] *= 1.3;
        let lesson = after.lesson(&blind());
        assert!(lesson.precision.amax() < 1e-9 && lesson.pull.amax() < 1e-9, "{lesson:?}");
    }

    /// Of jet and conduction only the difference is known: each alone stays wide.
    fn together() -> Belief {
        let mut after = blind();
        (after.covariance[(0, 0)], after.covariance[(4, 4)]) = (0.04, 0.05);
        (after.covariance[(0, 4)], after.covariance[(4, 0)]) = (0.025, 0.025);
        (after.mean[0], after.mean[4]) = (-0.15, 0.18);
        after
    }

    #[test]
    fn what_goes_together_is_kept_together() {
        let again = blind().taught(&together().lesson(&blind()));
        let apart = |b: &Belief| b.covariance[(0, 0)] + b.covariance[(4, 4)] - 2.0 * b.covariance[(0, 4)];
        assert!((apart(&again) - apart(&together())).abs() < 1e-9 && apart(&blind()) > 0.1, "{}", apart(&again));
    }

    #[test]
    fn of_one_thing_alone_it_says_what_it_would_had_the_other_been_integrated_over() {
        let alone = together().lesson(&blind()).of(&[Teachable::Jet], &blind());
        let again = blind().taught(&alone);
        assert!((again.mean[0] + 0.15).abs() < 1e-9 && (again.covariance[(0, 0)] - 0.04).abs() < 1e-9);
        assert!(again.mean[4] == 0.0 && (again.covariance[(4, 4)] - 0.09).abs() < 1e-12, "nothing of the other");
    }

    #[test]
    fn a_thing_that_wanders_is_known_less_well_and_one_that_does_not_as_well_as_before() {
        let known = Knowledge::one(Teachable::Jet, -0.3, 0.1).and(&Knowledge::one(Teachable::Conduction, 0.4, 0.1));
        let mut by = TeachableValues::zeros();
        by[Teachable::Jet as usize] = 0.1;
        let later = blind().taught(&known.wandered(&by));
        let now = blind().taught(&known);
        assert!(later.spread(Teachable::Jet) > now.spread(Teachable::Jet) && later.mean[0].abs() < now.mean[0].abs());
        assert!((later.spread(Teachable::Conduction) - now.spread(Teachable::Conduction)).abs() < 1e-12);
        let mean = known.wandered(&by);
        assert!((mean.pull[0] / mean.precision[(0, 0)] + 0.3).abs() < 1e-9, "it wanders either way");
    }

    #[test]
    fn nothing_is_ever_known_better_than_its_floor() {
        let sure = (0..50).fold(Knowledge::NOTHING, |all, _| all.and(&Knowledge::one(Teachable::Flow, 0.0, 0.05)));
        assert!((blind().taught(&sure).spread(Teachable::Flow) - FLOOR).abs() < 1e-9);
    }
}
