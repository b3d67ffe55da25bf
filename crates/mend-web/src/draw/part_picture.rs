//! A connector on its own, from above, its joints as they lie.

use askama::Template;
use mend_core::board::{Connector, Joint, Rect};

use super::n;

/// A joint on paper.
pub(crate) struct Dot {
    pub(crate) class: &'static str,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
    pub(crate) round: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/part_picture.svg", escape = "html")]
pub(crate) struct PartPicture {
    view_box: String,
    label: String,
    body: Dot,
    joints: Vec<Dot>,
    bar: (String, String),
    text: (String, String, String),
}

fn dot(class: &'static str, rect: &Rect, round: f64) -> Dot {
    let (x, y) = (n(rect.left()), n(-rect.far()));
    Dot { class, x, y, width: n(rect.width), height: n(rect.depth), round: n(round) }
}

impl PartPicture {
    /// A connector, all of it, with a bar of 5 mm below.
    pub(crate) fn from_connector(connector: &Connector) -> Self {
        let round = |joint: &Joint| if joint.shape.is_hole() { joint.covers().width / 2.0 } else { 0.05 };
        let lands = connector.joints.iter().flat_map(|j| j.covers().corners());
        let bounds = Rect::around(lands.chain(connector.body.corners())).unwrap_or(connector.body);
        // As wide as it is high, so that none is drawn larger than life beside the others in its row.
        let side = bounds.width.max(1.6 * (bounds.depth + 1.5)).max(14.0) + 2.0;
        let height = side / 1.6;
        // Room for the bar below.
        let middle = 0.75 - bounds.centre.y;
        let class = |joint: &Joint| if joint.hidden { "dot unseen" } else { "dot" };
        Self {
            view_box: format!(
                "{} {} {} {}",
                n(bounds.centre.x - side / 2.0),
                n(middle - height / 2.0),
                n(side),
                n(height)
            ),
            label: format!("{} from above", connector.name),
            body: dot("body", &connector.body, 0.4),
            joints: connector.joints.iter().map(|j| dot(class(j), &j.covers(), round(j))).collect(),
            bar: (n(bounds.centre.x + side / 2.0 - 5.6), n(middle + height / 2.0 - 0.03 * side)),
            text: (n(bounds.centre.x + side / 2.0 - 0.6), n(middle + height / 2.0 - 0.045 * side), n(0.05 * side)),
        }
    }
}
