//! Every place that ARCHITECTURE.md names is there: a map that leads nowhere is worse than none.

use std::path::Path;

use crate::run::root;

const MAP: &str = "ARCHITECTURE.md";
/// Folders that hold nothing of ours.
const FOREIGN: &[&str] = &["target", "node_modules", ".git", "test-results"];
/// What ends like this is a place.
const ENDINGS: &[&str] = &["/", ".rs", ".js", ".mjs", ".css", ".html", ".sql", ".md"];

/// The places that are named and not there.
pub(super) fn lost() -> Result<Vec<String>, String> {
    let map = std::fs::read_to_string(root().join(MAP)).map_err(|e| format!("{MAP}: {e}"))?;
    let mut there = Vec::new();
    walk(&root(), "", &mut there)?;
    let lost = named(&map).filter(|place| !there.iter().any(|path| leads_to(place, path)));
    Ok(lost.map(|place| format!("{MAP} names {place}, which is not there")).collect())
}

/// Words in backticks that are places.
fn named(map: &str) -> impl Iterator<Item = &str> {
    let is_place = |word: &&str| {
        let plain = word.chars().all(|c| c.is_ascii_alphanumeric() || "_./*-".contains(c));
        plain && ENDINGS.iter().any(|ending| word.ends_with(ending) && word.len() > ending.len())
    };
    map.split('`').skip(1).step_by(2).filter(is_place)
}

/// Does a path end with a place, or have it as one of its folders? A star stands for anything but a slash.
fn leads_to(place: &str, path: &str) -> bool {
    let path = format!("/{path}");
    let Some((before, after)) = place.split_once('*') else {
        return path.ends_with(&format!("/{place}")) || place.ends_with('/') && path.contains(&format!("/{place}"));
    };
    path.match_indices(&format!("/{before}")).any(|(at, found)| {
        let rest = &path[at + found.len()..];
        rest.ends_with(after) && !rest.contains('/')
    })
}

/// All files, from the root on.
fn walk(folder: &Path, name: &str, found: &mut Vec<String>) -> Result<(), String> {
    let entries = std::fs::read_dir(folder).map_err(|e| format!("{}: {e}", folder.display()))?;
    for entry in entries.flatten() {
        let own = entry.file_name().to_string_lossy().into_owned();
        if FOREIGN.contains(&own.as_str()) {
            continue;
        }
        let path = if name.is_empty() { own } else { format!("{name}/{own}") };
        match entry.file_type() {
            Ok(kind) if kind.is_dir() => walk(&entry.path(), &path, found)?,
            _ => found.push(path),
        }
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn places_are_told_from_words_and_stars_stand_for_names() {
        let map = "one `heat/jet.rs`, `a b.rs`, `mod.rs`, `drafts/`, `Cargo.toml` and `assets/js/trace-*.js`";
        assert_eq!(named(map).collect::<Vec<_>>(), ["heat/jet.rs", "mod.rs", "drafts/", "assets/js/trace-*.js"]);
        assert!(leads_to("heat/jet.rs", "crates/mend-core/src/heat/jet.rs"));
        assert!(!leads_to("jet.rs", "src/blow_jet.rs"), "a name is whole");
        assert!(leads_to("drafts/", "src/pages/drafts/mod.rs"));
        assert!(leads_to("js/trace-*.js", "assets/js/trace-map.js") && !leads_to("js/trace-*.js", "js/trace-x/y.js"));
    }
}
