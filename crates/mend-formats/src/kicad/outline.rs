//! The rim: lines and arcs of the edge layer, joined end to end; the largest ring is the board, the others are cut-outs.

use std::collections::HashMap;

use mend_core::board::{Outline, Point};

use super::notes::ImportNotes;
use super::sexpr::Sexpr;

/// Ends this close are one, mm.
const JOINED: f64 = 0.02;
/// An arc is cut into pieces of at most so many degrees.
const ARC_PIECE: f64 = 10.0;
/// Pieces of a rim; more are a drawing that was meant for something else.
const MOST_PIECES: usize = 4_000;

/// The rim of a board file, where it closes.
pub(super) fn outline(board: &Sexpr, notes: &mut ImportNotes) -> Option<Outline> {
    let on_edge = |part: &&Sexpr| part.head().starts_with("gr_") && part.layers().contains(&"Edge.Cuts");
    let mut pieces: Vec<Vec<Point>> = Vec::new();
    for part in board.parts().iter().filter(on_edge).take(MOST_PIECES) {
        match piece(part) {
            Some(points) => pieces.push(points),
            None => notes.leave_out(&format!("{} of the rim", part.head())),
        }
    }
    let mut rings = rings(pieces, notes);
    rings.sort_by(|a, b| b.area().total_cmp(&a.area()));
    let mut rings = rings.into_iter();
    let largest = rings.next();
    rings.for_each(|_| notes.leave_out("cut-out of the board"));
    largest
}

fn piece(part: &Sexpr) -> Option<Vec<Point>> {
    let named = |head: &str| part.at(head);
    Some(match part.head() {
        "gr_line" => vec![named("start")?, named("end")?],
        "gr_rect" => {
            let (a, b) = (named("start")?, named("end")?);
            vec![a, Point { x: b.x, y: a.y }, b, Point { x: a.x, y: b.y }, a]
        }
        "gr_arc" => match named("mid") {
            Some(mid) => arc(named("start")?, mid, named("end")?),
            None => swept(named("start")?, named("end")?, part.value("angle")?),
        },
        "gr_circle" => {
            let (centre, end) = (named("center")?, named("end")?);
            swept(centre, end, 360.0)
        }
        "gr_poly" => {
            let mut points: Vec<Point> = part.find("pts")?.all("xy").filter_map(Sexpr::place).collect();
            points.push(*points.first()?);
            points
        }
        _ => return None,
    })
}

/// From `from` about a centre by degrees, to the right as the format counts them.
fn swept(centre: Point, from: Point, degrees: f64) -> Vec<Point> {
    let (r, begin) = ((from.x - centre.x).hypot(from.y - centre.y), (from.y - centre.y).atan2(from.x - centre.x));
    let count = (degrees.abs().min(360.0) / ARC_PIECE).ceil().max(1.0) as usize;
    let at = |k: usize| {
        let angle = begin - degrees.to_radians() * k as f64 / count as f64;
        Point { x: centre.x + r * angle.cos(), y: centre.y + r * angle.sin() }
    };
    (0..=count).map(at).collect()
}

/// Through three places: the centre is where their bisectors meet (T).
fn arc(a: Point, b: Point, c: Point) -> Vec<Point> {
    let cross = 2.0 * (a.x * (b.y - c.y) + b.x * (c.y - a.y) + c.x * (a.y - b.y));
    if cross.abs() < 1e-9 {
        return vec![a, c];
    }
    let square = |p: Point| p.x * p.x + p.y * p.y;
    let x = (square(a) * (b.y - c.y) + square(b) * (c.y - a.y) + square(c) * (a.y - b.y)) / cross;
    let y = (square(a) * (c.x - b.x) + square(b) * (a.x - c.x) + square(c) * (b.x - a.x)) / cross;
    let centre = Point { x, y };
    let angle = |p: Point| (p.y - y).atan2(p.x - x).to_degrees();
    let turn = |to: f64| (to - angle(a)).rem_euclid(360.0);
    let (mid, end) = (turn(angle(b)), turn(angle(c)));
    let left = if mid <= end { end } else { end - 360.0 };
    let mut points = swept(centre, a, -left);
    if let Some(last) = points.last_mut() {
        *last = c;
    }
    points
}

type GridKey = (i64, i64);

fn key(p: Point) -> GridKey {
    ((p.x / JOINED).round() as i64, (p.y / JOINED).round() as i64)
}

/// Pieces joined into rings. Each piece is used once; a chain that does not close is said.
fn rings(pieces: Vec<Vec<Point>>, notes: &mut ImportNotes) -> Vec<Outline> {
    let mut ends: HashMap<GridKey, Vec<usize>> = HashMap::new();
    for (k, piece) in pieces.iter().enumerate() {
        for end in [piece.first(), piece.last()].into_iter().flatten() {
            ends.entry(key(*end)).or_default().push(k);
        }
    }
    let mut used = vec![false; pieces.len()];
    let mut found = Vec::new();
    for start in 0..pieces.len() {
        if used[start] {
            continue;
        }
        used[start] = true;
        let mut chain = pieces[start].clone();
        while !closes(&chain) {
            let Some(next) = next(&ends, &used, &chain) else { break };
            used[next] = true;
            extend(&mut chain, &pieces[next]);
        }
        if chain.len() > 3 && closes(&chain) {
            chain.pop();
            found.push(Outline { corners: chain });
        } else {
            notes.leave_out("line of the rim that does not close");
        }
    }
    found
}

fn closes(chain: &[Point]) -> bool {
    let (Some(first), Some(last)) = (chain.first(), chain.last()) else { return true };
    chain.len() > 3 && near(*first, *last)
}

fn near(a: Point, b: Point) -> bool {
    (a.x - b.x).abs() <= 2.0 * JOINED && (a.y - b.y).abs() <= 2.0 * JOINED
}

/// An unused piece that begins or ends where the chain ends; its neighbour cells are looked at as well, as rounding may
/// have put two ends on either side of a border.
fn next(ends: &HashMap<GridKey, Vec<usize>>, used: &[bool], chain: &[Point]) -> Option<usize> {
    let (x, y) = key(*chain.last()?);
    let cells = (-1..=1).flat_map(|dx| (-1..=1).map(move |dy| (x + dx, y + dy)));
    cells.filter_map(|cell| ends.get(&cell)).flatten().copied().find(|k| !used[*k])
}

fn extend(chain: &mut Vec<Point>, piece: &[Point]) {
    let Some(last) = chain.last().copied() else { return };
    if piece.first().is_some_and(|p| near(*p, last)) {
        chain.extend_from_slice(&piece[1..]);
    } else {
        chain.extend(piece.iter().rev().skip(1));
    }
}

#[cfg(test)]
mod tests {
    use super::super::sexpr::read;
    use super::*;

    fn drawn(parts: &str) -> (Option<Outline>, ImportNotes) {
        let mut notes = ImportNotes::default();
        let board = read(format!("(kicad_pcb {parts})").as_bytes()).expect("sound");
        (outline(&board, &mut notes), notes)
    }

    const LINES: &str = r#"
        (gr_line (start 30 0) (end 0 0) (layer "Edge.Cuts"))
        (gr_line (start 0 20) (end 0 0) (layer "Edge.Cuts"))
        (gr_line (start 0 20.004) (end 25 20) (layer "Edge.Cuts"))
        (gr_line (start 30 0) (end 30 15) (layer "Edge.Cuts"))"#;

    #[test]
    fn lines_in_any_order_and_a_rounded_corner_make_a_ring() {
        let arc = r#"(gr_arc (start 25 20) (mid 28.5355 18.5355) (end 30 15) (layer "Edge.Cuts"))"#;
        let (found, notes) = drawn(&format!("{LINES}{arc}"));
        let area = found.expect("a ring").area();
        // A 30 x 20 rectangle less the corner outside of a quarter circle of 5 mm.
        let by_hand = 600.0 - 25.0 * (1.0 - std::f64::consts::FRAC_PI_4);
        assert!((area - by_hand).abs() < 0.2, "{area} against {by_hand}");
        assert_eq!(notes, ImportNotes::default());
    }

    #[test]
    fn a_rim_that_does_not_close_is_none_and_said() {
        let (found, notes) = drawn(LINES);
        assert_eq!(found, None);
        assert!(notes.left_out.contains_key("line of the rim that does not close"), "{notes:?}");
    }

    #[test]
    fn the_largest_ring_is_the_board_and_cut_outs_are_counted() {
        let rings = r#"(gr_circle (center 10 10) (end 12 10) (layer "Edge.Cuts"))
            (gr_rect (start 0 0) (end 50 40) (layer "Edge.Cuts"))"#;
        let (found, notes) = drawn(rings);
        assert_eq!(found.map(|o| o.area()), Some(2000.0));
        assert_eq!(notes.left_out["cut-out of the board"], 1);
    }
}
