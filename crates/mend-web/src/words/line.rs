//! What a step says to do, a line each; `line_before`, `line_heat`, `line_part` and `line_after` have the words.

use mend_core::planning::sequence::line::{HeatLine, Line};

use super::Words;
use super::line_after::{after_line, harvest_line};
use super::line_before::feed_line;
use super::line_part::{fit_line, pads_line};

impl Words {
    /// A line; what the hands do in a method may be several.
    pub(super) fn line(&self, line: &Line) -> Vec<String> {
        match line {
            Line::Before(line) => vec![self.before_line(line)],
            Line::Feed(line) => vec![feed_line(line)],
            Line::Heat(HeatLine::MethodHands { family }) => {
                self.method(*family).heat.iter().map(|line| (*line).to_owned()).collect()
            }
            Line::Heat(line) => vec![self.heat_line(line)],
            Line::Pads(line) => vec![pads_line(line)],
            Line::Fit(line) => vec![fit_line(line)],
            Line::After(line) => vec![after_line(line)],
            Line::Harvest(line) => vec![harvest_line(line)],
        }
    }
}
