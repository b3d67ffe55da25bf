//! The ways to fit a new part, and the small runs beside it, in words.

use mend_core::planning::band::TimeBand;
use mend_core::planning::fit::{FitObstacle, FitWay};
use mend_core::planning::small_runs::{SmallRun, SmallWork};

use super::Words;
use super::quantity::{count, release};

/// A way's name.
pub const fn fit_way(way: FitWay) -> &'static str {
    match way {
        FitWay::AirFromAbove => "Air from above, part in place",
        FitWay::AirFromBelow => "Air from below, part in place",
        FitWay::PinByPin => "Iron, pin by pin",
        FitWay::FloatedIn => "Floated in on liquid pads",
        FitWay::DroppedIn => "Dropped into liquid holes",
    }
}

impl Words {
    /// Why a way can't be gone here.
    pub fn fit_obstacle(&self, obstacle: &FitObstacle) -> String {
        match obstacle {
            FitObstacle::NoNozzle => "no hot-air nozzle at this station".to_owned(),
            FitObstacle::NoIronTip => "no iron tip in the shop".to_owned(),
            FitObstacle::TipsTooWide { pitch_mm } => {
                format!("every tip is wider than twice the pitch of {pitch_mm:.1} mm")
            }
            FitObstacle::HiddenFromTip { joints } => {
                format!("{}: no tip gets there", count(*joints, "joint is hidden", "joints are hidden"))
            }
            FitObstacle::HoldsInHoles { holes } => {
                format!("{} from floating", count(*holes, "leg in a hole keeps it", "legs in holes keep it"))
            }
            FitObstacle::NoHole => "no plated hole to drop into".to_owned(),
            FitObstacle::SurfaceJoints { joints } => format!(
                "{} while the legs find their holes",
                count(*joints, "surface joint would smear", "surface joints would smear")
            ),
        }
    }
}

/// A small run: what is done, and how long it takes.
pub fn small_run(run: &SmallRun) -> (String, String) {
    let what = match run.work {
        SmallWork::ClearWithAir => "Clear the holes with this air and braid".to_owned(),
        SmallWork::ClearWithIron => format!("Clear a hole with a {} mm tip, {} slowest", run.tip_mm, run.slowest),
        SmallWork::FlowAnchor => {
            format!("Flow an anchor through with a {} mm tip, {} slowest", run.tip_mm, run.slowest)
        }
    };
    (what, liquid(&run.melts))
}

fn liquid(melts: &TimeBand) -> String {
    match melts.low_s {
        None => "stays solid: warm the board first".to_owned(),
        Some(_) => format!("liquid after {}", release(melts)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn small_runs_say_what_is_done_and_when_it_is_liquid() {
        let melts = TimeBand { low_s: Some(2.0), mid_s: Some(3.0), high_s: Some(5.0), share: 1.0 };
        let run = SmallRun { work: SmallWork::FlowAnchor, slowest: "leg 1".to_owned(), tip_mm: 4.0, melts };
        let (what, when) = small_run(&run);
        assert_eq!(what, "Flow an anchor through with a 4 mm tip, leg 1 slowest");
        assert!(when.starts_with("liquid after 2–5 s"), "{when}");
        let never = TimeBand { low_s: None, mid_s: None, high_s: None, share: 0.0 };
        assert!(small_run(&SmallRun { melts: never, ..run }).1.contains("warm the board"));
        let hidden = Words::default().fit_obstacle(&FitObstacle::HiddenFromTip { joints: 12 });
        assert_eq!(hidden, "12 joints are hidden: no tip gets there");
    }
}
