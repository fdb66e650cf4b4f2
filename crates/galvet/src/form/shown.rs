//! A form as it stands for what is on the record.
//!
//! Every form sends along what it showed. A field left as it stood takes what is
//! on the record now; one that was typed in is kept, unless somebody else made it
//! something else since: then both are said, and nothing is changed.

use super::Sent;
use super::refusal::Mistakes;
use std::collections::BTreeMap;

/// The name of the field in which a form sends along what it showed.
const SHOWN: &str = "shown";
/// Fields that say what to do, not what is so.
pub(super) const ORDERS: [&str; 8] = [
    SHOWN, "action", "next", "both", "kind", "anew", "units", "back",
];

/// The fields of a form with what stands in them; empty ones are left out.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Shown(BTreeMap<String, String>);

impl Shown {
    pub(crate) fn of<N: Into<String>>(fields: impl IntoIterator<Item = (N, String)>) -> Self {
        let fields = fields.into_iter().map(|(name, text)| (name.into(), text));
        Self(fields.filter(|(_, text)| !text.is_empty()).collect())
    }

    /// What stands in a field; empty where nothing does.
    #[must_use]
    pub fn text(&self, name: &str) -> &str {
        self.0.get(name).map_or("", String::as_str)
    }

    /// The form as it is sent when nothing is typed.
    #[must_use]
    pub fn fields(&self) -> Sent {
        self.0.clone().into_iter().collect()
    }

    /// As a form sends it along.
    #[must_use]
    pub fn sent_along(&self) -> String {
        serde_json::to_string(&self.0).unwrap_or_default()
    }

    /// What a form says it showed; `None` where it does not say.
    pub(super) fn said(form: &Sent) -> Option<Self> {
        let fields = serde_json::from_str(form.get(SHOWN)?);
        fields.ok().map(Self)
    }

    /// Whether nobody changed since what a form showed, for taking it off: `self`
    /// is what the form would show now.
    ///
    /// # Errors
    /// In words, what is different now.
    pub fn unchanged(&self, form: &Sent) -> Result<(), String> {
        let Some(was) = Self::said(form) else {
            return Ok(());
        };
        let names = self.0.keys().chain(was.0.keys());
        let other = names.filter(|name| self.text(name) != was.text(name));
        let mut other: Vec<String> = other
            .map(|name| {
                let now = or_nothing(self.text(name));
                format!("{} is “{now}”", name.replace('-', " "))
            })
            .collect();
        other.dedup();
        if other.is_empty() {
            return Ok(());
        }
        Err(format!(
            "somebody else changed this meanwhile: now {}. Take it off once more if it must go",
            other.join("; ")
        ))
    }
}

fn or_nothing(text: &str) -> &str {
    if text.is_empty() { "nothing" } else { text }
}

/// Both sides of a field two people typed in.
pub(super) fn clash(now: &str, typed: &str) -> String {
    format!(
        "is “{}” now, yours is “{}”",
        or_nothing(now),
        or_nothing(typed)
    )
}

/// The same of the whole form, beside the fields.
pub(super) fn clashes_told(mut clashes: Mistakes) -> Mistakes {
    let said = clashes.iter().map(|(name, clash)| {
        let name = name.replace('-', " ");
        format!("{name} {clash}")
    });
    let all: Vec<String> = said.collect();
    let whole = format!(
        "somebody else changed this meanwhile: {}. Keep once more to have it your way",
        all.join("; ")
    );
    clashes.insert(String::new(), whole);
    clashes
}
