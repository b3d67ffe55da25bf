//! The application over its own router, without a server.
#![allow(clippy::unwrap_used)]

mod counter;
mod drafts;
mod fixture;
mod looking;
mod measuring;
mod opening;
mod people;
mod practice;
mod retired;
mod routes;
mod shop;
mod stock;
mod what_if;
