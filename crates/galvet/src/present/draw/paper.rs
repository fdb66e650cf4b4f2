//! Drawings on paper of their own: the same rules as on a page, with the colours of
//! daylight written out, since a file knows no page's tokens.

use std::collections::BTreeMap;
use std::sync::LazyLock;

const TOKENS: &str = include_str!("../../../../../web/styles/tokens.css");
const RULES: &str = include_str!("../../../../../web/styles/drawings.css");

/// The rules of the drawings.
pub static STYLE: LazyLock<String> = LazyLock::new(|| style(TOKENS, RULES));

/// `--color-ink: light-dark(#14303a, …)` as name and the colour in daylight.
fn daylight(tokens: &str) -> BTreeMap<&str, &str> {
    let lines = tokens.lines().filter_map(|line| {
        let (name, value) = line.trim().split_once(':')?;
        let (light, _) = value.trim().strip_prefix("light-dark(")?.split_once(',')?;
        Some((name, light.trim()))
    });
    lines.collect()
}

/// Rules out of their layer, with colours for the tokens.
fn style(tokens: &str, rules: &str) -> String {
    let mut out = match (rules.find('{'), rules.rfind('}')) {
        (Some(from), Some(to)) if from < to => rules[from + 1..to].to_owned(),
        _ => rules.to_owned(),
    };
    for (name, light) in daylight(tokens) {
        out = out.replace(&format!("var({name})"), light);
    }
    out.split_whitespace().collect::<Vec<_>>().join(" ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_colour_is_written_out() {
        assert!(STYLE.contains(".hull { fill: #efdcae;"), "{}", *STYLE);
        for left in ["var(", "light-dark", "@layer", "@apply"] {
            assert!(!STYLE.contains(left), "{left}");
        }
    }
}
