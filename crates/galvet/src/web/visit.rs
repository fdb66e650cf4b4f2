//! A visit: who asks, with which question, of what is kept; and the frame every page of
//! ours stands in.

use super::address::address;
use super::ask::query_of;
use super::reader::{Reader, back_to};
use super::records::Records;
use super::shared::Shared;
use super::trouble::Trouble;
use super::undo::steps;
use super::visitor::Visitor;
use crate::answer::Hull;
use crate::question::Ask;
use galvet_core::base::System;
use galvet_store::{Kind, Role, Steps};
use rocket::Request;
use rocket::http::Status;
use rocket::request::{FromRequest, Outcome};
use rocket::response::Redirect;
use std::convert::Infallible;

/// Who asks, and what of.
pub(super) struct Visit<'r> {
    /// The question that travels along.
    pub(super) ask: Ask,
    pub(super) reader: Reader,
    pub(super) shared: &'r Shared,
    /// The question as it stands in addresses, led by a question mark; empty for none.
    pub(super) query: String,
    /// Who they are.
    pub(super) visitor: Visitor,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Visit<'r> {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let shared = request.rocket().state::<Shared>();
        let (Outcome::Success(ask), Outcome::Success(reader), Some(shared)) =
            (request.guard().await, request.guard().await, shared)
        else {
            return Outcome::Forward(Status::InternalServerError);
        };
        let Ok(visitor) = Visitor::known(request) else {
            return Outcome::Forward(Status::InternalServerError);
        };
        Outcome::Success(Self {
            visitor: visitor.clone(),
            query: query_of(&ask),
            ask,
            reader,
            shared,
        })
    }
}

impl Visit<'_> {
    /// The address of a page of ours, the question and `pairs` behind it.
    pub(super) fn to(&self, path: &str, pairs: &[(&str, &str)]) -> String {
        address(path, &self.query, pairs)
    }

    /// Goes on to a page of ours.
    pub(super) fn go(&self, path: &str, pairs: &[(&str, &str)]) -> Redirect {
        Redirect::to(back_to(&self.to(path, pairs)))
    }

    /// The frame of the page at `here`, in a place of the navigation.
    pub(super) fn frame(&self, place: &'static str, here: String) -> Frame {
        Frame {
            units: self.reader.units,
            sun: self.reader.sun,
            here,
            place,
            query: self.query.clone(),
            steps: Steps::default(),
            me: self.visitor.signed().map(|who| Me {
                name: who.person.name.clone(),
                role: who.person.role,
            }),
        }
    }

    /// The same of a page on which one's last acts can be taken back: those on a record,
    /// or all.
    pub(super) async fn frame_of(
        &self,
        place: &'static str,
        here: String,
        about: Option<(Kind, &str)>,
    ) -> Result<Frame, Trouble> {
        Ok(Frame {
            steps: steps(self.shared, self.reader, about).await?,
            ..self.frame(place, here)
        })
    }
}

impl Records {
    /// The hull of a slug.
    pub(super) fn hull(&self, slug: &str) -> Result<&Hull, Trouble> {
        let mut hulls = self.hulls.iter();
        let there = hulls.find(|hull| hull.survey.key == slug);
        there.ok_or(Trouble::Gone)
    }
}

/// Who signed in, as every page says it.
pub(super) struct Me {
    pub(super) name: String,
    pub(super) role: Role,
}

/// What every page stands in.
pub(super) struct Frame {
    pub(super) units: System,
    /// Whether it is read in bright sun.
    pub(super) sun: bool,
    /// The page's own address, to come back to.
    pub(super) here: String,
    /// Where in the navigation it belongs.
    pub(super) place: &'static str,
    /// The question as it stands in addresses.
    pub(super) query: String,
    /// What can be taken back and done again.
    pub(super) steps: Steps,
    /// Who signed in; `None` where nobody has to.
    pub(super) me: Option<Me>,
}

impl Frame {
    pub(super) fn metric(&self) -> bool {
        self.units == System::Metric
    }

    /// The question name by name, for a form that asks something beside it.
    pub(super) fn carried(&self) -> Vec<(String, String)> {
        let pairs = form_urlencoded::parse(self.query.trim_start_matches('?').as_bytes());
        // Each figure of it has its unit; the form says those of its own.
        pairs
            .into_owned()
            .filter(|(name, _)| name != "units")
            .collect()
    }

    /// The question behind an address that asks something already.
    pub(super) fn and_query(&self) -> String {
        match self.query.strip_prefix('?') {
            Some(query) if !query.is_empty() => format!("&{query}"),
            _ => String::new(),
        }
    }
}
