//! What a job takes and costs, from its plan, its parts, and the shop's own past.

use mend_core::shop::Stop;
use mend_core::shop::estimate::price::{PriceInputs, PriceLine, PricedPart, price};
use mend_core::shop::estimate::stage_time::StageTime;
use mend_core::shop::stops_of;
use mend_core::units::Money;
use mend_formats::item;
use mend_store::ItemRow;

use super::QuoteLine;
use crate::App;
use crate::job::{Job, JobExtent};
use crate::pages::jobs::parts::from_the_shelf;
use crate::pages::stock::quantity;
use crate::refusal::Refusal;
use crate::scheduling::Past;

/// How often something goes wrong that no plan foresees, of jobs that were planned and of those that were not (E).
const UNFORESEEN: [f64; 2] = [0.03, 0.10];

/// A time in whole minutes, or hours and minutes.
pub(super) fn minutes(seconds: f64) -> String {
    let minutes = (seconds / 60.0).round();
    if minutes < 100.0 {
        format!("{minutes:.0} min")
    } else {
        format!("{:.0} h {:02.0} min", (minutes / 60.0).floor(), minutes % 60.0)
    }
}

/// What a job is estimated from.
pub(super) struct Estimate {
    pub(super) extent: JobExtent,
    pub(super) stops: Vec<(Stop, StageTime)>,
    pub(super) hands: StageTime,
    pub(super) parts: Vec<PricedPart>,
    pub(super) chance: f64,
}

impl Estimate {
    pub(super) async fn load(app: &App, job: &Job) -> Result<(Self, Past), Refusal> {
        let (past, items) = (Past::load(app).await?, app.reading(|read| read.items()).await?);
        let extent = job.extent();
        let stops: Vec<(Stop, StageTime)> =
            stops_of(job.kind()).map(|stop| (stop, past.stage(stop, &extent, ""))).collect();
        let times: Vec<StageTime> = stops.iter().map(|(_, time)| *time).collect();
        let unforeseen = UNFORESEEN[usize::from(extent.works.is_none())];
        let chance = (1.0 - extent.works.unwrap_or(1.0) * (1.0 - unforeseen)).clamp(0.0, 1.0);
        let hands = StageTime::together(&times);
        let parts = priced(job, &items).into_iter().chain(consumables(job, &items)).collect();
        Ok((Self { extent, stops, hands, parts, chance }, past))
    }

    /// What it costs where it goes wrong: the work and the parts once more, unless somebody says otherwise.
    pub(super) fn loss(&self, rate: Money) -> Money {
        let parts: i64 = self.parts.iter().map(|part| part.cost.in_hundredths()).sum();
        Money::hundredths(rate.for_seconds(self.hands.within_s()).in_hundredths() + parts)
    }

    pub(super) fn lines(&self, rate: Money, loss: Money) -> Vec<PriceLine> {
        let (hands, parts, chance_of_loss) = (self.hands, self.parts.clone(), self.chance);
        price(&PriceInputs { hands, rate, parts, chance_of_loss, loss })
    }

    pub(super) fn risk(&self) -> String {
        let percent = 100.0 * self.chance;
        match self.extent.works {
            Some(works) => format!(
                "{percent:.0} in 100: of 100 runs of its plan {:.0} melt everything before anything is damaged, and 3 in 100 go wrong otherwise",
                100.0 * works
            ),
            None => format!("{percent:.0} in 100, a guess: there is no heat plan yet"),
        }
    }
}

/// The parts of a job, with what they cost the shop; one without a price costs nothing here.
fn priced(job: &Job, items: &[ItemRow]) -> Vec<PricedPart> {
    job.parts.iter().filter_map(|part| bought(items, part.need.item, part.need.wanted)).collect()
}

/// So much of an item at its price; none: nobody knows what it costs.
fn bought(items: &[ItemRow], id: i64, amount: f64) -> Option<PricedPart> {
    let row = items.iter().find(|row| row.id == id)?;
    let item = item::parse(row.file.as_bytes()).ok()?;
    Some(PricedPart { name: format!("{}, {}", row.name, quantity(amount, &item.unit)), cost: item.costs(amount)? })
}

/// What its plan expects to use up, in one line: each alone is pennies. What is listed among its parts is not counted again.
fn consumables(job: &Job, items: &[ItemRow]) -> Option<PricedPart> {
    let listed = |item: i64| job.parts.iter().any(|part| part.need.item == item);
    let wanted = from_the_shelf(&job.planned_uses(), items).into_iter().filter(|(item, _)| !listed(*item));
    let lines: Vec<PricedPart> = wanted.filter_map(|(item, amount)| bought(items, item, amount)).collect();
    let cost = Money::hundredths(lines.iter().map(|line| line.cost.in_hundredths()).sum());
    let names: Vec<&str> = lines.iter().map(|line| line.name.as_str()).collect();
    (cost > Money::default()).then(|| PricedPart { name: format!("Used up: {}", names.join("; ")), cost })
}

pub(super) fn in_words(line: &PriceLine) -> QuoteLine {
    let what = match line {
        PriceLine::Work { seconds, .. } => format!("Work, {} (eight in ten within)", minutes(*seconds)),
        PriceLine::Part(part) => part.name.clone(),
        PriceLine::Risk { chance, loss, .. } => format!("Risk, {:.0} in 100 of {loss}", 100.0 * chance),
    };
    QuoteLine { what, cost: line.cost().to_string() }
}
