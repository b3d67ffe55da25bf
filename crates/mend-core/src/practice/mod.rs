//! The practice bench: the same solver in real time, under somebody's hands, with consequences. It knows no clock: a step is a
//! tenth of a second, and what hands do comes as events that carry their step. The same events give the same bits.
//!
//! - [`goal`]: what is to be done; [`scene`]: the board, and what is true of it and hidden; [`hands`]: what hands can do
//! - [`attempt`]: how it stands, `fold` how it goes on; `consequence`: what comes of it, a file each, as a [`harm`]; [`cues`]: what
//!   can be seen meanwhile
//! - [`debrief`]: what to change, at most three things; [`course`]: the tasks and what opens them

pub mod attempt;
mod consequence;
pub mod course;
pub mod cues;
pub mod debrief;
mod fold;
pub mod goal;
pub mod hands;
pub mod harm;
mod joint_fate;
pub mod scene;
