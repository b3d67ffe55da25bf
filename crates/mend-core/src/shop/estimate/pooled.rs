//! What the shop's own past says of a time: how much longer than the prior it takes, pooled over the shop, the kind of work
//! (connector and method) and the person.
//!
//! The logarithm of actual over prior is taken as the sum of a shop's effect, a kind's, a person's, and chance. Each effect is
//! shrunk towards none by how much there is of it: n of its jobs count against so many jobs' worth of prior belief (empirical
//! Bayes in closed form; Gelman and others, Bayesian Data Analysis, 3rd edition, 5.4). A job far off the middle of the others
//! counts as no farther than 1.65 times: one that lay on the bench over a week-end does not teach the shop to be slow (Winsorized,
//! after Huber).

/// So many jobs' worth of belief stand against the shop's own, a kind's and a person's (E).
const SHOP: f64 = 6.0;
const KIND: f64 = 12.0;
const PERSON: f64 = 12.0;
/// No farther from the middle than this, in the logarithm: 1.65 times as long.
const CLIP: f64 = 0.5;
/// So many jobs' worth stand behind the prior's spread.
const SPREAD: f64 = 8.0;

/// A time that was taken.
#[derive(Debug, Clone, PartialEq)]
pub struct PastTime {
    /// Actual over what the prior said, over zero.
    pub ratio: f64,
    /// Kind of work: connector and method.
    pub kind: String,
    /// Who did it; empty: not known.
    pub person: String,
}

/// For what it is asked.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PoolKey<'a> {
    /// Kind of work.
    pub kind: &'a str,
    /// Who does it; empty: whoever.
    pub person: &'a str,
}

/// What the past says.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PooledEffect {
    /// How many times the prior's time it takes, as often less as more.
    pub factor: f64,
    /// Standard deviation of its logarithm for the next job.
    pub spread: f64,
    /// How many jobs stand behind it.
    pub jobs: usize,
}

/// The effect of the past on a time that the prior spreads by `spread`.
///
/// ```
/// use mend_core::shop::estimate::pooled::{PoolKey, pooled};
/// let none = pooled(&[], PoolKey { kind: "port", person: "" }, 0.4);
/// assert_eq!((none.factor, none.spread), (1.0, 0.4));
/// ```
pub fn pooled(past: &[PastTime], key: PoolKey<'_>, spread: f64) -> PooledEffect {
    let usable = past.iter().filter(|time| time.ratio.is_finite() && time.ratio > 0.0);
    let logs: Vec<(f64, &PastTime)> = usable.map(|time| (time.ratio.ln(), time)).collect();
    let middle = middle(logs.iter().map(|(log, _)| *log));
    let mut left: Vec<(f64, &PastTime)> =
        logs.iter().map(|(log, time)| (log.clamp(middle - CLIP, middle + CLIP), *time)).collect();
    let mut effect = 0.0;
    let mut take = |weight: f64, of: &dyn Fn(&PastTime) -> bool| {
        let own: Vec<f64> = left.iter().filter(|(_, time)| of(time)).map(|(log, _)| *log).collect();
        let shrunk = own.iter().sum::<f64>() / (own.len() as f64 + weight);
        left.iter_mut().filter(|(_, time)| of(time)).for_each(|(log, _)| *log -= shrunk);
        effect += shrunk;
    };
    take(SHOP, &|_| true);
    take(KIND, &|time| time.kind == key.kind);
    take(PERSON, &|time| !key.person.is_empty() && time.person == key.person);
    let rest: f64 = left.iter().map(|(log, _)| log * log).sum();
    let chance = ((SPREAD * spread * spread + rest) / (SPREAD + left.len() as f64)).sqrt();
    // What is not known of the effect adds to chance: the less, the more jobs there are. With none the prior's own spread holds it.
    let n = left.len() as f64;
    let unknown = chance * chance * n / ((n + SHOP) * (n + SHOP));
    PooledEffect { factor: effect.exp(), spread: (chance * chance + unknown).sqrt(), jobs: left.len() }
}

/// The middle of what was taken and as many that took what the prior said as stand behind it: one job alone is no middle.
fn middle(logs: impl Iterator<Item = f64>) -> f64 {
    let mut all: Vec<f64> = logs.chain(std::iter::repeat_n(0.0, SHOP as usize)).collect();
    all.sort_by(f64::total_cmp);
    let half = all.len() / 2;
    if all.len() % 2 == 1 { all[half] } else { (all[half - 1] + all[half]) / 2.0 }
}

#[cfg(test)]
mod tests {
    use super::*;

    const PORT: PoolKey<'static> = PoolKey { kind: "port, from below", person: "Tam" };

    fn took(ratio: f64) -> PastTime {
        PastTime { ratio, kind: PORT.kind.to_owned(), person: PORT.person.to_owned() }
    }

    fn factor(ratios: &[f64]) -> f64 {
        let past: Vec<PastTime> = ratios.iter().map(|ratio| took(*ratio)).collect();
        pooled(&past, PORT, 0.4).factor
    }

    #[test]
    fn a_shop_that_is_slower_is_predicted_within_ten_percent_after_ten_jobs() {
        // Forty per cent slower than the prior, by chance up to a quarter more or less.
        let scatter = [0.8, 1.25, 0.9, 1.1, 1.0, 1.15, 0.87, 0.95, 1.05, 1.0];
        let ratios: Vec<f64> = scatter.iter().map(|chance| 1.4 * chance).collect();
        let predicted = factor(&ratios);
        assert!((predicted / 1.4 - 1.0).abs() < 0.1, "{predicted}");
        assert!((factor(&[1.4]) - 1.0).abs() < 0.15, "one job moves it a little: {}", factor(&[1.4]));
    }

    #[test]
    fn one_outlier_moves_it_by_no_more_than_fifteen_percent() {
        for outlier in [0.02, 0.1, 8.0, 400.0] {
            for before in [0, 1, 3, 10, 40] {
                let mut ratios = vec![1.1; before];
                let without = factor(&ratios);
                ratios.push(outlier);
                let moved = (factor(&ratios) / without - 1.0).abs();
                assert!(moved <= 0.15, "{outlier} after {before}: {moved}");
            }
        }
    }

    #[test]
    fn a_kind_and_a_person_have_their_own_and_lend_to_others() {
        let mut past: Vec<PastTime> = (0..20).map(|_| took(1.0)).collect();
        let slow =
            |person: &str| PastTime { ratio: 1.6, kind: "socket, hot swap".to_owned(), person: person.to_owned() };
        past.extend((0..10).map(|_| slow("Tilda")));
        let of = |kind: &str, person: &str| pooled(&past, PoolKey { kind, person }, 0.4).factor;
        let (own, kinds, others) =
            (of("socket, hot swap", "Tilda"), of("socket, hot swap", "Tam"), of(PORT.kind, "Tam"));
        assert!(own > kinds && kinds > others && others < 1.1, "{own} {kinds} {others}");
    }

    #[test]
    fn a_steady_shop_narrows_the_band_and_nothing_breaks_it() {
        let steady = pooled(&vec![took(1.2); 30], PORT, 0.4);
        assert!(steady.spread < 0.25 && steady.jobs == 30, "{steady:?}");
        let broken = [took(0.0), took(f64::NAN), took(-1.0)];
        assert_eq!(pooled(&broken, PORT, 0.4).jobs, 0);
    }
}
