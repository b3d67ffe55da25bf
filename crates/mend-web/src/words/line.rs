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

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::board::Face;
    use mend_core::heat::motion::Motion;
    use mend_core::heat::shield::ShieldKind;
    use mend_core::planning::margin::MarginDetail;
    use mend_core::planning::sequence::line::{AfterLine, BeforeLine, FeedLine, FitLine, HarvestLine, PadsLine};
    use mend_core::units::Scale;

    fn said(line: impl Into<Line>) -> String {
        Words::default().line(&line.into()).join(" / ")
    }

    #[test]
    fn tools_are_said_with_their_places_and_figures() {
        let (face, motion) = (Face::Bottom, Motion::Circle);
        let air =
            HeatLine::AirAndPlace { onto_part: false, face, motion, distance_mm: 25.0, nozzle_mm: 22.0, lpm: 90.0 };
        assert_eq!(
            said(air),
            "Air from the far face, bottom face, 25 mm away, 22 mm nozzle, 90 L/min; moving in a small circle."
        );
        let (shield, over) = (ShieldKind::FoilTent { gap_mm: 2.0 }, vec!["socket".to_owned()]);
        let tent = BeforeLine::LayShield { shield, over, width_mm: 12.0, depth_mm: 6.0, face: Face::Top };
        assert_eq!(said(tent), "Foil tent 2 mm off over socket: 12 x 6 mm on the top face.");
    }

    #[test]
    fn headroom_is_said_on_the_visitors_scale() {
        let detail = MarginDetail::Written("Pa66, top".to_owned());
        let cover: Line = BeforeLine::Cover { component: "latch".to_owned(), detail, headroom_k: 5.0 }.into();
        let fahrenheit = Words { scale: Scale::Fahrenheit }.line(&cover);
        assert_eq!(fahrenheit, ["Cover latch (Pa66, top): it comes within 9 °F of its limit."]);
    }

    #[test]
    fn one_of_a_thing_is_said_as_one() {
        assert_eq!(said(PadsLine::HoleCount { holes: 1 }), "1 hole.");
        let passes = PadsLine::WickPasses { passes: 1, flood: "SAC305".to_owned() };
        assert!(said(passes).contains("1 pass, flooded with SAC305"));
        assert!(
            said(FitLine::Anchors { anchors: 4, tip_mm: 4.0, from_far_side: true })
                .starts_with("4 anchors: 4 mm tip, fed")
        );
    }

    #[test]
    fn wire_is_said_by_length_row_and_rounds() {
        let feed = |rounds| FeedLine::FeedRow {
            row: "anchors".to_owned(),
            joints: 4,
            mm: 12.04,
            alloy: "Sn42Bi58".to_owned(),
            wire_mm: 0.5,
            rounds,
        };
        assert_eq!(said(feed(1)), "anchors: 4 x 12.0 mm of Sn42Bi58, 0.5 mm wire.");
        assert!(said(feed(3)).ends_with("in 3 rounds: feed, wick, feed."));
        assert_eq!(said(AfterLine::OwnTest { text: "charges".to_owned() }), "charges");
        assert!(said(HarvestLine::WickFeet { joints: 12 }).contains("all 12 feet"));
    }
}
