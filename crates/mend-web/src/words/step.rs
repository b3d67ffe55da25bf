//! Steps at the bench, in words: short name, what to do, what to watch for, why, and what to do if it does not come.

use mend_core::method::MethodFamily;
use mend_core::method::techniques::{BRAID, FIRST, FLUX, HOLES, SEAT, SET};
use mend_core::planning::sequence::step::{Step, StepText};
use mend_core::planning::sequence::task::Task;

use super::Words;

/// A step as a page shows it.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct StepWords {
    /// Short name.
    pub title: String,
    /// What to do, a line each.
    pub lines: Vec<String>,
    /// What to watch for.
    pub cue: String,
    /// Why it is done so; empty where there is nothing to say.
    pub why: String,
    /// What to do if it does not come.
    pub otherwise: Vec<String>,
}

impl Words {
    /// A step.
    pub fn step(&self, step: &Step) -> StepWords {
        match &step.text {
            StepText::Written { title, lines, cue, why, otherwise } => {
                let (title, cue, why) = (title.clone(), cue.clone(), why.clone());
                StepWords { title, lines: lines.clone(), cue, why, otherwise: otherwise.clone() }
            }
            StepText::Typed { task, lines } => StepWords {
                title: title(task).to_owned(),
                lines: lines.iter().flat_map(|line| self.line(line)).collect(),
                cue: self.cue(task).to_owned(),
                why: self.why(task),
                otherwise: self.otherwise(task),
            },
        }
    }

    /// The short name of a step.
    pub fn step_title(&self, step: &Step) -> String {
        match &step.text {
            StepText::Written { title, .. } => title.clone(),
            StepText::Typed { task, .. } => title(task).to_owned(),
        }
    }

    fn cue(&self, task: &Task) -> &'static str {
        match task {
            Task::MakeReady => "Nothing on the board is live.",
            Task::Open => "The board lies free; what came out is counted and bagged.",
            Task::Protect => "No tape on any joint of the part: a covered joint will not melt.",
            Task::ProtectPart => "Nothing touches the part's contacts.",
            Task::Flux => "Every joint is wet with flux.",
            Task::AddAlloy => "Fresh metal shines on each joint.",
            Task::LayWire => "The wire is drowned in solder and touches every joint.",
            Task::Soak { air: true } => "Flux runs; nothing is bright yet.",
            Task::Pause | Task::Warm | Task::Soak { air: false } => "The board feels evenly warm from above.",
            Task::Heat { family: Some(family), .. } => self.method(*family).cue,
            Task::Heat { family: None, .. } => {
                "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches."
            }
            Task::EmptyHoles { .. } => self.method(MethodFamily::Pump).cue,
            Task::Lift => "If it needs force, it is not ready.",
            Task::Wick => "Braid glides; pads are flat and bright.",
            Task::CleanPads => "Every pad and hole is bare and whole.",
            Task::LeaveHolesFilled => "Every hole is a flat, bright disc on both faces.",
            Task::ClearHoles => "Light shows through every hole.",
            Task::Fit => "It sits flat before any heat.",
            Task::SetWithAir => "The part sinks; a bright line runs round each leg.",
            Task::SetWithIron => "A concave fillet runs from every pin to its pad.",
            Task::Hold => "The shine turns matt on the last leg.",
            Task::TouchUp => "Solder shows on both faces of each anchor; no bridge, no ball.",
            Task::Clean => "No shine of flux under and round the part.",
            Task::CleanAll => "Concave fillets, no bridges, no balls.",
            Task::Inspect => "Every fillet looks like its neighbour.",
            Task::Test => "Everything that this port is for works.",
            Task::CoolPart => "Latch and body are hard again.",
            Task::CleanPart => "All feet stand in one plane and shine.",
            Task::BagPart => "It would pass for new under the microscope.",
            Task::OtherBoard => "Every pad is flat and bright, and waits.",
            Task::LookAtLands => "Every land is whole, or on record.",
        }
    }

    fn why(&self, task: &Task) -> String {
        match task {
            Task::Heat { family, limited_by } | Task::EmptyHoles { family, limited_by } => {
                let how = family.map_or(String::new(), |family| format!("{} ", self.method(family).how));
                format!("{how}{}", self.limited_by(limited_by))
            }
            Task::Fit => format!("{} {}", FIRST.why, SEAT.why),
            plain => why(plain).to_owned(),
        }
    }

    fn otherwise(&self, task: &Task) -> Vec<String> {
        let owned = |lines: &[&str]| lines.iter().map(|line| (*line).to_owned()).collect();
        match task {
            Task::Heat { family: Some(family), .. } | Task::EmptyHoles { family: Some(family), .. } => {
                owned(self.method(*family).not_coming)
            }
            Task::Heat { family: None, .. } | Task::EmptyHoles { family: None, .. } => {
                owned(&["More alloy, a wider nozzle or the other face beat more heat for longer."])
            }
            _ => Vec::new(),
        }
    }
}

const fn title(task: &Task) -> &'static str {
    match task {
        Task::MakeReady => "Make ready",
        Task::Open => "Open",
        Task::Protect | Task::ProtectPart => "Protect",
        Task::Flux => "Flux",
        Task::AddAlloy => "Add alloy",
        Task::LayWire => "Lay the wire",
        Task::Pause => "Pause",
        Task::Warm => "Warm on the preheater",
        Task::Soak { .. } => "Soak",
        Task::Heat { family: Some(MethodFamily::HotSwap), .. } => "Heat and swap",
        Task::Heat { .. } => "Heat",
        Task::EmptyHoles { .. } => "Empty the holes",
        Task::Lift => "Lift",
        Task::Wick => "Wick while warm",
        Task::CleanPads => "Clean and look",
        Task::LeaveHolesFilled => "Leave the holes filled",
        Task::ClearHoles => "Clear the holes",
        Task::Fit => "Fit",
        Task::SetWithAir | Task::SetWithIron => "Set",
        Task::Hold => "Hold",
        Task::TouchUp => "Anchors and pins",
        Task::Clean | Task::CleanAll => "Clean",
        Task::Inspect => "Inspect",
        Task::Test => "Test",
        Task::CoolPart => "Let it cool",
        Task::CleanPart => "Clean the part",
        Task::BagPart => "Look and bag",
        Task::OtherBoard => "The other board",
        Task::LookAtLands => "Look at the lands",
    }
}

/// Why a step is done so, where that does not depend on the plan.
const fn why(task: &Task) -> &'static str {
    match task {
        Task::MakeReady => {
            "A cell in heat burns, a live board dies of a slipped tip, and a part that can drop comes off clean."
        }
        Task::Open => "Most broken flex connectors were broken here, by pulling without opening the latch.",
        Task::Protect => "A shield delays; it does not prevent. It stands where the plan says that delay is needed.",
        Task::ProtectPart => {
            "What need not be kept is no longer in the way: fewer shields, less time, less heat on the part."
        }
        Task::Flux => FLUX.why,
        Task::AddAlloy => {
            "Fresh metal carries the tip's heat into the joint, and what mixes in decides where it melts."
        }
        Task::LayWire => "Copper carries eight times what solder does: one tip on the wire is on all joints.",
        Task::Pause | Task::Warm | Task::Soak { .. } => {
            "A warm board needs less from the last tool: less time, less air, less difference across the part."
        }
        Task::Lift => "Force takes pads and barrels; a joint that holds is a joint that is solid.",
        Task::Wick => BRAID.why,
        Task::CleanPads => "A lifted pad found now is mended in minutes; found after the port it is another job.",
        Task::LeaveHolesFilled => {
            "Dropping in saves the clearing; it wants practised hands, and no dry fit is possible."
        }
        Task::ClearHoles => HOLES.why,
        Task::SetWithAir | Task::SetWithIron => SET.why,
        Task::Hold => "A joint that moves while it freezes is a joint that opens in a month.",
        Task::TouchUp => "Anchors carry the plug's force; pins do not. Air sets, the iron proves.",
        Task::Clean => "“No-clean” is cleaned all the same: residue under a part eats joints months later.",
        Task::Inspect => "What is found here is one touch of the iron; found after closing it is the whole job again.",
        Task::Test => "Tested open, a fault costs minutes.",
        Task::CoolPart => "A hot body bends under its own weight in a pair of tweezers.",
        Task::CleanPart => "What stays on its feet goes into the next customer's joints.",
        Task::BagPart => "Two look-alikes differ by a fraction of a millimetre: the bag says which one it is.",
        Task::OtherBoard => "A part that waits in tweezers for its pads cools, slips and bends.",
        Task::LookAtLands => "Whoever puts a part here next goes by what is found now.",
        Task::CleanAll | Task::Fit | Task::Heat { .. } | Task::EmptyHoles { .. } => "",
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::planning::limited_by::{LimitedBy, NearestLimit};
    use mend_core::planning::sequence::line::{HeatLine, Line};
    use mend_core::planning::sequence::step::{Duty, StepKind};
    use mend_core::units::Scale;

    fn step(task: Task, lines: Vec<Line>) -> Step {
        let text = StepText::Typed { task, lines };
        Step { text, cautions: vec![], kind: StepKind::Do, duty: Duty::None, map: false }
    }

    fn heat(family: Option<MethodFamily>) -> Task {
        Task::Heat { family, limited_by: LimitedBy::Found { last: None, nearest: NearestLimit::Nothing } }
    }

    #[test]
    fn every_task_has_a_title_a_cue_and_a_reason() {
        let tasks = [
            Task::MakeReady,
            Task::Open,
            Task::Protect,
            Task::ProtectPart,
            Task::Flux,
            Task::AddAlloy,
            Task::LayWire,
            Task::Pause,
            Task::Warm,
            Task::Soak { air: true },
            heat(None),
            Task::Lift,
            Task::Wick,
            Task::CleanPads,
            Task::LeaveHolesFilled,
            Task::ClearHoles,
            Task::Fit,
            Task::SetWithAir,
            Task::SetWithIron,
            Task::Hold,
            Task::TouchUp,
            Task::Clean,
            Task::Inspect,
            Task::Test,
            Task::CoolPart,
            Task::CleanPart,
            Task::BagPart,
            Task::OtherBoard,
            Task::LookAtLands,
        ];
        for task in tasks {
            let view = Words::default().step(&step(task.clone(), vec![]));
            assert!(!view.title.is_empty() && view.cue.ends_with('.') && view.why.ends_with('.'), "{task:?}: {view:?}");
        }
    }

    #[test]
    fn the_heat_is_told_by_its_method_with_what_to_do_if_it_does_not_come() {
        let words = Words::default();
        let swap = words.step(&step(heat(Some(MethodFamily::HotSwap)), vec![]));
        assert_eq!(swap.title, "Heat and swap");
        assert_eq!(swap.cue, words.method(MethodFamily::HotSwap).cue);
        assert_eq!(swap.otherwise.len(), words.method(MethodFamily::HotSwap).not_coming.len());
        let plain = words.step(&step(heat(None), vec![]));
        assert_eq!((plain.title.as_str(), plain.otherwise.len()), ("Heat", 1));
    }

    #[test]
    fn lines_are_said_in_order_and_a_method_may_bring_its_own() {
        let family = MethodFamily::Pump;
        let lines = vec![HeatLine::MethodHands { family }.into(), HeatLine::DoNotPull.into()];
        let said = Words { scale: Scale::Fahrenheit }.step(&step(heat(Some(family)), lines)).lines;
        assert_eq!(said.len(), 2);
        assert!(said[0].starts_with("Fresh solder on the leg") && said[1].starts_with("No pulling"));
    }

    #[test]
    fn what_an_older_version_wrote_is_shown_as_it_was() {
        let text = StepText::Written {
            title: "Lift".to_owned(),
            lines: vec!["Straight up.".to_owned()],
            cue: "It floats.".to_owned(),
            why: String::new(),
            otherwise: vec![],
        };
        let older = Step { text, ..step(Task::Lift, vec![]) };
        let view = Words::default().step(&older);
        assert_eq!((view.title.as_str(), view.lines.as_slice()), ("Lift", ["Straight up.".to_owned()].as_slice()));
    }
}
