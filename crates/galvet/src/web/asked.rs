//! How a page is asked for: as ever, to be saved, or by an address handed out.

use rocket::Request;

/// How a page is asked for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Asked {
    /// As ever.
    Page,
    /// To be saved.
    File,
    /// By an address handed out.
    Shared,
    /// The same, of a page that may show what a customer asked.
    SharedOfCustomer,
}

impl Asked {
    /// How this page is asked for.
    pub(super) fn of(request: &Request<'_>) -> Self {
        *request.local_cache(|| Self::Page)
    }

    /// Whether it is by an address handed out.
    pub(super) const fn is_shared(self) -> bool {
        matches!(self, Self::Shared | Self::SharedOfCustomer)
    }

    /// Notes it, before anybody asks.
    pub(super) fn note(self, request: &Request<'_>) {
        request.local_cache(|| self);
    }
}

/// Whether a request came by an address handed out.
pub(super) fn is_shared(request: &Request<'_>) -> bool {
    Asked::of(request).is_shared()
}
