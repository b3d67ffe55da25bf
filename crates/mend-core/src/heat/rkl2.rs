//! RKL2 super-time-stepping: second order, explicit, and s stages cover about s²/4 explicit steps.
//!
//! Meyer, Balsara and Aslam, J. Comput. Phys. 257 (2014): Legendre-polynomial stages, stable on the real axis.

/// Weights of one stage, the time step already in them where a rate is multiplied:
/// `Yj = now Y(j-1) + before Y(j-2) + start Y0 + rate L(Y(j-1)) + first L(Y0)`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weights {
    /// Of the stage before.
    pub now: f64,
    /// Of the one before that.
    pub before: f64,
    /// Of the state at the start of the step.
    pub start: f64,
    /// Of the rate of the stage before, s.
    pub rate: f64,
    /// Of the rate at the start, s.
    pub first: f64,
}

/// The least odd number of stages, at least 3, with which a step of `step` s is stable when the fastest rate is
/// `fastest` 1/s (the bound of Gershgorin on the eigenvalues).
///
/// ```
/// use mend_core::heat::rkl2::stages;
/// assert_eq!(stages(0.001, 1.0), 3);
/// assert!(stages(0.25, 400.0) > stages(0.25, 100.0), "a faster exchange wants more stages");
/// ```
pub fn stages(step: f64, fastest: f64) -> usize {
    // tau <= tau_explicit (s² + s - 2) / 4 with tau_explicit = 2 / fastest, solved for s.
    let ratio = step * fastest / 2.0;
    let s = ((-1.0 + (9.0 + 16.0 * ratio).sqrt()) / 2.0).ceil() as usize;
    (s | 1).max(3)
}

/// Weights of the stages 1..=s for a step of `step` s.
pub(crate) fn weights(s: usize, step: f64) -> Vec<Weights> {
    let b = |j: usize| {
        let j = j.max(2) as f64;
        (j * j + j - 2.0) / (2.0 * j * (j + 1.0))
    };
    let count = s as f64;
    let w1 = 4.0 / (count * count + count - 2.0);
    let first = Weights { now: 0.0, before: 0.0, start: 1.0, rate: b(1) * w1 * step, first: 0.0 };
    let later = (2..=s).map(|j| {
        let jf = j as f64;
        let now = (2.0 * jf - 1.0) / jf * b(j) / b(j - 1);
        let before = -(jf - 1.0) / jf * b(j) / b(j - 2);
        let rate = now * w1 * step;
        Weights { now, before, start: 1.0 - now - before, rate, first: -(1.0 - b(j - 1)) * rate }
    });
    std::iter::once(first).chain(later).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// One step of RKL2 on dy/dt = -y.
    fn decay(s: usize, step: f64) -> f64 {
        let w = weights(s, step);
        let (mut before, mut now) = (1.0, 1.0 - w[0].rate);
        for w in &w[1..] {
            let next = w.now * now + w.before * before + w.start - w.rate * now - w.first;
            (before, now) = (now, next);
        }
        now
    }

    #[test]
    fn a_step_is_of_second_order() {
        let error = |step: f64| (decay(7, step) - (-step).exp()).abs();
        let ratio = error(0.2) / error(0.1);
        assert!((6.0..10.0).contains(&ratio), "halving the step divides the error of one step by {ratio}");
    }

    #[test]
    fn the_stage_count_is_odd_and_stable() {
        for (step, fastest) in [(1.0, 150.0), (0.5, 150.0), (2.0, 3000.0), (1.0, 0.01)] {
            let s = stages(step, fastest);
            assert!(s % 2 == 1 && s >= 3);
            let gain = decay(s, step * fastest);
            assert!(gain.abs() <= 1.0, "{s} stages amplify by {gain}");
        }
    }
}
