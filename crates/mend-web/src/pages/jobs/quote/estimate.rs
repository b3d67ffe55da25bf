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
use crate::job::{Job, JobExtent, NeededPart};
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
            stops_of(job.kind()).map(|stop| (stop, past.stage(stop, (&extent, "")))).collect();
        let times: Vec<StageTime> = stops.iter().map(|(_, time)| *time).collect();
        let unforeseen = UNFORESEEN[usize::from(extent.works.is_none())];
        let chance = (1.0 - extent.works.unwrap_or(1.0) * (1.0 - unforeseen)).clamp(0.0, 1.0);
        let hands = StageTime::together(&times);
        Ok((Self { extent, stops, hands, parts: priced(job, &items), chance }, past))
    }

    /// What it costs where it goes wrong: the work and the parts once more, unless somebody says otherwise.
    pub(super) fn loss(&self, rate: Money) -> Money {
        let parts: i64 = self.parts.iter().map(|part| part.cost.in_hundredths()).sum();
        Money::hundredths(rate.for_seconds(self.hands.within_s()).in_hundredths() + parts)
    }

    pub(super) fn lines(&self, (rate, loss): (Money, Money)) -> Vec<PriceLine> {
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
    let of = |part: &NeededPart| {
        let row = items.iter().find(|row| row.id == part.need.item)?;
        let item = item::parse(row.file.as_bytes()).ok()?;
        let each = item.unit_price()?.in_hundredths();
        #[allow(clippy::cast_possible_truncation, clippy::cast_precision_loss, reason = "hundredths of a price")]
        let cost = Money::hundredths((each as f64 * part.need.wanted).round() as i64);
        Some(PricedPart { name: format!("{}, {}", row.name, quantity(part.need.wanted, &item.unit)), cost })
    };
    job.parts.iter().filter_map(of).collect()
}

pub(super) fn in_words(line: &PriceLine) -> QuoteLine {
    let what = match line {
        PriceLine::Work { seconds, .. } => format!("Work, {} (eight in ten within)", minutes(*seconds)),
        PriceLine::Part(part) => part.name.clone(),
        PriceLine::Risk { chance, loss, .. } => format!("Risk, {:.0} in 100 of {loss}", 100.0 * chance),
    };
    QuoteLine { what, cost: line.cost().to_string() }
}
