//! What a box of the schedule says in the room that it has.

/// A letter's width: what has no room is cut. What stands before it in its box, and after it.
pub(super) const LETTER: f64 = 8.0;
pub(super) const RIM: f64 = 8.0;
/// The cross before what is late is as wide as two letters and a blank.
const LATE: &str = "✕ ";
pub(super) const CROSS: f64 = 2.0 * LETTER;

/// What a box would say if it were wide enough.
pub(super) struct TaskWords<'a> {
    pub(super) number: i64,
    pub(super) words: String,
    pub(super) device: &'a str,
    pub(super) late: bool,
    pub(super) by_itself: bool,
}

/// The two lines in a box of this width: the job's number at least, where it has room. The cross of what is late stands before
/// the second line, or before the one of a low box; it gives way to the number, since a late box has its own edge.
pub(super) fn written(task: TaskWords<'_>, width: f64) -> (String, String) {
    let number = task.number.to_string();
    let crossed = |words: &str| {
        let words = fitting(words, width - CROSS);
        if task.late && width >= RIM + CROSS { format!("{LATE}{words}") } else { words }
    };
    let first = |room: f64| match fitting(&task.words, room) {
        words if words.is_empty() => whole([number.as_str()], room),
        words => words,
    };
    match (task.by_itself, task.late) {
        (true, true) if !first(width - CROSS).is_empty() => (format!("{LATE}{}", first(width - CROSS)), String::new()),
        (true, _) => (first(width), String::new()),
        (false, true) => (first(width), crossed(task.device).trim_end().to_owned()),
        (false, false) => (first(width), fitting(task.device, width)),
    }
}

/// The first of these that has room as it is; else nothing.
pub(super) fn whole<'a>(words: impl IntoIterator<Item = &'a str>, width: f64) -> String {
    words.into_iter().find(|words| letters(words) <= room(width)).unwrap_or_default().to_owned()
}

pub(super) fn letters(words: &str) -> usize {
    words.chars().count()
}

#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "letters in a box")]
fn room(width: f64) -> usize {
    ((width - RIM) / LETTER).max(0.0) as usize
}

/// As much of a word as has room.
pub(super) fn fitting(words: &str, width: f64) -> String {
    let room = room(width);
    if letters(words) <= room {
        return words.to_owned();
    }
    if room < 5 { String::new() } else { words.chars().take(room - 1).chain(['…']).collect() }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_late_says_so_where_the_number_has_room_too() {
        let box_of =
            |late, by_itself| TaskWords { number: 17, words: "17 Close".to_owned(), device: "Gannet", late, by_itself };
        assert_eq!(written(box_of(true, false), 100.0), ("17 Close".to_owned(), "✕ Gannet".to_owned()));
        assert_eq!(written(box_of(true, false), 26.0), ("17".to_owned(), "✕".to_owned()));
        assert_eq!(written(box_of(true, true), 100.0), ("✕ 17 Close".to_owned(), String::new()));
        assert_eq!(written(box_of(true, true), 26.0), ("17".to_owned(), String::new()));
        assert_eq!(written(box_of(false, false), 12.0), (String::new(), String::new()));
    }

    #[test]
    fn a_word_is_cut_to_its_box() {
        assert_eq!(fitting("7 At the bench", 200.0), "7 At the bench");
        assert_eq!(fitting("7 At the bench", 64.0), "7 At t…");
        assert_eq!((fitting("7 At the bench", 12.0), fitting("7", 16.0)), (String::new(), "7".to_owned()));
    }
}
