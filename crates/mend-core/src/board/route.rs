//! The shortest way through some places: what a tip that goes from joint to joint takes, and a wire that is laid along them.
//! It depends on where the places are and never on the order in which they are listed.

use super::Point;

/// Where a way ends.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WayEnds {
    /// At its last place, like a wire.
    Open,
    /// Where it began, like a tip that goes round.
    Joined,
}

/// The shortest way found through all places, as their numbers: the nearest one next, from every place in turn, and the best of these
/// untangled by turning pieces of it round until none makes it shorter. Within a few per cent of the shortest that there is
/// (Croes 1958, 2-opt); for the few dozen joints of a part nearly always the shortest itself.
///
/// ```
/// use mend_core::board::Point;
/// use mend_core::board::route::{WayEnds, shortest_way};
/// let places = [0.0, 4.0, 2.0].map(|x| Point { x, y: 0.0 });
/// assert_eq!(shortest_way(&places, WayEnds::Open), [0, 2, 1]);
/// ```
pub fn shortest_way(places: &[Point], ends: WayEnds) -> Vec<usize> {
    let mut listed: Vec<usize> = (0..places.len()).collect();
    listed.sort_by(|a, b| by_place(&places[*a], &places[*b]));
    let way = Way { places, ends };
    let begun = listed.iter().map(|first| way.nearest_next(*first, &listed));
    let Some(mut found) = begun.min_by(|a, b| way.length(a).total_cmp(&way.length(b))) else { return listed };
    way.untangle(&mut found);
    way.begun_at_its_least(found)
}

/// Of two places the one farther to the left, and of two above each other the lower.
pub(crate) fn by_place(a: &Point, b: &Point) -> std::cmp::Ordering {
    a.x.total_cmp(&b.x).then(a.y.total_cmp(&b.y))
}

/// A shorter way has to be shorter by more than rounding, mm.
const SHORTER_MM: f64 = 1e-6;

struct Way<'a> {
    places: &'a [Point],
    ends: WayEnds,
}

impl Way<'_> {
    fn apart(&self, a: usize, b: usize) -> f64 {
        self.places[a].distance_to(self.places[b])
    }

    fn length(&self, way: &[usize]) -> f64 {
        let back = match (self.ends, way.first(), way.last()) {
            (WayEnds::Joined, Some(first), Some(last)) => self.apart(*last, *first),
            _ => 0.0,
        };
        way.windows(2).map(|pair| self.apart(pair[0], pair[1])).sum::<f64>() + back
    }

    fn nearest_next(&self, first: usize, listed: &[usize]) -> Vec<usize> {
        let mut left: Vec<usize> = listed.iter().copied().filter(|k| *k != first).collect();
        let mut way = vec![first];
        let mut at = first;
        while let Some(next) =
            (0..left.len()).min_by(|a, b| self.apart(at, left[*a]).total_cmp(&self.apart(at, left[*b])))
        {
            at = left.remove(next);
            way.push(at);
        }
        way
    }

    /// Turns a piece round wherever that makes the way shorter, until it makes it shorter nowhere.
    fn untangle(&self, way: &mut [usize]) {
        while let Some((from, to)) = self.crossing(way) {
            way[from..=to].reverse();
        }
    }

    /// A piece that would better be walked the other way round.
    fn crossing(&self, way: &[usize]) -> Option<(usize, usize)> {
        let pieces = (0..way.len()).flat_map(|from| (from + 1..way.len()).map(move |to| (from, to)));
        pieces.into_iter().find(|(from, to)| self.gain(way, *from, *to) > SHORTER_MM)
    }

    /// What turning a piece round saves, mm.
    fn gain(&self, way: &[usize], from: usize, to: usize) -> f64 {
        let last = way.len() - 1;
        let joined = self.ends == WayEnds::Joined && !(from == 0 && to == last);
        let before = from.checked_sub(1).or(joined.then_some(last)).map(|k| way[k]);
        let after = if to < last { Some(way[to + 1]) } else { joined.then(|| way[0]) };
        let link = |place: usize, other: Option<usize>| other.map_or(0.0, |other| self.apart(place, other));
        link(way[from], before) + link(way[to], after) - link(way[to], before) - link(way[from], after)
    }

    /// An open way from the end that is farther to the left; a joined one from its place farthest to the left, towards the
    /// neighbour that is.
    fn begun_at_its_least(&self, mut way: Vec<usize>) -> Vec<usize> {
        let order = |a: &usize, b: &usize| by_place(&self.places[*a], &self.places[*b]);
        let last = way.len() - 1;
        if self.ends == WayEnds::Joined {
            let least = (0..way.len()).min_by(|a, b| order(&way[*a], &way[*b])).unwrap_or(0);
            way.rotate_left(least);
            if last > 1 && order(&way[last], &way[1]).is_lt() {
                way[1..].reverse();
            }
        } else if order(&way[last], &way[0]).is_lt() {
            way.reverse();
        }
        way
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn length(places: &[Point], way: &[usize]) -> f64 {
        way.windows(2).map(|pair| places[pair[0]].distance_to(places[pair[1]])).sum()
    }

    /// Joints on the four sides of a square, listed side by side in no order of their own.
    fn around() -> Vec<Point> {
        let along = [1.0, 5.0, 3.0, 7.0];
        let side = |f: fn(f64) -> Point| along.map(f);
        [
            side(|t| Point { x: t, y: 0.0 }),
            side(|t| Point { x: t, y: 8.0 }),
            side(|t| Point { x: 0.0, y: t }),
            side(|t| Point { x: 8.0, y: t }),
        ]
        .concat()
    }

    #[test]
    fn a_wire_goes_round_four_sides_and_a_tip_comes_back() {
        let places = around();
        let open = shortest_way(&places, WayEnds::Open);
        // Round four corners of sqrt 2, and all but one of the twelve steps of 2 mm along the sides: the longest is left out.
        assert!((length(&places, &open) - (22.0 + 4.0 * 2.0_f64.sqrt())).abs() < 1e-9, "{open:?}");
        let joined = shortest_way(&places, WayEnds::Joined);
        let back = places[joined[0]].distance_to(places[joined[15]]);
        assert!((length(&places, &joined) + back - (24.0 + 4.0 * 2.0_f64.sqrt())).abs() < 1e-9, "{joined:?}");
    }

    #[test]
    fn the_way_is_the_same_however_the_places_are_listed() {
        let places = around();
        let mut other = places.clone();
        other.rotate_left(5);
        other.reverse();
        for ends in [WayEnds::Open, WayEnds::Joined] {
            let walked = |places: &[Point]| -> Vec<Point> {
                shortest_way(places, ends).into_iter().map(|k| places[k]).collect()
            };
            assert_eq!(walked(&places), walked(&other));
        }
        assert!(shortest_way(&[], WayEnds::Open).is_empty());
        assert_eq!(shortest_way(&places[..1], WayEnds::Joined), [0]);
    }
}
