//! A page made to stand alone: style and fonts inside it, no script, no form, no way to
//! anything else; and nobody named on it who is a customer.

use super::assets;
use crate::customer::Written;
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use galvet_store::Catalogue;
use lol_html::html_content::ContentType as Html;
use lol_html::{RewriteStrSettings, element, rewrite_str, text};
use std::sync::LazyLock;

/// The condition under which stands what paper leaves out and what it opens: so does a page
/// that stands alone, on a screen as well, laid out as the screen wants it.
const ON_PAPER: &str = "@media print and (min-width:1px)";

/// The style, with its fonts inside.
static STYLE: LazyLock<String> = LazyLock::new(|| {
    let text = |name: &str| assets::file(name).unwrap_or_default();
    let mut style = String::from_utf8(text("app.css")).unwrap_or_default();
    for font in ["archivo", "newsreader"] {
        let name = format!("fonts/{font}.woff2");
        let inside = format!(
            "url(data:font/woff2;base64,{})",
            STANDARD.encode(text(&name))
        );
        style = style.replace(&format!("url({name})"), &inside);
    }
    style.replace(ON_PAPER, "@media all")
});

/// A page without script, form or way out, its style inside. One that cannot be read as
/// HTML is not handed out as it is.
pub(super) fn stands_alone(page: &str, by_address: bool) -> String {
    let style = format!("<style>{}</style>", *STYLE);
    let told = if by_address {
        "<p class=\"caution\">A paper handed out to be read. Guidance; the maker's instructions, local rules and qualified people stand above it.</p>"
    } else {
        ""
    };
    let settings = RewriteStrSettings {
        element_content_handlers: vec![
            element!("head", |e| {
                e.append(&style, Html::Html);
                Ok(())
            }),
            element!("main", |e| {
                e.append(told, Html::Html);
                Ok(())
            }),
            element!(
                "script, link, noscript, template, iframe, object, embed, base, dialog, nav, .skip, .trouble, input, select, textarea, datalist, [data-tick-state], [data-private], .masthead form, .masthead-me",
                |e| {
                    e.remove();
                    Ok(())
                }
            ),
            element!("button.tick-box", |e| {
                e.set_tag_name("span")?;
                e.set_attribute("class", "tick-box")?;
                Ok(())
            }),
            element!("button:not(.tick-box)", |e| {
                e.remove();
                Ok(())
            }),
            element!("form", |e| {
                e.set_tag_name("div")?;
                e.remove_attribute("action");
                e.remove_attribute("method");
                if e.has_attribute("aria-label") {
                    e.set_attribute("role", "group")?;
                }
                Ok(())
            }),
            // Words stay where a link was; a place on the page stays a link.
            element!("a[href]", |e| {
                if !e.get_attribute("href").is_some_and(|h| h.starts_with('#')) {
                    e.remove_attribute("href");
                }
                Ok(())
            }),
            element!("img", |e| {
                match e.get_attribute("src").and_then(|src| inside(&src)) {
                    Some(data) => e.set_attribute("src", &data)?,
                    None => e.remove(),
                }
                e.remove_attribute("srcset");
                Ok(())
            }),
            element!("*", |e| {
                let names: Vec<String> = e
                    .attributes()
                    .iter()
                    .map(lol_html::html_content::Attribute::name)
                    .collect();
                for name in names.iter().filter(|n| {
                    n.starts_with("on") || n.as_str() == "style" || n.as_str() == "srcdoc"
                }) {
                    e.remove_attribute(name);
                }
                Ok(())
            }),
        ],
        ..RewriteStrSettings::new()
    };
    rewrite_str(page, settings).unwrap_or_default()
}

/// A page without the name of any customer in what is read of it, be it a note of somebody:
/// of names of more than a word, which mean nobody else.
pub(super) fn unnamed(page: String, catalogue: &Catalogue) -> String {
    /// What of an element is read.
    const READ: [&str; 3] = ["aria-label", "title", "alt"];
    let Some(names) = Written::in_text(catalogue, &page) else {
        return page;
    };
    let mut told = String::new();
    let settings = RewriteStrSettings {
        element_content_handlers: vec![
            text!("*:not(style)", |part| {
                // Text may come in parts, and a name on the joint of two.
                told.push_str(part.as_str());
                if !part.last_in_text_node() {
                    part.remove();
                    return Ok(());
                }
                let whole = std::mem::take(&mut told);
                part.replace(&names.without(&whole).unwrap_or(whole), Html::Html);
                Ok(())
            }),
            element!("*", |e| {
                let attributes = e.attributes().iter();
                let read = attributes.map(|a| (a.name(), a.value()));
                let read = read
                    .filter(|(name, _)| READ.contains(&name.as_str()) || name.starts_with("data-"));
                for (name, value) in read.collect::<Vec<_>>() {
                    if let Some(without) = names.without(&value) {
                        e.set_attribute(&name, &without)?;
                    }
                }
                Ok(())
            }),
        ],
        ..RewriteStrSettings::new()
    };
    rewrite_str(&page, settings).unwrap_or_default()
}

/// A picture of ours as data.
fn inside(src: &str) -> Option<String> {
    let name = src.strip_prefix("/assets/")?.split_once('/')?.1;
    let data = assets::file(name)?;
    let kind = mime_guess::from_path(name).first_or_octet_stream();
    Some(format!("data:{kind};base64,{}", STANDARD.encode(data)))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nothing_of_a_page_leads_anywhere_or_runs() {
        let page = r##"<html><head><link rel="stylesheet" href="/x.css"><script src="/a.js"></script></head>
            <body onload="x()"><header class="masthead"><a class="masthead-me">Runa</a><form class="units"></form></header><nav><a href="/hulls">hulls</a></nav><main><a href="/hulls/k?mass=88">words</a> <a href="#part">here</a>
            <form method="post" action="/x"><input name="a" value="secret"><button class="tick-box"><span></span></button><button>Save</button></form>
            <img src="/photos/1.jpg"><p style="color:red" onclick="y()">text</p><svg><use href="#pat"/></svg></main></body></html>"##;
        let alone = stands_alone(page, true);
        for gone in [
            "<script",
            "<link",
            "<nav",
            "<form",
            "<input",
            "secret",
            "Save",
            "onload",
            "onclick",
            "/hulls",
            "/photos",
            "action=",
            "color:red",
            "Runa",
            "<div class=\"units\"",
        ] {
            assert!(!alone.contains(gone), "{gone}");
        }
        for stays in [
            "words",
            "href=\"#part\"",
            "<span class=\"tick-box\"",
            "text",
            "<style>",
            "handed out to be read",
            "<use href=\"#pat\"",
        ] {
            assert!(alone.contains(stays), "{stays}");
        }
        assert!(alone.contains("data:font/woff2;base64,"));
        let style = assets::file("app.css").unwrap();
        let style = String::from_utf8(style).unwrap();
        assert!(style.matches(ON_PAPER).count() > 5 && !alone.contains(ON_PAPER));
        // Nothing is left out on paper by another condition.
        for layout in style.split("@media print{").skip(1) {
            let until = layout.find("}}").unwrap();
            assert!(
                !layout[..until].contains("display:none"),
                "{}",
                &layout[..until]
            );
        }
        // Every address in the style is inside it.
        assert!(!STYLE.contains("url(fonts"));
    }
}
