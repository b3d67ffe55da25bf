//! The margin strip: every joint against its melting line, all else against its limit, on one temperature axis.

use askama::Template;
use mend_core::planning::margin::{LimitStatus, Margin, MarginKind};
use mend_core::planning::plan::Plan;
use mend_core::units::{Scale, TempDelta, Temperature};

use super::axis::PictureAxis;
use super::board_map::standing_class;
use super::n;
use crate::words::{margin_detail, margin_name};

const LABELS: f64 = 196.0;
const AXIS: f64 = 400.0;
const FIGURES: f64 = 108.0;
const ROW: f64 = 34.0;
const HEAD: f64 = 26.0;

/// A row on paper.
pub(crate) struct StripRow {
    pub(crate) class: String,
    pub(crate) name: String,
    pub(crate) detail: String,
    pub(crate) y: String,
    pub(crate) text_y: String,
    pub(crate) detail_y: String,
    pub(crate) middle: String,
    pub(crate) zone_x: String,
    pub(crate) zone_width: String,
    pub(crate) band_x: String,
    pub(crate) band_width: String,
    pub(crate) marks: Vec<String>,
    /// Where it stood after each stage before the last.
    pub(crate) stages: Vec<String>,
    pub(crate) line_x: String,
    /// The line itself may lie anywhere in here; empty width for a limit.
    pub(crate) line_band_x: String,
    pub(crate) line_band_width: String,
    pub(crate) glyph: &'static str,
    pub(crate) figure: String,
    pub(crate) figure_y: String,
    /// For how long it is hot enough to count; empty where it never is.
    pub(crate) hot: String,
    /// All of it in words.
    pub(crate) description: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/margin_strip.svg", escape = "html")]
pub(crate) struct Strip {
    pub(crate) width: String,
    pub(crate) height: String,
    pub(crate) axis_from: String,
    pub(crate) ticks: Vec<(String, String)>,
    pub(crate) rows: Vec<StripRow>,
    pub(crate) row_height: String,
    pub(crate) figure_x: String,
    pub(crate) glyph_x: String,
    pub(crate) bottom: String,
}

fn axis_of(margins: &[Margin]) -> PictureAxis {
    let stages = |m: &Margin| m.stages_c.iter().copied().fold(m.line_c, f64::min);
    let ends = margins.iter().map(|m| (m.span().0.min(stages(m)), m.span().1.max(m.line_c)));
    let (low, high) = ends.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), (a, b)| (low.min(a), high.max(b)));
    let (low, high) = ((low / 20.0).floor() * 20.0 - 10.0, (high / 20.0).ceil() * 20.0 + 10.0);
    PictureAxis { low, high, left: LABELS, width: AXIS }
}

/// Draws the strip of a plan.
pub(crate) fn strip(plan: &Plan, scale: Scale) -> Strip {
    let axis = axis_of(&plan.margins);
    let rows: Vec<StripRow> = plan.margins.iter().enumerate().map(|(k, margin)| row(k, margin, &axis, scale)).collect();
    let bottom = HEAD + ROW * rows.len() as f64;
    Strip {
        width: n(LABELS + AXIS + FIGURES),
        height: n(bottom + 4.0),
        axis_from: n(HEAD - 6.0),
        ticks: axis.ticks(scale, [50.0, 100.0]),
        rows,
        row_height: n(ROW - 10.0),
        figure_x: n(LABELS + AXIS + FIGURES),
        glyph_x: n(LABELS + AXIS + 14.0),
        bottom: n(bottom),
    }
}

fn row(k: usize, margin: &Margin, axis: &PictureAxis, scale: Scale) -> StripRow {
    let y = HEAD + ROW * k as f64;
    let (low, high) = margin.span();
    let (band_x, line_x) = (axis.x(low), axis.x(margin.line_c));
    // Joints must leave the left of their line, all else must stay out of the right of it.
    let (zone_x, zone_width) = match margin.kind {
        MarginKind::Joints => (LABELS, line_x - LABELS),
        _ => (line_x, LABELS + AXIS - line_x),
    };
    let (name, detail) = (margin_name(margin), margin_detail(&margin.detail));
    let (glyph, view) = match margin.status {
        LimitStatus::Inside => ("●", "inside"),
        LimitStatus::Near => ("◆", "near"),
        LimitStatus::Past => ("✕", "past"),
    };
    let kind = if margin.kind == MarginKind::Joints { "joints" } else { "limit" };
    let expendable = if margin.expendable { " expendable" } else { "" };
    let degrees = |t: f64| format!("{:.0}", scale.of(Temperature::celsius(t)));
    let delta = scale.of_delta(TempDelta::kelvin(margin.headroom_k));
    let line_word = if margin.kind == MarginKind::Joints { "melts at" } else { "limit" };
    let give = match scale.of_delta(TempDelta::kelvin(margin.line_spread_k)) {
        spread if spread > 0.0 => format!(" give or take {spread:.0}"),
        _ => String::new(),
    };
    let hot = margin.hot.filter(|hot| hot.s >= 1.0);
    let hot = hot.map_or(String::new(), |hot| format!("{:.0} s over {}°", hot.s, degrees(hot.above_c)));
    let spare = if margin.expendable { ", expendable: for knowledge only" } else { "" };
    let also = if hot.is_empty() { String::new() } else { format!(", {hot}") };
    StripRow {
        class: format!("{kind} {}{expendable}", standing_class(margin.status)),
        detail: if margin.expendable { format!("{detail}, expendable") } else { detail.clone() },
        name: name.clone(),
        y: n(y + 5.0),
        text_y: n(y + 15.0),
        detail_y: n(y + 28.0),
        middle: n(y + ROW / 2.0),
        zone_x: n(zone_x),
        zone_width: n(zone_width.max(0.0)),
        band_x: n(band_x),
        band_width: n((axis.x(high) - band_x).max(3.0)),
        marks: margin.marks.iter().map(|m| n(axis.x(m.temperature_c.mid))).collect(),
        stages: margin.stages_c.iter().map(|t| n(axis.x(*t))).collect(),
        line_x: n(line_x),
        line_band_x: n(axis.x(margin.line_c - margin.line_spread_k)),
        line_band_width: n(axis.x(margin.line_c + margin.line_spread_k) - axis.x(margin.line_c - margin.line_spread_k)),
        glyph,
        figure_y: n(if hot.is_empty() { y + ROW / 2.0 } else { y + 11.0 }),
        hot,
        figure: format!("{delta:+.0}").replace('-', "−")
            + match scale {
                Scale::Celsius => " K",
                Scale::Fahrenheit => " °F",
            },
        description: format!(
            "{name} ({detail}): {} to {} {}, {line_word} {}{give}, {view}, margin {delta:.0}{spare}{}",
            degrees(low),
            degrees(high),
            scale.symbol(),
            degrees(margin.line_c),
            also,
        ),
    }
}
