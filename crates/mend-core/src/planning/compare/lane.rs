//! A family on this board: its best settings, its plan with a band, its time, what it leaves and what it uses up.

use serde::Serialize;

use super::super::band::Band;
use super::super::bench_time::{TimeSpent, TimedJob, bench_time, passes, total};
use super::super::damaged::Damaged;
use super::super::make_plan::plan_alone;
use super::super::margin::{LimitStatus, Margin, MarginKind};
use super::super::order::Unplanned;
use super::super::plan::{Plan, WindowState};
use super::super::search::{SearchResult, search};
use super::super::used_up::Use;
use super::super::used_up::expected::PlannedUse;
use crate::method::equipment::SkillLevel;
use crate::method::fit::Fit;
use crate::method::techniques::Techniques;
use crate::method::{MethodChoice, MethodFamily};
use crate::planning::search::request::{SearchRequest, Tried};
use crate::solder::JointComposition;

/// What is tightest, and by how much.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Tightest {
    /// What.
    pub of: Damaged,
    /// Headroom with its spread, K; negative: past.
    pub headroom_k: f64,
    /// Beyond the wanted margin?
    pub inside: bool,
}

/// A lane of the comparison.
#[derive(Debug, Clone, PartialEq)]
pub struct Lane {
    /// The family, by our techniques.
    pub choice: MethodChoice,
    /// What speaks for it, and what to mind.
    pub fit: Fit,
    /// What the joints hold and are fed for it.
    pub composition: JointComposition,
    /// The search.
    pub searched: SearchResult,
    /// The plan of what it found, or of what came nearest.
    pub plan: Plan,
    /// Time at the bench, piece by piece.
    pub spent: Vec<TimeSpent>,
    /// Together, s.
    pub total_s: Band,
    /// What is tightest, joints aside.
    pub tightest: Option<Tightest>,
    /// Highest of the part's body, °C.
    pub body_peak_c: Option<Band>,
    /// Flood-and-wick passes until what was fed is out; none: eight do not get it out.
    pub passes: Option<usize>,
    /// What it uses up.
    pub uses: Vec<Use>,
}

impl Lane {
    /// The lane; none where the family has nothing to begin from.
    pub(super) fn try_new(
        sought: &SearchRequest<'_>,
        family: MethodFamily,
        fit: Fit,
    ) -> Result<Option<Self>, Unplanned> {
        let searched = search(sought, family.method())?;
        let Some(tried) = searched.best.clone().or_else(|| searched.nearest.clone()) else { return Ok(None) };
        let Tried { composition, recipe, .. } = tried;
        let plan = plan_alone(&sought.order(&composition, &recipe))?;
        let subject = sought.subject;
        let choice = MethodChoice { family, techniques: Techniques::default() };
        let (board, equipment, keep_intact) = (subject.board, subject.equipment, subject.keep_intact);
        let spent = bench_time(&TimedJob {
            board,
            composition: &composition,
            plan: &plan,
            choice: &choice,
            equipment,
            keep_intact,
        });
        Ok(Some(Self {
            tightest: tightest(&plan.margins),
            body_peak_c: plan.margins.iter().find(|m| m.kind == MarginKind::Body).map(|m| m.marks[0].temperature_c),
            // On a donor's board nothing is cleaned.
            passes: if keep_intact.board() { passes(board, &composition) } else { Some(0) },
            uses: PlannedUse { board, composition: &composition, plan: &plan, keep_intact }.uses(),
            total_s: total(&spent),
            spent,
            choice,
            fit,
            composition,
            searched,
            plan,
        }))
    }

    /// Whose hands it wants.
    pub fn level(&self) -> SkillLevel {
        self.choice.family.method().level()
    }

    /// Does it work, with everything beyond its wanted margin and nothing left in the joints that must not stay?
    pub fn is_comfortable(&self) -> bool {
        let headroom = self.tightest.as_ref().is_none_or(|tightest| tightest.inside);
        self.plan.window == WindowState::Open && headroom && self.passes.is_some()
    }

    /// Time at the bench, whole minutes.
    pub fn minutes(&self) -> f64 {
        (self.total_s.mid / 60.0).round()
    }

    /// How often the joints stay solid: chance, 0-1.
    pub fn stays_solid(&self) -> f64 {
        1.0 - self.plan.release.share
    }
}

/// The tightest of what is kept intact, but for the joints that must melt.
pub(in crate::planning) fn tightest(margins: &[Margin]) -> Option<Tightest> {
    let live = margins.iter().filter(|m| m.kind != MarginKind::Joints && !m.expendable);
    let least = live.min_by(|a, b| a.headroom_k.total_cmp(&b.headroom_k))?;
    let inside = least.status == LimitStatus::Inside;
    Some(Tightest { of: least.damaged(), headroom_k: least.headroom_k, inside })
}
