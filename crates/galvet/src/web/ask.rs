//! The question as it comes with a request.

use super::reader::{Reader, fields};
use crate::question::Ask;
use rocket::Request;
use rocket::http::RawStr;
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

/// The query of an address, led by a question mark; empty for none.
pub(super) fn query_of(ask: &Ask) -> String {
    let pairs: Vec<String> = ask
        .pairs()
        .map(|(name, value)| format!("{name}={}", RawStr::new(value).percent_encode()))
        .collect();
    if pairs.is_empty() {
        String::new()
    } else {
        format!("?{}", pairs.join("&"))
    }
}

/// Names and values of a query as [`query_of`] makes it, for a form that is sent by
/// GET: its address loses what stands behind the question mark.
pub(super) fn carried(query: &str) -> Vec<(String, String)> {
    let pairs = query.trim_start_matches('?').split('&');
    pairs
        .filter_map(|pair| pair.split_once('='))
        .map(|(name, value)| {
            let value = RawStr::new(value).percent_decode_lossy();
            (name.to_owned(), value.into_owned())
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_a_form_carries_is_what_the_address_said() {
        let ask = Ask::of([("mass", "12 st 4 & more".to_owned())].into_iter());
        let carried = carried(&query_of(&ask));
        assert_eq!(carried, [("mass".to_owned(), "12 st 4 & more".to_owned())]);
        assert!(super::carried("").is_empty());
    }
}
