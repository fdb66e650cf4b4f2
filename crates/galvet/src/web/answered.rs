//! Pages and parts of pages as they are answered.

use super::trouble::Trouble;
use crate::question::Asked;
use askama::Template;
use rocket::Request;
use rocket::http::{ContentType, Status};
use rocket::response::Responder;

/// The part of a page that changes, for the script.
pub(super) struct Part(String);

impl Part {
    pub(super) fn of(block: &impl Template) -> Result<Self, Trouble> {
        block.render().map(Self).map_err(|error| {
            crate::terminal::warn(error);
            Trouble::Ours
        })
    }
}

impl<'r> Responder<'r, 'static> for Part {
    fn respond_to(self, request: &'r Request<'_>) -> rocket::response::Result<'static> {
        (ContentType::HTML, self.0).respond_to(request)
    }
}

/// A page with the status its question deserves.
pub(super) struct Answered<T> {
    status: Status,
    page: T,
}

impl<T> Answered<T> {
    /// The part of the page that changes, with the same status.
    pub(super) fn part(
        self,
        part: impl FnOnce(&T) -> Result<Part, Trouble>,
    ) -> Result<Answered<Part>, Trouble> {
        Ok(Answered {
            status: self.status,
            page: part(&self.page)?,
        })
    }
}

impl<'r, T: Responder<'r, 'static>> Responder<'r, 'static> for Answered<T> {
    fn respond_to(self, request: &'r Request<'_>) -> rocket::response::Result<'static> {
        (self.status, self.page).respond_to(request)
    }
}

/// 422 when some part was not understood: the page says where.
pub(super) fn answered<T>(asked: &Asked, page: T) -> Answered<T> {
    let status = if asked.errors.is_empty() {
        Status::Ok
    } else {
        Status::UnprocessableEntity
    };
    Answered { status, page }
}
