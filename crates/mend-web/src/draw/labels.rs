//! Labels on a picture: none overlaps another, none is cut by the picture's rim. Every picture that writes words at places
//! that come out of a computation puts them through here.

/// A letter's mean width over its height, bold (E: the font's digits are 0.58, its lower case 0.5 to 0.6).
const LETTER: f64 = 0.58;
/// Blank between two labels, by height.
const GAP: f64 = 0.15;

/// What a picture shows, or what a label covers; y downwards.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Extent {
    pub(crate) left: f64,
    pub(crate) top: f64,
    pub(crate) right: f64,
    pub(crate) bottom: f64,
}

impl Extent {
    fn overlaps(&self, other: &Self) -> bool {
        self.left < other.right && other.left < self.right && self.top < other.bottom && other.top < self.bottom
    }
}

/// Which end of a label stands at its place.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Anchor {
    /// It begins there.
    Start,
    /// Its middle is there.
    Middle,
    /// It ends there.
    End,
}

impl Anchor {
    /// As SVG has it.
    pub(crate) const fn svg(self) -> &'static str {
        match self {
            Self::Start => "start",
            Self::Middle => "middle",
            Self::End => "end",
        }
    }
}

/// A label as it is wanted; y is its middle.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Wanted<'a> {
    pub(crate) text: &'a str,
    pub(crate) at: (f64, f64),
    pub(crate) high: f64,
    pub(crate) anchor: Anchor,
    /// So many heights up or down it may give way to others.
    pub(crate) gives_way: u32,
}

/// The labels of a picture so far.
pub(crate) struct Labels {
    bounds: Extent,
    taken: Vec<Extent>,
}

/// How wide a text is.
pub(crate) fn width(text: &str, high: f64) -> f64 {
    text.chars().count() as f64 * LETTER * high
}

impl Labels {
    /// None yet, on a picture that shows this.
    pub(crate) fn within(bounds: Extent) -> Self {
        Self { bounds, taken: Vec::new() }
    }

    /// Something that stays where it is: labels give way to it.
    pub(crate) fn keep_free(&mut self, x: f64, y: f64, high: f64) {
        let half = high / 2.0;
        self.taken.push(Extent { left: x - half, right: x + half, top: y - half, bottom: y + half });
    }

    /// The place where a label is whole and free, as near as can be to where it is wanted; none where there is no such place.
    pub(crate) fn place(&mut self, wanted: Wanted<'_>) -> Option<(f64, f64)> {
        let Wanted { at: (x, y), high, .. } = wanted;
        let wide = width(wanted.text, high);
        let before = match wanted.anchor {
            Anchor::Start => 0.0,
            Anchor::Middle => wide / 2.0,
            Anchor::End => wide,
        };
        let Extent { left, right, top, bottom } = self.bounds;
        if wide > right - left {
            return None;
        }
        let start = (x - before).clamp(left, right - wide);
        let steps = (0..=wanted.gives_way).flat_map(|k| [f64::from(k), -f64::from(k)]);
        for step in steps {
            let middle = (y + step * high * (1.0 + GAP)).clamp(top + high / 2.0, bottom - high / 2.0);
            let half = high * (1.0 + GAP) / 2.0;
            let covers = Extent { left: start, right: start + wide, top: middle - half, bottom: middle + half };
            if !self.taken.iter().any(|taken| taken.overlaps(&covers)) {
                self.taken.push(covers);
                return Some((start + before, middle));
            }
        }
        None
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn labels() -> Labels {
        Labels::within(Extent { left: 0.0, top: 0.0, right: 100.0, bottom: 50.0 })
    }

    fn wanted(text: &str, at: (f64, f64)) -> Wanted<'_> {
        Wanted { text, at, high: 10.0, anchor: Anchor::Middle, gives_way: 2 }
    }

    #[test]
    fn a_label_gives_way_to_what_stays() {
        let mut labels = labels();
        labels.keep_free(50.0, 20.0, 10.0);
        labels.keep_free(52.0, 20.0, 10.0);
        let (_, y) = labels.place(wanted("coil", (50.0, 20.0))).expect("there is room");
        assert!((y - 20.0).abs() >= 10.0, "{y}");
    }

    #[test]
    fn a_label_at_the_rim_is_drawn_back_until_it_is_whole() {
        let (x, y) = labels().place(wanted("charge coil", (98.0, 1.0))).expect("there is room");
        assert!(x + width("charge coil", 10.0) / 2.0 <= 100.0 && y >= 5.0, "{x} {y}");
        assert_eq!(labels().place(wanted("a name that is far longer than the picture", (50.0, 20.0))), None);
    }

    #[test]
    fn two_labels_never_overlap_and_one_without_room_is_left_out() {
        let mut labels = labels();
        let places: Vec<_> = (0..8).map(|_| labels.place(wanted("anchors", (50.0, 25.0)))).collect();
        let drawn: Vec<f64> = places.iter().flatten().map(|(_, y)| *y).collect();
        assert!((3..8).contains(&drawn.len()), "{drawn:?}");
        for (k, y) in drawn.iter().enumerate() {
            assert!(drawn[..k].iter().all(|other| (y - other).abs() >= 10.0), "{drawn:?}");
        }
    }
}
