//! What a job costs: hours, parts, consumables, and the risk that it goes wrong.

use super::stage_time::StageTime;
use crate::units::Money;

/// What a price is made of.
#[derive(Debug, Clone, PartialEq)]
pub struct PriceInputs {
    /// Hands on the job.
    pub hands: StageTime,
    /// What an hour costs the customer.
    pub rate: Money,
    /// Parts, by name.
    pub parts: Vec<PricedPart>,
    /// How likely something is damaged, or it comes back, 0-1.
    pub chance_of_loss: f64,
    /// What that costs: the work once more, the part once more, what was damaged.
    pub loss: Money,
}

/// A part with what it costs the customer.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PricedPart {
    /// Name.
    pub name: String,
    /// Cost of all that is needed.
    pub cost: Money,
}

/// A line of a price.
#[derive(Debug, Clone, PartialEq)]
pub enum PriceLine {
    /// Work: so many hours, eight in ten within.
    Work {
        /// s.
        seconds: f64,
        /// What they cost.
        cost: Money,
    },
    /// A part or consumable.
    Part(PricedPart),
    /// The risk, spread over all jobs like this.
    Risk {
        /// 0-1.
        chance: f64,
        /// What it costs when it happens.
        loss: Money,
        /// Its share.
        cost: Money,
    },
}

impl PriceLine {
    /// What it adds.
    pub const fn cost(&self) -> Money {
        match self {
            Self::Work { cost, .. } | Self::Risk { cost, .. } => *cost,
            Self::Part(part) => part.cost,
        }
    }
}

/// The price, line by line. Work is priced at what eight in ten jobs take no longer than: else every second job loses money.
///
/// ```
/// use mend_core::shop::estimate::price::{PriceInputs, price};
/// use mend_core::shop::estimate::stage_time::StageTime;
/// use mend_core::units::Money;
/// let hands = StageTime { usual_s: 3600.0, spread: 0.0 };
/// let (rate, loss) = (Money::hundredths(6000), Money::hundredths(20_000));
/// let lines = price(&PriceInputs { hands, rate, parts: vec![], chance_of_loss: 0.05, loss });
/// assert_eq!(lines.iter().map(|line| line.cost().in_hundredths()).sum::<i64>(), 6000 + 1000);
/// ```
pub fn price(inputs: &PriceInputs) -> Vec<PriceLine> {
    let seconds = inputs.hands.within_s();
    let mut lines = vec![PriceLine::Work { seconds, cost: inputs.rate.for_seconds(seconds) }];
    lines.extend(inputs.parts.iter().cloned().map(PriceLine::Part));
    let chance = inputs.chance_of_loss.clamp(0.0, 1.0);
    let share = Money::hundredths((chance * inputs.loss.in_hundredths() as f64).round() as i64);
    if share > Money::default() {
        lines.push(PriceLine::Risk { chance, loss: inputs.loss, cost: share });
    }
    lines
}

/// All lines together.
pub fn total(lines: &[PriceLine]) -> Money {
    Money::hundredths(lines.iter().map(|line| line.cost().in_hundredths()).sum())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_line_is_in_the_total_and_no_risk_is_no_line() {
        let part = PricedPart { name: "port".to_owned(), cost: Money::hundredths(640) };
        let hands = StageTime { usual_s: 1800.0, spread: 0.4 };
        let inputs = PriceInputs {
            hands,
            rate: Money::hundredths(6000),
            parts: vec![part],
            chance_of_loss: 0.0,
            loss: Money::hundredths(30_000),
        };
        let lines = price(&inputs);
        assert_eq!(lines.len(), 2);
        let work = (6000.0 * hands.within_s() / 3600.0).round() as i64;
        assert_eq!(total(&lines), Money::hundredths(work + 640));
        let risky = price(&PriceInputs { chance_of_loss: 1.7, ..inputs });
        assert_eq!(risky[2].cost(), Money::hundredths(30_000), "no more than certain");
    }
}
