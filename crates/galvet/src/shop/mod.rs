//! The shop: what there is of each hull, and which demo boat is out with whom.

mod booking;
mod stock;

pub(crate) use booking::{Booked, book, booking_form, bookings, cancel, days, usual_booking};
pub(crate) use stock::{Shelf, keep_stock, shelves, stock, stock_form};
