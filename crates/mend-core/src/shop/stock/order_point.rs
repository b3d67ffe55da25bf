//! How many to hold: demand over a lead time, from the shop's own use.
//!
//! Demand is taken as Poisson at a rate that is not known. The rate's Gamma distribution begins as one piece in two months (E) and
//! learns from what was used; demand over a lead time is then negative binomial, and the order point its 95 % quantile
//! (Gelman and others, Bayesian Data Analysis, 3rd edition, 2.6). The prior's two months keep two sales in the first week from
//! shouting.

/// The prior: so many pieces in so many days (E).
const PRIOR_PIECES: f64 = 1.0;
const PRIOR_DAYS: f64 = 60.0;
/// Of a hundred lead times so many are got through without running out.
const SERVICE: f64 = 0.95;
/// No shop holds more of one part than this.
const MOST: u32 = 10_000;

/// What was used.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DemandHistory {
    /// Pieces, or packs.
    pub used: f64,
    /// Over how many days.
    pub days: f64,
}

impl DemandHistory {
    /// What is used in a day, as it is believed: the mean of the rate.
    pub fn per_day(&self) -> f64 {
        (PRIOR_PIECES + self.used.max(0.0)) / (PRIOR_DAYS + self.days.max(0.0))
    }

    /// The fewest pieces that cover the demand of `lead_days` in 95 of 100.
    ///
    /// ```
    /// use mend_core::shop::stock::order_point::DemandHistory;
    /// let new = DemandHistory { used: 0.0, days: 0.0 };
    /// let brisk = DemandHistory { used: 60.0, days: 120.0 };
    /// assert_eq!(new.order_point(10.0), 1);
    /// assert_eq!(brisk.order_point(10.0), 7);
    /// ```
    pub fn order_point(&self, lead_days: f64) -> u32 {
        let shape = PRIOR_PIECES + self.used.max(0.0);
        let rate = PRIOR_DAYS + self.days.max(0.0);
        let stay = rate / (rate + lead_days.max(0.0));
        // Term by term: P(0) = stay^shape, P(k) = P(k-1) (shape + k - 1) (1 - stay) / k.
        let mut term = stay.powf(shape);
        let mut sum = term;
        for k in 1..=MOST {
            if sum >= SERVICE {
                return k - 1;
            }
            term *= (shape + f64::from(k - 1)) * (1.0 - stay) / f64::from(k);
            sum += term;
        }
        MOST
    }
}

/// An item on the shelf, as ordering sees it, in packs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shelf {
    /// Nobody's, on the shelf.
    pub free: f64,
    /// On its way.
    pub on_order: f64,
    /// What jobs wait for.
    pub waited_for: f64,
    /// The order point; none: it is bought for a job alone.
    pub order_point: Option<u32>,
}

impl Shelf {
    /// How many packs to order now: what jobs wait for, and what brings the shelf back to its point.
    ///
    /// ```
    /// use mend_core::shop::stock::order_point::Shelf;
    /// let shelf = Shelf { free: 1.0, on_order: 0.0, waited_for: 0.0, order_point: Some(3) };
    /// assert_eq!(shelf.to_order(), 2);
    /// assert_eq!(Shelf { on_order: 2.0, ..shelf }.to_order(), 0);
    /// ```
    pub fn to_order(&self) -> u32 {
        let wanted = self.waited_for + f64::from(self.order_point.unwrap_or(0));
        let short = wanted - self.free.max(0.0) - self.on_order;
        // A pack that is begun is counted by what is left of it.
        if short <= 1e-6 { 0 } else { short.ceil().min(f64::from(MOST)) as u32 }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn two_sales_in_the_first_week_do_not_shout() {
        let quiet = DemandHistory { used: 0.0, days: 7.0 }.order_point(14.0);
        let two = DemandHistory { used: 2.0, days: 7.0 }.order_point(14.0);
        assert!(two <= quiet + 1, "{quiet} {two}: fourteen days at that pace would be four");
    }

    #[test]
    fn much_history_is_the_poisson_quantile() {
        // Half a piece a day over ten days: Poisson of mean 5 has its 95 % quantile at 9 (tables).
        let years = DemandHistory { used: 20_000.0, days: 40_000.0 };
        assert_eq!(years.order_point(10.0), 9);
        assert!((years.per_day() - 0.5).abs() < 1e-3);
    }

    #[test]
    fn longer_on_its_way_means_more_on_the_shelf() {
        let history = DemandHistory { used: 30.0, days: 90.0 };
        let points = [1.0, 5.0, 20.0, 60.0].map(|days| history.order_point(days));
        assert!(points.windows(2).all(|pair| pair[0] < pair[1]), "{points:?}");
    }

    #[test]
    fn a_waiting_job_is_ordered_for_whatever_is_kept() {
        let none = Shelf { free: 0.0, on_order: 0.0, waited_for: 2.0, order_point: None };
        assert_eq!((none.to_order(), Shelf { on_order: 1.5, ..none }.to_order()), (2, 1));
        assert_eq!(Shelf { free: 9.0, waited_for: 0.0, ..none }.to_order(), 0);
    }
}
