//! The shop's own pages: what there is, demo boats by the hour, the counter and the screen
//! that follows it.

mod bookings;
mod counter;
mod follow;
mod screen;
mod stock;
mod three;

use rocket::Route;

pub(in crate::web) use follow::Screens;

pub(super) fn routes() -> Vec<Route> {
    [
        stock::routes(),
        bookings::routes(),
        counter::routes(),
        screen::routes(),
    ]
    .concat()
}
