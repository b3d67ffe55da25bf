//! One face of a board, true to scale, everything on it named.

use askama::Template;
use mend_core::board::draft::Photo;
use mend_core::board::{Board, Component, Face, Point, Rect, Role};
use mend_core::planning::margin::{LimitStatus, Margin};
use mend_core::units::Scale;

use super::body_name::BodyName;
use super::heat_map::{ColourLevel, Isotherms};
use super::labels::{Extent, Labels};
use super::n;
use super::overlay::{Overlay, ShieldShape, ToolShape, WireLine};
use super::trace_map::PhotoShape;

/// A body or a joint on paper, mm.
pub(crate) struct MapShape {
    /// Class: what it is and how it stands.
    pub(crate) class: String,
    /// Its own name, for the scripts.
    pub(crate) key: String,
    /// What it is called when pointed at.
    pub(crate) name: String,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
    /// Corner radius; half the width makes a circle.
    pub(crate) round: String,
    /// Its name inside it, where there is room.
    pub(crate) label: Option<BodyName>,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/board_map.svg", escape = "html")]
pub(crate) struct BoardMap {
    /// `board-map`, and what else it is.
    pub(crate) class: &'static str,
    /// The face, as a word.
    pub(crate) face: &'static str,
    pub(crate) title: String,
    pub(crate) view_box: String,
    pub(crate) outline: String,
    pub(crate) photos: Vec<PhotoShape>,
    pub(crate) levels: Vec<ColourLevel>,
    pub(crate) isotherms: Vec<String>,
    pub(crate) bodies: Vec<MapShape>,
    pub(crate) joints: Vec<MapShape>,
    pub(crate) shields: Vec<ShieldShape>,
    pub(crate) wire: Option<WireLine>,
    pub(crate) tool: Option<ToolShape>,
    /// Length of the scale bar, mm, and where it lies.
    pub(crate) bar_mm: u32,
    pub(crate) bar_x: String,
    pub(crate) bar_y: String,
    pub(crate) bar_label_y: String,
    pub(crate) text_size: String,
    pub(crate) clip: String,
    pub(crate) hatch: String,
}

/// Which part of the board is drawn.
#[derive(Clone, Copy)]
pub(crate) enum MapExtent {
    /// All of it.
    Whole,
    /// This much round the part, mm to each side.
    Near(f64),
}

/// Draws a face. `margins` colour the components by how they stand, `heat` lies under them.
pub(crate) struct Drawing<'a> {
    pub(crate) board: &'a Board,
    pub(crate) face: Face,
    pub(crate) window: MapExtent,
    pub(crate) margins: &'a [Margin],
    /// Photographs under it.
    pub(crate) photos: &'a [Photo],
    pub(crate) scale: Scale,
    /// Height of the names, in hundredths of the picture's width; 0 writes none.
    pub(crate) lettering: f64,
    /// Shields and jet over it.
    pub(crate) overlay: Option<&'a Overlay>,
}

impl Drawing<'_> {
    /// The picture, with or without heat.
    pub(crate) fn draw(&self, heat: Option<Isotherms>) -> BoardMap {
        let frame = self.frame();
        let unit = frame.width.max(frame.depth) / 100.0;
        let bar_mm = if frame.width > 120.0 { 20 } else { 10 };
        let (levels, isotherms) = heat.map_or((vec![], vec![]), |h| (h.levels, h.melt_lines));
        let (left, top) = (frame.left(), -frame.far());
        BoardMap {
            class: "board-map",
            face: self.face.name(),
            title: format!("{}, {} face", self.board.name, self.face.name()),
            view_box: format!("{} {} {} {}", n(left), n(top), n(frame.width), n(frame.depth)),
            outline: outline(self.board),
            photos: self.photos.iter().filter(|p| p.face == self.face).map(PhotoShape::from_photo).collect(),
            levels,
            isotherms,
            bodies: self.bodies(unit),
            joints: self.joints(),
            shields: self.overlay.map(|o| o.shields(self.face)).unwrap_or_default(),
            wire: self.overlay.and_then(|o| o.wire(self.face)),
            tool: self.overlay.and_then(|o| o.tool(self.face)),
            bar_mm,
            bar_x: n(frame.right() - f64::from(bar_mm) - 2.0 * unit),
            bar_y: n(-frame.near() - 2.2 * unit),
            bar_label_y: n(-frame.near() - 3.2 * unit),
            text_size: n(3.0 * unit),
            clip: self.own_name(),
            hatch: n(unit * 1.6),
        }
    }

    /// What is drawn, mm.
    pub(crate) fn frame(&self) -> Rect {
        let bounds = self.board.outline.bounds();
        match self.window {
            MapExtent::Whole => Rect {
                width: bounds.width + 8.0,
                depth: bounds.depth + 0.16 * bounds.width.max(bounds.depth),
                ..bounds
            },
            MapExtent::Near(reach) => {
                let body = &self.board.connector.body;
                let half_x = (body.width / 2.0 + reach).max(reach * 1.5);
                let half_y = half_x * 0.62;
                // The frame stays on the board where it can: a port at the rim is not drawn over empty bench.
                let near = (body.centre.y - half_y).max(bounds.near() - 4.0);
                let centre = Point { x: body.centre.x, y: near + half_y };
                Rect { centre, width: 2.0 * half_x, depth: 2.0 * half_y }
            }
        }
    }

    /// The name of its clip: one of its own among the pictures of a page.
    fn own_name(&self) -> String {
        let part = if matches!(self.window, MapExtent::Whole) { "whole" } else { "near" };
        let board: String = self.board.name.chars().filter(char::is_ascii_alphanumeric).collect();
        format!("clip-{}-{part}-{board}", self.face.name())
    }

    fn bodies(&self, unit: f64) -> Vec<MapShape> {
        let connector = &self.board.connector;
        let ghost = if connector.face == self.face { "" } else { " far" };
        let part = shape(&connector.body, format!("part{ghost}"), format!("{} (to be replaced)", connector.name));
        let frame = self.frame();
        let components = self.board.components.iter().filter(|n| n.face == self.face && n.body.shared(&frame) > 0.0);
        let (mut labels, high) = (Labels::within(self.shown()), self.lettering * unit);
        let body = |component: &Component| {
            let margin = self.margins.iter().find(|m| m.name == component.name);
            let status = margin.map_or("", |m| standing_class(m.status));
            let limit = format!("limit {:.0} {}", self.scale.of(component.limit()), self.scale.symbol());
            let size = format!("{} x {} x {} mm", component.body.width, component.body.depth, component.height.in_mm());
            let name = format!("{}: {}, {size}, {limit}", component.name, component.material.name());
            let mut shape = shape(&within(&component.body, &frame), format!("component {status}"), name);
            if component.round {
                shape.round = n(component.body.width / 2.0);
            }
            shape.label = BodyName::within(&component.name, self.seen_of(&component.body), high, &mut labels);
            shape
        };
        std::iter::once(part).chain(components.map(body)).collect()
    }

    /// What is drawn, on paper: y downwards.
    fn shown(&self) -> Extent {
        let frame = self.frame();
        Extent { left: frame.left(), top: -frame.far(), right: frame.right(), bottom: -frame.near() }
    }

    /// What is drawn of a body, on paper.
    fn seen_of(&self, body: &Rect) -> Extent {
        let shown = self.shown();
        let (left, right) = (body.left().max(shown.left), body.right().min(shown.right));
        Extent { left, right, top: (-body.far()).max(shown.top), bottom: (-body.near()).min(shown.bottom) }
    }

    fn joints(&self) -> Vec<MapShape> {
        let connector = &self.board.connector;
        let shown = connector.joints.iter().filter(|j| j.shape.is_hole() || connector.face == self.face);
        let joint = |joint: &mend_core::board::Joint| {
            let land = joint.covers();
            let round = if joint.shape.is_hole() { land.width / 2.0 } else { 0.05 };
            let role = match joint.role {
                Role::Signal => "signal",
                Role::Ground => "ground",
                Role::Power => "power",
                Role::Anchor => "anchor",
            };
            let hidden = if joint.hidden { ", hidden" } else { "" };
            let name = format!("{}: {role}{hidden}, {} x {} mm", joint.name, land.width, land.depth);
            MapShape { key: joint.name.clone(), round: n(round), ..shape(&land, format!("joint {role}"), name) }
        };
        shown.map(joint).collect()
    }
}

impl BoardMap {
    /// The same without laminate, to lie over something else; its clip has a name of its own.
    pub(crate) fn seen_through(self) -> Self {
        Self { class: "board-map through", clip: format!("{}-through", self.clip), ..self }
    }
}

/// The class that says how a row stands.
pub(crate) fn standing_class(status: LimitStatus) -> &'static str {
    match status {
        LimitStatus::Inside => "inside",
        LimitStatus::Near => "near",
        LimitStatus::Past => "past",
    }
}

/// What the frame shows of a body, its rim just outside it: a body that is drawn beyond the picture lies, for whoever points,
/// over what is beside the picture.
fn within(body: &Rect, frame: &Rect) -> Rect {
    const RIM_MM: f64 = 0.2;
    let (left, right) = (body.left().max(frame.left() - RIM_MM), body.right().min(frame.right() + RIM_MM));
    let (near, far) = (body.near().max(frame.near() - RIM_MM), body.far().min(frame.far() + RIM_MM));
    let centre = Point { x: (left + right) / 2.0, y: (near + far) / 2.0 };
    Rect { centre, width: right - left, depth: far - near }
}

fn shape(rect: &Rect, class: String, name: String) -> MapShape {
    MapShape {
        class,
        key: String::new(),
        name,
        x: n(rect.left()),
        y: n(-rect.far()),
        width: n(rect.width),
        height: n(rect.depth),
        round: n(0.3_f64.min(rect.width / 4.0)),
        label: None,
    }
}

/// Paper has y downwards.
fn outline(board: &Board) -> String {
    board.outline.corners.iter().map(|p| format!("{},{}", n(p.x), n(-p.y))).collect::<Vec<_>>().join(" ")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{planned, power_board};

    fn drawn(board: &Board, face: Face, window: MapExtent, lettering: f64) -> BoardMap {
        let (margins, scale) = (planned().1.margins.as_slice(), Scale::Fahrenheit);
        Drawing { board, face, window, margins, photos: &[], scale, lettering, overlay: None }.draw(None)
    }

    #[test]
    fn each_face_shows_its_own_things_and_the_legs_that_come_through() {
        let board = power_board();
        for face in [Face::Top, Face::Bottom] {
            let map = drawn(&board, face, MapExtent::Whole, 0.0);
            let own = board.components.iter().filter(|n| n.face == face).count();
            assert_eq!(map.bodies.len(), 1 + own, "the part and its components");
            let ghost = if board.connector.face == face { "part" } else { "part far" };
            assert_eq!(map.bodies[0].class, ghost);
            let shown = board.connector.joints.iter().filter(|j| j.shape.is_hole() || board.connector.face == face);
            assert_eq!(map.joints.len(), shown.count());
        }
    }

    #[test]
    fn components_are_coloured_as_they_stand_and_named_with_the_visitors_limit() {
        let board = power_board();
        let map = drawn(&board, board.connector.face.other(), MapExtent::Near(18.0), 2.3);
        for component in board.components.iter().filter(|n| n.face != board.connector.face) {
            let body = map.bodies.iter().find(|b| b.name.starts_with(&component.name)).expect("drawn");
            let limit = format!("limit {:.0} °F", component.limit().in_fahrenheit());
            assert!(body.name.ends_with(&limit), "{} against {limit}", body.name);
            let margin = planned().1.margins.iter().find(|m| m.name == component.name).expect("in the plan");
            assert!(body.class.ends_with(standing_class(margin.status)), "{}", body.class);
        }
    }

    #[test]
    fn two_boards_on_a_page_clip_by_their_own_rims() {
        let board = power_board();
        let other = Board { name: "another".to_owned(), ..board.clone() };
        let clip = |board: &Board, face| drawn(board, face, MapExtent::Whole, 0.0).clip;
        let clips = [clip(&board, Face::Top), clip(&board, Face::Bottom), clip(&other, Face::Top)];
        assert!(clips[0] != clips[1] && clips[0] != clips[2] && clips[1] != clips[2], "{clips:?}");
    }
}
