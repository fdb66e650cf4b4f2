//! The question as it comes with a request.

use super::address::query;
use super::reader::{Reader, fields};
use crate::question::Ask;
use rocket::Request;
use rocket::request::{FromRequest, Outcome};
use std::convert::Infallible;

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Ask {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let Outcome::Success(reader) = request.guard::<Reader>().await else {
            return Outcome::Success(Self::of(fields(request)));
        };
        Outcome::Success(Self::of(fields(request)).shown_in(reader.units))
    }
}

/// The question as it stands in addresses.
pub(super) fn query_of(ask: &Ask) -> String {
    query(ask.pairs())
}
