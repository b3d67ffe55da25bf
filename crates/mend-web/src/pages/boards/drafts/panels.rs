//! What stands beside the map: one panel per step of describing a board, and one for the thing that is chosen.

use askama::Template;
use mend_core::board::draft::{Draft, Photo, Target};
use mend_core::board::library::{self, Among, LibraryConnector};
use mend_core::board::{Component, ComponentKind, Connector, Face, Turn};
use mend_core::materials::BodyMaterial;

use super::field::{FieldView, Fields, short};
use crate::draw::part_picture::PartPicture;
use crate::draw::trace_map::target;
use crate::pages::word;
use crate::visitor::Visitor;

fn faces() -> Vec<(String, String)> {
    [Face::Top, Face::Bottom].map(|face| (word(&face), face.name().to_owned())).to_vec()
}

fn materials() -> Vec<(String, String)> {
    BodyMaterial::ALL.map(|material| (word(&material), material.name().to_owned())).to_vec()
}

fn things() -> Vec<(String, String)> {
    ComponentKind::ALL.map(|thing| (word(&thing), thing.name().to_owned())).to_vec()
}

/// A photograph in the list.
struct PhotoLine {
    id: i64,
    face: &'static str,
    size: String,
    fields: Vec<FieldView>,
}

/// How it lies, in words.
fn lies(photo: &Photo) -> String {
    let size = photo.placement.mm_per_px;
    let lined_up = photo.lined_up_mm.map_or(String::new(), |off| format!(", lined up to {} mm", short(off)));
    format!("{:.0} mm wide, {size:.3} mm a pixel{lined_up}", f64::from(photo.size.0) * size)
}

/// Photographs: adding them, their scale, and lining them up.
#[derive(Template)]
#[template(path = "boards/drafts/panel_photo.html")]
pub(crate) struct PhotoPanel {
    draft: i64,
    photos: Vec<PhotoLine>,
    marked: bool,
    part: Option<String>,
}

impl PhotoPanel {
    pub(super) fn from_draft(id: i64, draft: &Draft) -> Self {
        let line = |photo: &Photo| PhotoLine {
            id: photo.id,
            face: photo.face.name(),
            size: lies(photo),
            fields: Fields::for_target(Target::Photo(photo.id), "photo")
                .field("turn", "Turned left")
                .number(Some(photo.placement.turn_deg), "°")
                .field("face", "Shows")
                .choice(&word(&photo.face), faces())
                .all
                .into_iter()
                .map(|field| FieldView { id: format!("{}-{}", field.id, photo.id), ..field })
                .collect(),
        };
        let part = draft.part.as_ref().map(|part| format!("{} mm", short(part.made.body.width)));
        Self { draft: id, photos: draft.photos.iter().map(line).collect(), marked: !draft.marks.is_empty(), part }
    }
}

/// The rim.
#[derive(Template)]
#[template(path = "boards/drafts/panel_outline.html")]
pub(crate) struct OutlinePanel {
    fields: Vec<FieldView>,
    corners: Vec<FieldView>,
    count: usize,
}

impl OutlinePanel {
    pub(super) fn from_draft(draft: &Draft) -> Self {
        let count = draft.outline.corners.len();
        let bounds = draft.outline.bounds();
        let side = |length: f64| (count > 0).then_some(length);
        let lines: Vec<String> =
            draft.outline.corners.iter().map(|p| format!("{} {}", short(p.x), short(p.y))).collect();
        Self {
            fields: Fields::for_target(Target::Board, "board")
                .field("width", "Width")
                .number(side(bounds.width), "mm")
                .field("depth", "Depth")
                .number(side(bounds.depth), "mm")
                .all,
            corners: Fields::for_target(Target::Board, "board")
                .field("corners", "Corners, x y in mm, a line each")
                .lines(&lines.join("\n"))
                .all,
            count,
        }
    }
}

/// A kind of the library.
struct KindLine {
    key: String,
    name: String,
    known_by: String,
    picture: Option<PartPicture>,
}

/// The part: chosen from the library, then its sizes and place.
#[derive(Template)]
#[template(path = "boards/drafts/panel_part.html")]
pub(crate) struct PartPanel {
    draft: i64,
    kinds: Vec<KindLine>,
    own: Vec<KindLine>,
    chosen: Option<ChosenPart>,
}

/// The part as it stands.
struct ChosenPart {
    place: Vec<FieldView>,
    sizes: Vec<FieldView>,
    known_by: String,
    notes: Vec<FieldView>,
    joints: String,
}

fn kind_lines() -> Vec<KindLine> {
    let line = |kind: &LibraryConnector| KindLine {
        key: kind.key.to_owned(),
        name: kind.name.to_owned(),
        known_by: kind.known_by.to_owned(),
        picture: kind.make(&library::Values::new()).ok().map(|made| PartPicture::from_connector(&made)),
    };
    library::KINDS.iter().map(line).collect()
}

impl PartPanel {
    pub(super) fn from_draft(id: i64, draft: &Draft, own: &[(i64, Connector)]) -> Self {
        let own = own.iter().map(|(id, connector)| KindLine {
            key: id.to_string(),
            name: connector.name.clone(),
            known_by: "the shop's own".to_owned(),
            picture: Some(PartPicture::from_connector(connector)),
        });
        Self {
            draft: id,
            kinds: kind_lines(),
            own: own.collect(),
            chosen: draft.part.as_ref().map(ChosenPart::from_part),
        }
    }
}

impl ChosenPart {
    fn from_part(part: &mend_core::board::draft::DraftPart) -> Self {
        let made = &part.made;
        let turns = Turn::ALL.map(|turn| (word(&turn), turn.mouth().to_owned())).to_vec();
        let kind = part.from.as_ref().and_then(|(key, _)| library::kind(key));
        let hidden = made.joints.iter().filter(|j| j.hidden).count();
        let hidden = if hidden > 0 { format!(", {hidden} hidden") } else { String::new() };
        Self {
            place: Fields::for_target(Target::Part, "part")
                .field("x", "Middle, x")
                .number(Some(part.at.x), "mm")
                .field("y", "Middle, y")
                .number(Some(part.at.y), "mm")
                .field("turn", "Mouth looks")
                .choice(&word(&part.turn), turns)
                .field("face", "Face")
                .choice(&word(&part.face), faces())
                .all,
            sizes: kind.map(|kind| sizes(kind, part)).unwrap_or_default(),
            known_by: kind.map_or(String::new(), |kind| kind.known_by.to_owned()),
            notes: Fields::for_target(Target::Part, "part")
                .field("name", "Name")
                .text(&made.name)
                .field("material", "Plastic")
                .choice(&word(&made.material), materials())
                .field("height", "Height")
                .number(Some(made.height.in_mm()), "mm")
                .field("pegs", "Pegs to pull")
                .number(Some(f64::from(made.pegs)), "")
                .field("shell", "Metal shell")
                .tick(made.shell)
                .field("tests", "The functional test must cover")
                .lines(&made.tests.join("\n"))
                .all,
            joints: format!("{} joints{hidden}, {} pegs", made.joints.len(), made.pegs),
        }
    }
}

fn sizes(kind: &LibraryConnector, part: &mend_core::board::draft::DraftPart) -> Vec<FieldView> {
    let values = part.from.as_ref().map(|(_, values)| values.clone()).unwrap_or_default();
    let of = Fields::for_target(Target::Size, "size");
    let add = |fields: Fields, param: &library::Param| {
        let value = values.get(param.key).copied().unwrap_or(param.usual);
        match param.among {
            Among::Choice(all) => {
                let choices = all.iter().map(|(value, name)| (short(*value), (*name).to_owned())).collect();
                fields.field(param.key, param.label).choice(&short(value), choices)
            }
            Among::Range(..) | Among::Whole(..) => {
                fields.field(param.key, param.label).number(Some(value), param.unit.symbol())
            }
        }
    };
    kind.params.iter().fold(of, add).all
}

/// Components: drawing new ones, and the list of those that are there.
#[derive(Template)]
#[template(path = "boards/drafts/panel_components.html")]
pub(crate) struct ComponentsPanel {
    draft: i64,
    things: Vec<(String, String)>,
    lines: Vec<ComponentLine>,
    part: bool,
}

/// A component in the list.
struct ComponentLine {
    of: String,
    show: String,
    name: String,
    notes: String,
}

impl ComponentsPanel {
    pub(super) fn from_draft(id: i64, draft: &Draft) -> Self {
        let line = |(k, component): (usize, &Component)| ComponentLine {
            of: target(Target::Component(k)),
            show: format!("component-{k}"),
            name: component.name.clone(),
            notes: format!("{}, {}", component.material.name(), component.face.name()),
        };
        let lines = draft.components.iter().enumerate().map(line).collect();
        Self { draft: id, things: things(), lines, part: draft.part.is_some() }
    }
}

/// One component.
#[derive(Template)]
#[template(path = "boards/drafts/panel_component.html")]
pub(crate) struct ComponentPanel {
    of: String,
    name: String,
    fields: Vec<FieldView>,
}

impl ComponentPanel {
    pub(super) fn from_component(k: usize, component: &Component, visitor: Visitor) -> Self {
        let n = component;
        let scale = visitor.scale;
        let what = n.what.map_or(String::new(), |what| word(&what));
        let mut whats = things();
        if n.what.is_none() {
            whats.insert(0, (String::new(), "not said".to_owned()));
        }
        let round = if n.round { "round" } else { "rectangle" };
        let shapes = ["rectangle", "round"].map(|shape| (shape.to_owned(), shape.to_owned())).to_vec();
        let usual = format!("empty: {:.0} {} of its material", scale.of(n.material.limit()), scale.symbol());
        let soldered = format!("empty: {} % of its material", short(100.0 * n.material.pad_share()));
        let fields = Fields::for_target(Target::Component(k), "component")
            .field("name", "Name")
            .text(&n.name)
            .field("what", "It is")
            .choice(&what, whats)
            .field("height", "Height")
            .number(Some(n.height.in_mm()), "mm")
            .field("x", "Middle, x")
            .number(Some(n.body.centre.x), "mm")
            .field("y", "Middle, y")
            .number(Some(n.body.centre.y), "mm")
            .field("round", "Shape")
            .choice(round, shapes)
            .field("width", if n.round { "Diameter" } else { "Width" })
            .number(Some(n.body.width), "mm");
        let fields = if n.round { fields } else { fields.field("depth", "Depth").number(Some(n.body.depth), "mm") };
        let fields = fields
            .field("face", "Face")
            .choice(&word(&n.face), faces())
            .field("material", "Material")
            .choice(&word(&n.material), materials())
            .field("limit", "Own limit")
            .number(n.own_limit.map(|limit| scale.of(limit).round()), scale.symbol())
            .hint(&usual)
            .field("own_joints", "Own joints, of its footprint")
            .number(n.own_joints.map(|share| 100.0 * share), "%")
            .hint(&soldered)
            .field("value", "Value")
            .text(&n.value.map_or(String::new(), |value| value.to_string()))
            .hint("like 100 nF or 120 ohm: it is measured after the heat");
        Self { of: target(Target::Component(k)), name: n.name.clone(), fields: fields.all }
    }
}

#[cfg(test)]
mod tests {
    use mend_core::board::{Point, Rect};
    use mend_core::units::Scale;

    use super::*;

    const VISITOR: Visitor = Visitor { scale: Scale::Fahrenheit };

    fn values(fields: &[FieldView], name: &str) -> Vec<String> {
        fields.iter().filter(|f| f.field == name).map(|f| f.value.clone()).collect()
    }

    #[test]
    fn a_component_is_shown_in_the_visitors_own_degrees_and_a_round_one_has_one_size() {
        let body = Rect { centre: Point { x: 3.0, y: 4.5 }, width: 6.3, depth: 6.3 };
        let can = ComponentKind::ElectrolyticCan.at("C1", Face::Top, body);
        let can = Component { own_limit: Some(mend_core::units::Temperature::celsius(105.0)), ..can };
        let panel = ComponentPanel::from_component(2, &can, VISITOR);
        assert_eq!(values(&panel.fields, "limit"), ["221"]);
        assert_eq!(values(&panel.fields, "width"), ["6.3"]);
        assert!(values(&panel.fields, "depth").is_empty());
        assert!(panel.fields.iter().all(|field| field.of == "{\"component\":2}"));
    }

    #[test]
    fn a_part_of_a_kind_shows_a_field_for_each_of_its_sizes() {
        for kind in library::KINDS {
            let made = kind.make(&library::Values::new()).expect("usual sizes");
            let from = Some((kind.key.to_owned(), library::Values::new()));
            let at = Point { x: 0.0, y: 0.0 };
            let part = mend_core::board::draft::DraftPart { made, from, at, turn: Turn::None, face: Face::Top };
            let shown = ChosenPart::from_part(&part);
            assert_eq!(shown.sizes.len(), kind.params.len(), "{}", kind.key);
            let chosen = |field: &FieldView| field.kind != "choice" || field.choices.iter().any(|c| c.chosen);
            assert!(shown.sizes.iter().all(chosen), "{}", kind.key);
        }
    }
}
