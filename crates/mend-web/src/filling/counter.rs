//! People, stock and donors of a shop that is filled from files.

use jiff::ToSpan;
use mend_core::shop::stock::MoveKind;
use mend_formats::item;
use mend_formats::shop::counter::{self, CounterFile, DatedAmount, StockedFile};
use mend_store::{NewMove, NewPerson, StoreError, Write};

use super::CannotFill;
use crate::App;
use crate::job::Job;

/// Puts it down; what jobs need is promised to them.
pub(super) async fn fill(app: &App, text: &str) -> Result<(), CannotFill> {
    let file = counter::parse(text.as_bytes()).map_err(|findings| CannotFill::findings("counter", &findings))?;
    let now = app.now();
    let put = app.writing(move |write| {
        let counter = Counter { file: &file, now };
        counter.people(write)?;
        counter.stock(write)?;
        counter.needs(write)?;
        counter.donors(write)
    });
    put.await.map_err(|refusal| CannotFill::refusal("counter", refusal))
}

/// What is put down, and when.
struct Counter<'a> {
    file: &'a CounterFile,
    now: jiff::ZonedDateTime,
}

impl Counter<'_> {
    fn at_ms(&self, days_ago: i64) -> i64 {
        self.now.timestamp().as_millisecond() - days_ago * 24 * 3600 * 1000
    }

    /// The number of an item by its name.
    fn item(&self, write: &Write<'_>, name: &str) -> Result<i64, StoreError> {
        let found = write.read().items()?.into_iter().find(|row| row.name == name).map(|row| row.id);
        found.ok_or_else(|| StoreError::Connection(format!("the counter's file has no item “{name}”")))
    }

    fn people(&self, write: &Write<'_>) -> Result<(), StoreError> {
        for person in self.file.people.iter().cloned() {
            let new = NewPerson { name: person.name, role: person.role, level: person.level };
            write.add_person(&new, self.at_ms(0))?;
        }
        Ok(())
    }

    fn stock(&self, write: &Write<'_>) -> Result<(), StoreError> {
        for stocked in &self.file.items {
            let text = item::write(&stocked.item).map_err(|error| StoreError::Connection(error.to_string()))?;
            let Some(id) = write.add_item(&stocked.item.name, &text, self.at_ms(0))? else { continue };
            self.moves(write, id, stocked)?;
        }
        for pair in &self.file.look_alikes {
            let (one, other) = (self.item(write, &pair.item)?, self.item(write, &pair.other)?);
            write.set_look_alike(one, other, &pair.difference)?;
        }
        Ok(())
    }

    fn moves(&self, write: &Write<'_>, item: i64, stocked: &StockedFile) -> Result<(), StoreError> {
        let of = |kind: MoveKind, amount: &DatedAmount| {
            let comes = self.now.date().checked_add((-amount.days_ago).days()).map(|day| day.to_string());
            let ordered = kind == MoveKind::Ordered;
            let (day, days_ago) =
                if ordered { (comes.unwrap_or_default(), 1) } else { (String::new(), amount.days_ago) };
            let (note, at_ms) = (String::new(), self.at_ms(days_ago));
            NewMove { item, job: None, kind, quantity: amount.quantity, day, note, at_ms }
        };
        write.add_move(&of(MoveKind::Received, &stocked.received))?;
        stocked.used.iter().try_for_each(|used| write.add_move(&of(MoveKind::Used, used)))?;
        stocked.on_order.iter().try_for_each(|amount| write.add_move(&of(MoveKind::Ordered, amount)))
    }

    fn needs(&self, write: &Write<'_>) -> Result<(), StoreError> {
        for need in &self.file.needs {
            let item = self.item(write, &need.item)?;
            write.need_item(need.job, item, need.quantity)?;
            if let Some(row) = write.read().needs(need.job)?.iter().find(|row| row.item == item) {
                write.reserve(row, self.at_ms(0))?;
            }
            Job::list(write, need.job)?;
        }
        Ok(())
    }

    fn donors(&self, write: &Write<'_>) -> Result<(), StoreError> {
        for donor in &self.file.donors {
            let id = write.add_donor(&donor.name, &donor.holds, self.at_ms(6))?;
            donor.job.iter().try_for_each(|job| write.harvest_donor(id, *job))?;
        }
        Ok(())
    }
}
