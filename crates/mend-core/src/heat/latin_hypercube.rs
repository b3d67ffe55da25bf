//! Points spread evenly over many dimensions at once: each dimension's values are the middles of as many equal parts, and no
//! two dimensions run together.

/// Passes in which what two columns have in common is taken out of one of them (they settle after three or four).
const PASSES: usize = 8;
/// One scramble of the sequence that the first order is taken from.
const SCRAMBLE: u32 = 126_527;

/// `count` values in 0-1 for each dimension, by dimension. The same every time.
///
/// The first order is that of an Owen-scrambled Sobol sequence (Burley 2020); then the ranks are freed of their correlation by
/// Gram-Schmidt on columns, forwards and backwards (Owen 1994). With 64 values no two of 25 dimensions correlate by more than a
/// few hundredths; a random order would by 0.3 somewhere.
///
/// ```
/// use mend_core::heat::latin_hypercube::latin_hypercube;
/// let columns = latin_hypercube(64, 25);
/// let mut sorted = columns[24].clone();
/// sorted.sort_by(f64::total_cmp);
/// assert_eq!((sorted[0], sorted[63]), (0.5 / 64.0, 63.5 / 64.0));
/// ```
pub fn latin_hypercube(count: usize, dimensions: usize) -> Vec<Vec<f64>> {
    let point = |k: usize, dimension: usize| f64::from(sobol_burley::sample(k as u32, dimension as u32, SCRAMBLE));
    let mut columns: Vec<Vec<f64>> =
        (0..dimensions).map(|d| ranked(&(0..count).map(|k| point(k, d)).collect::<Vec<f64>>())).collect();
    for _ in 0..PASSES {
        for later in 1..dimensions {
            for earlier in 0..later {
                take_out(&mut columns, later, earlier);
            }
        }
        for earlier in (0..dimensions).rev() {
            for later in earlier + 1..dimensions {
                take_out(&mut columns, earlier, later);
            }
        }
    }
    let even = |rank: f64| (rank + 0.5) / count as f64;
    columns.into_iter().map(|column| column.into_iter().map(even).collect()).collect()
}

/// Takes out of one column what it has in common with another.
fn take_out(columns: &mut [Vec<f64>], from: usize, other: usize) {
    let common = rank_correlation(&columns[from], &columns[other]);
    let freed: Vec<f64> = columns[from].iter().zip(&columns[other]).map(|(a, b)| a - common * b).collect();
    columns[from] = ranked(&freed);
}

/// For each value how many are smaller; of equal ones the earlier.
fn ranked(values: &[f64]) -> Vec<f64> {
    let mut order: Vec<usize> = (0..values.len()).collect();
    order.sort_by(|a, b| values[*a].total_cmp(&values[*b]));
    let mut ranks = vec![0.0; values.len()];
    order.into_iter().enumerate().for_each(|(rank, k)| ranks[k] = rank as f64);
    ranks
}

/// Spearman's rank correlation of two lists of one length, -1 to 1; 0 where one of them is constant or shorter than two.
///
/// ```
/// use mend_core::heat::latin_hypercube::rank_correlation;
/// assert_eq!(rank_correlation(&[1.0, 2.0, 30.0], &[5.0, 6.0, 7.0]), 1.0);
/// ```
pub fn rank_correlation(a: &[f64], b: &[f64]) -> f64 {
    let about = |values: &[f64]| {
        let ranks = ranked(values);
        let mean = ranks.iter().sum::<f64>() / ranks.len().max(1) as f64;
        ranks.into_iter().map(|rank| rank - mean).collect::<Vec<f64>>()
    };
    let (a, b) = (about(a), about(b));
    let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(x, y)| x * y).sum::<f64>();
    let scale = (dot(&a, &a) * dot(&b, &b)).sqrt();
    if scale > 0.0 { dot(&a, &b) / scale } else { 0.0 }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_two_of_twenty_five_dimensions_run_together() {
        let columns = latin_hypercube(64, 25);
        for (i, a) in columns.iter().enumerate() {
            for (j, b) in columns.iter().enumerate().skip(i + 1) {
                let r = rank_correlation(a, b);
                assert!(r.abs() < 0.1, "dimensions {i} and {j}: r = {r:.2}");
            }
        }
    }

    #[test]
    fn every_dimension_has_one_value_in_each_part() {
        for column in latin_hypercube(9, 3) {
            let mut sorted = column;
            sorted.sort_by(f64::total_cmp);
            let middles = (0..9).map(|k| (f64::from(k) + 0.5) / 9.0);
            assert!(sorted.iter().zip(middles).all(|(a, b)| (a - b).abs() < 1e-12), "{sorted:?}");
        }
    }
}
