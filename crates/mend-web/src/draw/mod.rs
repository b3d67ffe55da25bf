//! The pictures. Each computes places on paper; its template under `templates/draw` writes the SVG.

pub(crate) mod agreement;
pub(crate) mod attempt_chart;
mod axis;
pub(crate) mod bench_lanes;
pub(crate) mod board_map;
mod body_name;
mod contour;
pub(crate) mod curves;
pub(crate) mod heat_map;
pub(crate) mod intervals;
pub(crate) mod known_line;
pub(crate) mod labels;
pub(crate) mod lanes;
pub(crate) mod margin_strip;
pub(crate) mod melt_picture;
pub(crate) mod overlay;
pub(crate) mod part_picture;
pub(crate) mod pin_rows;
pub(crate) mod probe_picture;
pub(crate) mod time_bar;
pub(crate) mod trace_map;
pub(crate) mod watched_course;
pub(crate) mod window_map;

/// A number as SVG wants it: short.
pub(crate) fn n(value: f64) -> String {
    let text = format!("{value:.2}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}
