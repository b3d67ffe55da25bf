//! Joints that are fed and cleaned alike: one row, one shape.

use super::{Board, Joint};

/// A group of like joints.
#[derive(Debug, Clone, PartialEq)]
pub struct JointGroup {
    /// Its row's name.
    pub name: String,
    /// Plated holes, or pads?
    pub holes: bool,
    /// Under the body, where no tip gets to?
    pub hidden: bool,
    /// Places of its joints in the connector.
    pub joints: Vec<usize>,
    /// Solder of one joint, mean, mm³.
    pub volume: f64,
    /// The most that one joint holds, mean, mm³.
    pub most: f64,
    /// What solder wets of one joint, mean, mm².
    pub wetted: f64,
}

/// Names of the rows, each once, in the order in which they first come. Joints of a row need not stand together in the list.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::row_names;
/// assert_eq!(row_names(&bench.board.connector.joints), ["row A", "row B", "anchors"]);
/// ```
pub fn row_names(joints: &[Joint]) -> Vec<&str> {
    let mut names: Vec<&str> = Vec::new();
    for joint in joints {
        if !names.contains(&joint.row.as_str()) {
            names.push(&joint.row);
        }
    }
    names
}

/// The groups of a board's connector, in order.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::groups;
/// let anchors = groups(&bench.board).into_iter().find(|group| group.holes).expect("plated anchors");
/// assert!(anchors.volume > 0.0 && anchors.most >= anchors.volume, "mm³ of one joint");
/// ```
pub fn groups(board: &Board) -> Vec<JointGroup> {
    let joints = &board.connector.joints;
    let is_hole = |j: &Joint| j.shape.is_hole();
    let mut groups: Vec<JointGroup> = Vec::new();
    for (k, joint) in joints.iter().enumerate() {
        let own = |g: &&mut JointGroup| g.name == joint.row && g.holes == is_hole(joint) && g.hidden == joint.hidden;
        match groups.iter_mut().find(own) {
            Some(group) => group.joints.push(k),
            None => groups.push(JointGroup {
                name: joint.row.clone(),
                holes: is_hole(joint),
                hidden: joint.hidden,
                joints: vec![k],
                volume: 0.0,
                most: 0.0,
                wetted: 0.0,
            }),
        }
    }
    let thickness = board.stack.thickness;
    for group in &mut groups {
        let mean = |of: &dyn Fn(&Joint) -> f64| {
            group.joints.iter().map(|k| of(&joints[*k])).sum::<f64>() / group.joints.len() as f64
        };
        let volume = mean(&|j| j.solder_volume(thickness));
        let (most, wetted) = (mean(&|j| j.most_solder(thickness)), mean(&|j| j.wetted_area(thickness)));
        (group.volume, group.most, group.wetted) = (volume, most, wetted);
    }
    groups
}
