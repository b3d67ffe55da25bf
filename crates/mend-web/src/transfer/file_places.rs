//! Jobs and people stand in a file by their places; here they have numbers.

/// The numbers that jobs and people of a file have here, in its order.
#[derive(Debug, Clone, Copy)]
pub(super) struct FilePlaces<'a> {
    pub(super) jobs: &'a [i64],
    pub(super) people: &'a [Option<i64>],
}

impl FilePlaces<'_> {
    pub(super) fn person(&self, place: Option<usize>) -> Option<i64> {
        place.and_then(|place| self.people.get(place).copied().flatten())
    }
}
