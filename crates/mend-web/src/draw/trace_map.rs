//! The board while it is described: photographs below, rim, part and components over them, both faces in one picture. Which
//! face is looked at, how near, and what is dragged is the script's.

use askama::Template;
use mend_core::board::draft::{Draft, Photo, Target};
use mend_core::board::{Component, Face, Joint, Point, Rect};

use super::n;

/// A photograph on paper.
pub(crate) struct PhotoShape {
    pub(crate) of: String,
    pub(crate) face: &'static str,
    pub(crate) href: String,
    pub(crate) matrix: String,
    pub(crate) width: u32,
    pub(crate) height: u32,
}

impl PhotoShape {
    /// A photograph where it lies.
    pub(crate) fn from_photo(photo: &Photo) -> Self {
        let [a, b, c, d, e, f] = photo.placement.matrix().map(|v| format!("{v:.6}"));
        Self {
            of: target(Target::Photo(photo.id)),
            face: photo.face.name(),
            href: format!("/boards/photos/{}", photo.id),
            matrix: format!("matrix({a} {b} {c} {d} {e} {f})"),
            width: photo.size.0,
            height: photo.size.1,
        }
    }
}

/// A joint of the part.
pub(crate) struct JointDot {
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
    pub(crate) round: String,
    /// Does it show on both faces?
    pub(crate) through: bool,
}

/// Part or component.
pub(crate) struct MapItem {
    pub(crate) of: String,
    pub(crate) face: &'static str,
    pub(crate) name: String,
    pub(crate) label: String,
    pub(crate) label_size: String,
    pub(crate) round: bool,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
    pub(crate) middle: (String, String),
    pub(crate) half: (String, String),
    pub(crate) joints: Vec<JointDot>,
}

/// A mark on paper.
pub(crate) struct PhotoMark {
    pub(crate) number: usize,
    pub(crate) x: String,
    pub(crate) y: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/trace_map.svg", escape = "html")]
pub(crate) struct TraceMap {
    pub(crate) view_box: String,
    pub(crate) outline: String,
    pub(crate) photos: Vec<PhotoShape>,
    pub(crate) part: Option<MapItem>,
    pub(crate) components: Vec<MapItem>,
    pub(crate) marks: Vec<PhotoMark>,
}

/// As the scripts send it back.
pub(crate) fn target(of: Target) -> String {
    serde_json::to_string(&of).unwrap_or_default()
}

impl TraceMap {
    /// The picture of a draft.
    pub(crate) fn from_draft(draft: &Draft) -> Self {
        let frame = frame(draft);
        let part = draft.part.as_ref().map(mend_core::board::draft::DraftPart::placed);
        let thing = |(k, component): (usize, &Component)| MapItem::from_component(k, component);
        let mark = |(k, p): (usize, &Point)| PhotoMark { number: k + 1, x: n(p.x), y: n(-p.y) };
        Self {
            view_box: format!("{} {} {} {}", n(frame.left()), n(-frame.far()), n(frame.width), n(frame.depth)),
            outline: draft
                .outline
                .corners
                .iter()
                .map(|p| format!("{},{}", n(p.x), n(-p.y)))
                .collect::<Vec<_>>()
                .join(" "),
            photos: draft.photos.iter().map(PhotoShape::from_photo).collect(),
            part: part.as_ref().map(|part| MapItem {
                joints: part.joints.iter().map(JointDot::from_joint).collect(),
                ..MapItem::new(Target::Part, part.face, &part.body, &format!("{} (to be replaced)", part.name))
            }),
            components: draft.components.iter().enumerate().map(thing).collect(),
            marks: draft.marks.iter().enumerate().map(mark).collect(),
        }
    }
}

impl JointDot {
    fn from_joint(joint: &Joint) -> Self {
        let (land, through) = (joint.covers(), joint.shape.is_hole());
        let round = if through { land.width / 2.0 } else { 0.04 };
        let (x, y) = (n(land.left()), n(-land.far()));
        Self { x, y, width: n(land.width), height: n(land.depth), round: n(round), through }
    }
}

impl MapItem {
    fn new(of: Target, face: Face, body: &Rect, name: &str) -> Self {
        Self {
            of: target(of),
            face: face.name(),
            name: name.to_owned(),
            label: String::new(),
            label_size: String::new(),
            round: false,
            x: n(body.left()),
            y: n(-body.far()),
            width: n(body.width),
            height: n(body.depth),
            middle: (n(body.centre.x), n(-body.centre.y)),
            half: (n(body.width / 2.0), n(body.depth / 2.0)),
            joints: Vec::new(),
        }
    }

    fn from_component(k: usize, component: &Component) -> Self {
        let (body, letters) = (&component.body, component.name.chars().count().max(1) as f64);
        // As large as its body lets it, and none where it could not be read.
        let size = (body.width / letters * 1.7).min(0.6 * body.depth).min(2.2);
        let view = format!("{}, {}, {} face", component.name, component.material.name(), component.face.name());
        Self {
            round: component.round,
            label: if size < 0.45 { String::new() } else { component.name.clone() },
            label_size: n(size),
            ..Self::new(Target::Component(k), component.face, body, &view)
        }
    }
}

/// Everything that there is, and some room round it.
fn frame(draft: &Draft) -> Rect {
    let ends = |r: &Rect| r.corners().to_vec();
    let photos = draft.photos.iter().flat_map(|photo| {
        let (w, h) = (f64::from(photo.size.0), f64::from(photo.size.1));
        [(0.0, 0.0), (w, 0.0), (0.0, h), (w, h)].map(|(u, v)| photo.placement.shows(u, v)).to_vec()
    });
    let part = draft.part.iter().flat_map(|part| ends(&part.placed().body));
    let components = draft.components.iter().flat_map(|component| ends(&component.body));
    let all = draft.outline.corners.iter().copied().chain(photos).chain(part).chain(components);
    let Some(bounds) = Rect::around(all) else {
        return Rect { centre: Point { x: 50.0, y: 35.0 }, width: 120.0, depth: 80.0 };
    };
    Rect { width: bounds.width + 8.0, depth: bounds.depth + 8.0, ..bounds }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::power_board;

    #[test]
    fn everything_of_a_draft_is_in_its_picture_once() {
        let draft = Draft::from_board(&power_board());
        let svg = TraceMap::from_draft(&draft).render().expect("drawn");
        assert_eq!(svg.matches("class=\"thing component").count(), draft.components.len());
        assert_eq!(svg.matches("data-of=\"&#34;part&#34;\"").count(), 1);
        assert_eq!(svg.matches("class=\"dot").count(), power_board().connector.joints.len());
    }

    #[test]
    fn an_empty_draft_still_has_paper() {
        assert_eq!(TraceMap::from_draft(&Draft::new("x")).view_box, "-10 -75 120 80");
    }
}
