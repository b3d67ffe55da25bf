//! Looking into lists.

use mend_core::board::Point;

use super::sexpr::Sexpr;

impl Sexpr {
    /// Its parts; of a word none.
    pub(super) fn parts(&self) -> &[Self] {
        match self {
            Self::List(parts) => parts,
            Self::Text(_) => &[],
        }
    }
    /// A word or string.
    pub(super) fn text(&self) -> Option<&str> {
        match self {
            Self::Text(text) => Some(text),
            Self::List(_) => None,
        }
    }
    /// What kind of list it is: its first word.
    pub(super) fn head(&self) -> &str {
        self.parts().first().and_then(Self::text).unwrap_or("")
    }
    /// The lists of a kind in it.
    pub(super) fn all<'a>(&'a self, head: &'a str) -> impl Iterator<Item = &'a Self> {
        self.parts().iter().filter(move |part| part.head() == head)
    }
    /// The first of them.
    pub(super) fn find(&self, head: &str) -> Option<&Self> {
        self.parts().iter().find(|part| part.head() == head)
    }
    /// The k-th word after the head.
    pub(super) fn word(&self, k: usize) -> Option<&str> {
        self.parts().get(k + 1)?.text()
    }
    /// The k-th number after the head; only finite ones, of a size that a board has, are any.
    pub(super) fn number(&self, k: usize) -> Option<f64> {
        self.word(k)?.parse().ok().filter(|value: &f64| value.abs() < 1e5)
    }
    /// The first number of the list of that kind in it.
    pub(super) fn value(&self, head: &str) -> Option<f64> {
        self.find(head)?.number(0)
    }
    /// Its first two numbers as a place. The format's y runs downwards, ours away from the reader.
    pub(super) fn place(&self) -> Option<Point> {
        Some(Point { x: self.number(0)?, y: -self.number(1)? })
    }
    /// The place in the list of that kind in it.
    pub(super) fn at(&self, head: &str) -> Option<Point> {
        self.find(head)?.place()
    }
    /// Has it the bare word?
    pub(super) fn says(&self, word: &str) -> bool {
        self.parts().iter().any(|part| part.text() == Some(word))
    }
    /// The names of the layers it is on.
    pub(super) fn layers(&self) -> Vec<&str> {
        let lists = self.parts().iter().filter(|part| matches!(part.head(), "layer" | "layers"));
        lists.flat_map(|list| list.parts().iter().skip(1).filter_map(Self::text)).collect()
    }
}

/// A place turned to the left by degrees about the origin.
pub(super) fn turned(p: Point, degrees: f64) -> Point {
    let (sin, cos) = degrees.to_radians().sin_cos();
    Point { x: p.x * cos - p.y * sin, y: p.x * sin + p.y * cos }
}
