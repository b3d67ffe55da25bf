//! One setting of the process window, and what comes of it.

/// A setting and what comes of it, nominally.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WindowPoint {
    /// When the part comes away, s; none: not within the longest heating.
    pub release_s: Option<f64>,
    /// When the first limit is passed, s, and whose: its place in [`super::process_window::ProcessWindow::damaged`].
    pub damage: Option<(f64, usize)>,
    /// The joint that melts last: its place in the connector.
    pub last_joint: usize,
}

/// What comes of a candidate.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WindowCell {
    /// All melts before anything is damaged.
    Works,
    /// Something is damaged first.
    Hurts,
    /// Not everything melts, and nothing is damaged.
    TooCool,
}

impl WindowCell {
    /// By when the part comes away and when the first limit is passed, both counted from the same moment.
    pub fn from_times(release: Option<f64>, damage: Option<f64>) -> Self {
        match (release, damage) {
            (Some(release), Some(damage)) if damage <= release => Self::Hurts,
            (Some(_), _) => Self::Works,
            (None, Some(_)) => Self::Hurts,
            (None, None) => Self::TooCool,
        }
    }
}

impl WindowPoint {
    /// What comes of it.
    pub fn outcome(&self) -> WindowCell {
        WindowCell::from_times(self.release_s, self.damage.map(|(at, _)| at))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_setting_works_hurts_or_is_too_cool() {
        let cell = |release_s, damage: Option<f64>| {
            WindowPoint { release_s, damage: damage.map(|at| (at, 0)), last_joint: 0 }.outcome()
        };
        assert_eq!(cell(Some(40.0), None), WindowCell::Works);
        assert_eq!(cell(Some(40.0), Some(41.0)), WindowCell::Works);
        assert_eq!(cell(Some(40.0), Some(40.0)), WindowCell::Hurts, "the same second is not in time");
        assert_eq!(cell(None, Some(40.0)), WindowCell::Hurts);
        assert_eq!(cell(None, None), WindowCell::TooCool);
    }
}
