//! A task in its place, and one that has none.

/// A task in its place.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PlacedTask {
    /// The job, by its place in the workload.
    pub job: usize,
    /// The task, by its place in the job.
    pub task: usize,
    /// Who does it, by their place; none: by itself.
    pub worker: Option<usize>,
    /// From, min.
    pub from: i64,
    /// Until, min.
    pub until: i64,
}

/// A task that nobody can do in the hours that there are: none of the level, or none with hours enough at a stretch.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Unplaceable {
    /// The job, by its place.
    pub job: usize,
    /// The task, by its place in the job.
    pub task: usize,
}
