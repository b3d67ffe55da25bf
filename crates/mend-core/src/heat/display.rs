//! What a station shows of its flow: litres per minute, per cent, or a dial with steps of its own. The table from the display
//! to litres per minute is the shop's: read off the manual, or measured.

use serde::{Deserialize, Serialize};

use crate::units::Flow;

/// What is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Shows {
    /// Litres per minute.
    #[default]
    Flow,
    /// Per cent of the most.
    Percent,
    /// Steps of its own.
    Dial,
}

impl Shows {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Flow, Self::Percent, Self::Dial];

    /// Its name.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Flow => "L/min",
            Self::Percent => "per cent",
            Self::Dial => "a dial",
        }
    }
}

/// A station's display.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Display {
    shows: Shows,
    /// Shown and real, both ascending; empty where litres per minute are shown.
    table: Vec<(f64, Flow)>,
}

/// Why a table is none.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NotATable {
    /// Two rows at least: the lowest and the highest.
    #[error("a table has two rows at least: what is shown at the lowest flow and at the highest")]
    TooShort,
    /// One of the columns does not climb.
    #[error("both columns climb from row to row: more on the display is more air")]
    NotClimbing,
}

impl Display {
    /// A display of per cent or a dial with its table, shown value and L/min, or of litres per minute, which needs none.
    pub fn try_new(shows: Shows, table: Vec<(f64, Flow)>) -> Result<Self, NotATable> {
        if shows == Shows::Flow {
            return Ok(Self::default());
        }
        if table.len() < 2 {
            return Err(NotATable::TooShort);
        }
        let climbs = |pair: &[(f64, Flow)]| pair[0].0 < pair[1].0 && pair[0].1 < pair[1].1;
        if table.windows(2).all(climbs) { Ok(Self { shows, table }) } else { Err(NotATable::NotClimbing) }
    }

    /// What it shows.
    pub fn shows(&self) -> Shows {
        self.shows
    }

    /// Its table: shown value and real flow.
    pub fn table(&self) -> &[(f64, Flow)] {
        &self.table
    }

    /// The value on the display at a flow, straight between the rows of the table; beyond its ends, at the end. None where
    /// litres per minute are shown.
    pub fn value(&self, flow: Flow) -> Option<f64> {
        let (first, last) = (self.table.first()?, self.table.last()?);
        if flow <= first.1 {
            return Some(first.0);
        }
        let pair = self.table.windows(2).find(|pair| flow <= pair[1].1);
        Some(pair.map_or(last.0, |pair| {
            let [low, high] = [pair[0].1, pair[1].1].map(Flow::in_litres_per_minute);
            let share = (flow.in_litres_per_minute() - low) / (high - low);
            pair[0].0 + share * (pair[1].0 - pair[0].0)
        }))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn table(rows: &[(f64, f64)]) -> Vec<(f64, Flow)> {
        rows.iter().map(|(shown, lpm)| (*shown, Flow::litres_per_minute(*lpm))).collect()
    }

    #[test]
    fn a_dial_is_read_between_its_steps() {
        let dial = Display::try_new(Shows::Dial, table(&[(1.0, 10.0), (4.0, 40.0), (8.0, 60.0)])).expect("climbs");
        let at = |lpm: f64| dial.value(Flow::litres_per_minute(lpm));
        assert_eq!([at(5.0), at(25.0), at(50.0), at(99.0)], [Some(1.0), Some(2.5), Some(6.0), Some(8.0)]);
        assert_eq!(Display::default().value(Flow::litres_per_minute(30.0)), None);
    }

    #[test]
    fn a_table_that_does_not_climb_is_none() {
        let of = |rows: &[(f64, f64)]| Display::try_new(Shows::Percent, table(rows)).map(|_| ());
        assert_eq!(of(&[(0.0, 10.0)]), Err(NotATable::TooShort));
        assert_eq!(of(&[(0.0, 10.0), (50.0, 10.0)]), Err(NotATable::NotClimbing));
        assert_eq!(of(&[(50.0, 10.0), (50.0, 20.0)]), Err(NotATable::NotClimbing));
        assert_eq!(Display::try_new(Shows::Flow, vec![]), Ok(Display::default()));
    }
}
