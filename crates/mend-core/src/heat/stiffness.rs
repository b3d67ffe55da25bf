//! How stiff a step is: a bound on the fastest rate of everything that exchanges heat, cells and lumps together. The stages of a
//! step go with its square root, and so does the time of every run.
//!
//! Rates of exchange are a matrix with the losses in its diagonal and what comes from the others beside it. For a matrix without
//! negative entries and any positive vector `v` no eigenvalue is greater than the greatest of `(A v)_i / v_i`, and each
//! `v <- A v` brings that bound nearer to the greatest eigenvalue (Collatz 1942, Wielandt 1950). Absolute values stand for the
//! entries, which can only raise it. With all of `v` equal it is Gershgorin's bound: a light joint on a heavy board is counted twice there,
//! since it is taken for granted that the cell under it swings as far as it does.

/// After so many steps towards it the bound is near enough.
const MOST_STEPS: usize = 12;
/// A step that brings less than this is the last.
const WORTH: f64 = 0.01;
/// No part of the vector is taken to stand stiller than this beside the liveliest: it only has to be positive.
const STILLEST: f64 = 1e-6;

/// Rates of exchange between places, 1/s.
#[derive(Debug, Clone, Default)]
pub(super) struct Exchange {
    /// What each place loses by itself.
    own: Vec<f64>,
    links: Vec<Link>,
}

/// What comes to one place from another, 1/s for each kelvin there.
#[derive(Debug, Clone, Copy)]
struct Link {
    to: u32,
    from: u32,
    rate: f64,
}

impl Exchange {
    /// Nothing exchanged between so many places.
    pub(super) fn none(places: usize) -> Self {
        Self { own: vec![0.0; places], links: Vec::new() }
    }

    /// A place loses at this rate, 1/s.
    pub(super) fn loses(&mut self, place: usize, rate: f64) {
        self.own[place] += rate;
    }

    /// A place loses at this rate to another, and is warmed by it, 1/s.
    pub(super) fn link(&mut self, to: usize, from: usize, rate: f64) {
        if rate > 0.0 {
            self.own[to] += rate;
            self.links.push(Link { to: to as u32, from: from as u32, rate });
        }
    }

    /// Adds this matrix times `v` to `sum`.
    fn add_times(&self, v: &[f64], sum: &mut [f64]) {
        for ((sum, own), v) in sum.iter_mut().zip(&self.own).zip(v) {
            *sum += own * v;
        }
        for link in &self.links {
            sum[link.to as usize] += link.rate * v[link.from as usize];
        }
    }
}

/// The fastest rate of all these exchanges over the same places together, 1/s: never less than it is.
pub(super) fn fastest(parts: [&Exchange; 2]) -> f64 {
    let places = parts[0].own.len();
    let (mut bound, mut swings) = (f64::INFINITY, vec![1.0; places]);
    for _ in 0..MOST_STEPS {
        let mut next = vec![0.0; places];
        parts.iter().for_each(|part| part.add_times(&swings, &mut next));
        let nearer = next.iter().zip(&swings).map(|(next, swing)| next / swing).fold(0.0, f64::max);
        let most = next.iter().copied().fold(0.0, f64::max);
        let enough = nearer > bound * (1.0 - WORTH);
        bound = nearer.min(bound);
        if enough || most <= 0.0 {
            break;
        }
        next.iter_mut().for_each(|swing| *swing = (*swing / most).max(STILLEST));
        swings = next;
    }
    bound
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A light lump of 1 and a heavy one of `heavy`, joined by 1.
    fn pair(heavy: f64) -> Exchange {
        let mut made = Exchange::none(2);
        made.link(0, 1, 1.0);
        made.link(1, 0, 1.0 / heavy);
        made
    }

    #[test]
    fn a_light_lump_on_a_heavy_one_is_as_fast_as_the_two_are_and_not_twice() {
        for heavy in [1.0, 3.0, 50.0] {
            let (made, none) = (pair(heavy), Exchange::none(2));
            let (true_one, bound) = (1.0 + 1.0 / heavy, fastest([&made, &none]));
            assert!(bound >= true_one * (1.0 - 1e-12), "{bound} of {true_one}");
            assert!(bound <= true_one * 1.02, "{bound} of {true_one}");
        }
    }

    #[test]
    fn a_row_of_cells_is_never_taken_for_slower_than_it_is() {
        let (count, mut row) = (40, Exchange::none(40));
        for k in 0..count - 1 {
            row.link(k, k + 1, 2.0);
            row.link(k + 1, k, 2.0);
        }
        // Eigenvalues of a row of n cells: 4 sin²(pi k / 2n) times the rate.
        let true_one = 8.0 * (std::f64::consts::PI * (count - 1) as f64 / (2 * count) as f64).sin().powi(2);
        let bound = fastest([&row, &Exchange::none(count)]);
        assert!(bound >= true_one && bound <= 8.0, "{bound} of {true_one}");
    }

    #[test]
    fn where_nothing_is_exchanged_nothing_is_fast() {
        assert_eq!(fastest([&Exchange::none(3), &Exchange::none(3)]), 0.0);
    }
}
