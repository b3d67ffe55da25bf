//! Where a component's name stands on its face: within what is seen of its body, on one line or broken where a word ends. A name
//! that runs over its body's rim can't be read; that one is told when it is pointed at.

use super::labels::{Anchor, Extent, Labels, Wanted, width};
use super::n;

/// From one line to the next, by height.
const LINE: f64 = 1.15;
/// Most lines of a name.
const MOST_LINES: usize = 3;
/// Where there is no room otherwise, letters are so much smaller.
const SMALLER: f64 = 0.8;

/// A name on paper.
pub(crate) struct BodyName {
    pub(crate) x: String,
    pub(crate) size: String,
    /// Each line with its middle's height.
    pub(crate) lines: Vec<(String, String)>,
}

impl BodyName {
    /// A name inside a body, its letters so high; none where it finds no room.
    pub(crate) fn within(name: &str, body: Extent, high: f64, labels: &mut Labels) -> Option<Self> {
        if high <= 0.0 {
            return None;
        }
        Self::so_high(name, body, high, labels).or_else(|| Self::so_high(name, body, SMALLER * high, labels))
    }

    fn so_high(name: &str, body: Extent, high: f64, labels: &mut Labels) -> Option<Self> {
        let lines = (1..=MOST_LINES).find_map(|count| broken(name, count).filter(|lines| fits(lines, body, high)))?;
        let x = (body.left + body.right) / 2.0;
        let top = (body.top + body.bottom) / 2.0 - high * LINE * (lines.len() - 1) as f64 / 2.0;
        let line = |(k, text): (usize, &String)| {
            let at = (x, top + high * LINE * k as f64);
            let (_, y) = labels.place(Wanted { text, at, high, anchor: Anchor::Middle, gives_way: 0 })?;
            Some((text.clone(), n(y)))
        };
        let lines: Vec<(String, String)> = lines.iter().enumerate().map(line).collect::<Option<_>>()?;
        Some(Self { x: n(x), size: n(high), lines })
    }
}

fn fits(lines: &[String], body: Extent, high: f64) -> bool {
    let widest = lines.iter().map(|line| width(line, high)).fold(0.0, f64::max);
    widest <= body.right - body.left && high * LINE * lines.len() as f64 <= body.bottom - body.top
}

/// A name on so many lines, the longest of which is as short as can be; none where it has fewer words.
fn broken(name: &str, count: usize) -> Option<Vec<String>> {
    let words: Vec<&str> = name.split_whitespace().collect();
    if count == 1 || words.len() <= 1 {
        return (count == 1).then(|| vec![words.join(" ")]);
    }
    let ways = (1..words.len()).filter_map(|first| {
        let rest = broken(&words[first..].join(" "), count - 1)?;
        Some(std::iter::once(words[..first].join(" ")).chain(rest).collect::<Vec<String>>())
    });
    ways.min_by_key(|lines| lines.iter().map(|line| line.chars().count()).max())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn body(width: f64, height: f64) -> Extent {
        Extent { left: 0.0, top: 0.0, right: width, bottom: height }
    }

    fn lines(name: &str, body: Extent) -> Option<Vec<String>> {
        let mut labels = Labels::within(Extent { left: 0.0, top: 0.0, right: 200.0, bottom: 200.0 });
        let name = BodyName::within(name, body, 10.0, &mut labels)?;
        Some(name.lines.into_iter().map(|(text, _)| text).collect())
    }

    #[test]
    fn a_name_is_broken_where_a_word_ends_and_never_runs_over_the_rim() {
        assert_eq!(lines("speaker socket", body(120.0, 20.0)), Some(vec!["speaker socket".to_owned()]));
        let two = Some(vec!["speaker".to_owned(), "socket".to_owned()]);
        assert_eq!(lines("speaker socket", body(50.0, 40.0)), two);
        let smaller = Some(vec!["speaker".to_owned(), "socket".to_owned()]);
        assert_eq!(lines("speaker socket", body(50.0, 20.0)), smaller, "with smaller letters");
        assert_eq!(lines("speaker socket", body(50.0, 17.0)), None, "two lines are too high");
        assert_eq!(lines("electrolytic", body(50.0, 90.0)), None, "a word is not broken");
        assert_eq!(lines("lid of the coil", body(50.0, 90.0)).map(|lines| lines.len()), Some(2));
    }

    #[test]
    fn a_name_that_another_lies_over_is_left_out() {
        let mut labels = Labels::within(body(200.0, 200.0));
        let place = |labels: &mut Labels| BodyName::within("coil", body(100.0, 20.0), 10.0, labels).is_some();
        assert_eq!([place(&mut labels), place(&mut labels)], [true, false]);
    }
}
