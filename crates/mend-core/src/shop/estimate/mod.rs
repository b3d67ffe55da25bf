//! How long a job takes and what it costs, before it is done.
//!
//! - [`prior`]: what a stop usually takes, by what is known of the job (E)
//! - [`pooled`]: what the shop's own past says, pooled over shop, kind of work and person
//! - [`stage_time`]: a stop's time as usual and as "eight in ten within", and several together
//! - [`price`]: hours, parts, consumables and risk, line by line; [`balance`]: what is left to be paid
//!
//! Times are log-normal. It knows no date and no currency.

pub mod balance;
pub mod pooled;
pub mod price;
pub mod prior;
pub mod stage_time;
