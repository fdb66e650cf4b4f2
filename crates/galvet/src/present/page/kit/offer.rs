//! A step a board offers: what it moves, in words and as the forms send it.

use galvet_core::hull::Pin;

/// A step that is offered.
pub struct Offer {
    pub words: String,
    /// Pins it sets, as JSON; empty for none.
    pub pins: String,
}

/// Pins as the script and the forms send them.
#[must_use]
pub fn pins_json(pins: &[Pin]) -> String {
    let all = pins.iter().map(|p| {
        serde_json::json!({
            "thing": p.thing, "nth": p.nth, "place": p.place,
            "x": p.x, "y": p.y, "turned": p.turned,
        })
    });
    serde_json::Value::from_iter(all).to_string()
}
