//! What changes with every act: the steps, the map, the panel beside it, and what is still to mend.

use askama::Template;
use mend_core::board::Connector;
use mend_core::board::draft::Draft;
use mend_core::finding::{Finding, any_blocking};
use mend_store::DraftRow;

use super::copper::CopperPanel;
use super::field::{FieldView, Fields, short};
use super::panels::{ComponentPanel, ComponentsPanel, OutlinePanel, PartPanel, PhotoPanel};
use crate::App;
use crate::draw::trace_map::TraceMap;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

/// A draft as it is kept, understood.
pub(crate) struct StoredDraft {
    pub(crate) row: DraftRow,
    pub(crate) draft: Draft,
    /// The name of the model that it is a version of, and which version it would be.
    pub(crate) version: Option<(String, i64)>,
    /// The shop's own connectors.
    pub(crate) own: Vec<(i64, Connector)>,
    /// Names and weights per area of the library's boards.
    pub(crate) known: Vec<(String, f64)>,
}

impl StoredDraft {
    /// A draft, and what the panel that is shown needs beside it: an act with three hundred components waits for no library.
    pub(crate) async fn load(app: &App, id: i64, show: &str) -> Result<Self, Refusal> {
        let (part, copper, keep) = (show == "part", show == "copper", show == "keep");
        let read = move |read: mend_store::Read<'_>| {
            let Some(row) = read.draft(id)? else { return Ok(None) };
            let versions =
                row.model_id.filter(|_| keep).map(|model| read.versions(model)).transpose()?.unwrap_or_default();
            let own = if part { read.connectors()? } else { Vec::new() };
            let boards = if copper { read.boards()? } else { Vec::new() };
            let newest = versions.into_iter().next();
            Ok(Some(mend_formats::draft::parse(row.draft.as_bytes()).map(|draft| Self {
                row,
                draft,
                version: newest.map(|board| (board.name, board.version + 1)),
                own: own.iter().filter_map(own_connector).collect(),
                known: boards.iter().filter_map(weight).collect(),
            })))
        };
        Ok(app.reading(read).await?.ok_or(Refusal::NotFound("draft"))??)
    }
}

fn weight(board: &mend_store::BoardRow) -> Option<(String, f64)> {
    let parsed = mend_formats::board::parse(board.file.as_bytes()).ok()?;
    Some((board.name.clone(), parsed.stack.weight()))
}

fn own_connector(row: &mend_store::ConnectorRow) -> Option<(i64, Connector)> {
    Some((row.id, mend_formats::connector::parse(row.file.as_bytes()).ok()?))
}

/// A step of describing a board.
pub(crate) struct HistoryStep {
    pub(crate) show: &'static str,
    pub(crate) name: &'static str,
    pub(crate) figure: String,
    pub(crate) done: bool,
    pub(crate) here: bool,
}

/// Keeping it.
#[derive(Template)]
#[template(path = "boards/drafts/panel_keep.html")]
pub(crate) struct KeepPanel {
    draft: i64,
    fields: Vec<FieldView>,
    findings: Vec<FindingView>,
    ready: bool,
    version: String,
    part: Option<String>,
}

/// The panel that is shown.
pub(crate) enum Panel {
    Photo(PhotoPanel),
    Outline(OutlinePanel),
    Part(Box<PartPanel>),
    Components(ComponentsPanel),
    Component(ComponentPanel),
    Copper(Box<CopperPanel>),
    Keep(KeepPanel),
}

/// The fragment.
#[derive(Template)]
#[template(path = "boards/drafts/live.html")]
pub(crate) struct LiveView {
    show: String,
    steps: Vec<HistoryStep>,
    back: i64,
    forward: i64,
    revision: i64,
    /// Nothing to be seen yet?
    empty: bool,
    map: TraceMap,
    panel: Panel,
    refusals: Vec<FindingView>,
}

impl LiveView {
    /// The draft with one of its panels, and what was refused of the last act.
    pub(crate) fn from_stored(kept: &StoredDraft, show: &str, visitor: Visitor, refusals: &[Finding]) -> Self {
        let (show, panel) = panel(kept, show, visitor);
        Self {
            steps: steps(&kept.draft, &show),
            show,
            back: kept.row.back,
            forward: kept.row.forward,
            revision: kept.row.revision,
            empty: kept.draft.photos.is_empty() && kept.draft.outline.corners.is_empty(),
            map: TraceMap::from_draft(&kept.draft),
            panel,
            refusals: visitor.words().findings(refusals),
        }
    }
}

fn panel(kept: &StoredDraft, show: &str, visitor: Visitor) -> (String, Panel) {
    let (id, draft) = (kept.row.id, &kept.draft);
    let numbered = show.strip_prefix("component-").and_then(|k| k.parse::<usize>().ok());
    if let Some((k, component)) = numbered.and_then(|k| Some((k, draft.components.get(k)?))) {
        return (show.to_owned(), Panel::Component(ComponentPanel::from_component(k, component, visitor)));
    }
    let panel = match show {
        "outline" => Panel::Outline(OutlinePanel::from_draft(draft)),
        "part" => Panel::Part(Box::new(PartPanel::from_draft(id, draft, &kept.own))),
        "copper" => Panel::Copper(Box::new(CopperPanel::from_draft(draft, &kept.known))),
        "keep" => Panel::Keep(keep(kept, visitor)),
        _ if show.starts_with("component") => Panel::Components(ComponentsPanel::from_draft(id, draft)),
        _ => Panel::Photo(PhotoPanel::from_draft(id, draft)),
    };
    let shown = match panel {
        Panel::Photo(_) => "photo",
        Panel::Components(_) => "components",
        _ => show,
    };
    (shown.to_owned(), panel)
}

fn keep(kept: &StoredDraft, visitor: Visitor) -> KeepPanel {
    let findings = kept.draft.findings();
    KeepPanel {
        draft: kept.row.id,
        fields: Fields::for_target(mend_core::board::draft::Target::Board, "board")
            .field("name", "Name")
            .text(&kept.draft.name)
            .field("maker", "Made by")
            .text(&kept.draft.maker)
            .all,
        ready: !any_blocking(&findings),
        findings: visitor.words().findings(&findings),
        version: {
            let keep = match &kept.version {
                Some((name, version)) => format!("Save as revision {version} of {name}"),
                None => "Save to the library".to_owned(),
            };
            kept.row.job_id.map_or(keep.clone(), |job| format!("{keep}, for job {job}"))
        },
        part: kept.draft.part.as_ref().map(|part| part.made.name.clone()),
    }
}

fn steps(draft: &Draft, show: &str) -> Vec<HistoryStep> {
    let bounds = draft.outline.bounds();
    let findings = draft.findings();
    let missing = findings.iter().filter(|f| f.severity == mend_core::finding::Severity::Blocking).count();
    let some = |text: String, there: bool| if there { text } else { "none yet".to_owned() };
    let outline = !draft.outline.corners.is_empty();
    let part = draft.part.as_ref().map(|part| part.made.name.clone());
    let (photos, components) = (draft.photos.len(), draft.components.len());
    let all = [
        ("photo", "Photograph", some(format!("{photos}"), photos > 0), photos > 0),
        (
            "outline",
            "Outline",
            some(format!("{} x {} mm", short(bounds.width.round()), short(bounds.depth.round())), outline),
            outline,
        ),
        ("part", "Part", part.clone().unwrap_or_else(|| "none yet".to_owned()), part.is_some()),
        ("components", "Components", some(format!("{components}"), components > 0), components > 0),
        ("copper", "Copper", format!("{} layers", draft.stack.layers), draft.looked.is_used()),
        ("keep", "Save", if missing > 0 { format!("{missing} to mend") } else { "ready".to_owned() }, missing == 0),
    ];
    let step = |(step, name, figure, done): (&'static str, &'static str, String, bool)| HistoryStep {
        here: show.trim_end_matches(|c: char| c.is_ascii_digit() || c == '-').trim_end_matches('s')
            == step.trim_end_matches('s'),
        show: step,
        name,
        figure,
        done,
    };
    all.into_iter().map(step).collect()
}

#[cfg(test)]
mod tests {
    use mend_core::units::Scale;

    use super::*;
    use crate::fixture::power_board;

    fn kept(draft: Draft) -> StoredDraft {
        let row =
            DraftRow { id: 3, model_id: None, job_id: Some(7), draft: String::new(), back: 0, forward: 0, revision: 0 };
        StoredDraft {
            row,
            draft,
            version: Some(("Tern".to_owned(), 2)),
            own: vec![],
            known: vec![("Quay".to_owned(), 0.004)],
        }
    }

    fn shown(draft: Draft, show: &str) -> String {
        let visitor = Visitor { scale: Scale::Celsius };
        LiveView::from_stored(&kept(draft), show, visitor, &[]).render().expect("drawn")
    }

    #[test]
    fn an_empty_draft_says_what_comes_first_and_what_is_missing() {
        let html = shown(Draft::new(""), "");
        assert!(html.contains("Add a photograph of the board") && html.contains("3 to mend"));
        assert!(shown(Draft::new(""), "keep").contains("the board has no name yet"));
    }

    #[test]
    fn every_panel_of_a_whole_board_is_drawn_and_only_its_step_is_here() {
        for (show, title) in [
            ("photo", "Add a photograph"),
            ("outline", "Click the corners"),
            ("part", "The part to replace"),
            ("components", "Draw rectangles"),
            ("component-1", "Own joints"),
            ("copper", "Beside a board you know"),
            ("keep", "Save as revision 2 of Tern, for job 7"),
        ] {
            let html = shown(Draft::from_board(&power_board()), show);
            assert!(html.contains(title), "{show}");
            assert_eq!(html.matches("aria-current=\"step\"").count(), 1, "{show}");
        }
    }

    #[test]
    fn a_component_that_is_gone_leaves_the_list() {
        let html = shown(Draft::from_board(&power_board()), "component-99");
        assert!(html.contains("Draw rectangles") && html.contains("data-show=\"components\""));
    }
}
