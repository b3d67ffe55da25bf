//! One word for one thing: no type name stands for two things in the workspace.

use std::collections::BTreeMap;

use super::imports::Sources;

/// Names every type that is defined twice, with the files that define it.
pub(crate) fn twice(crates: &[(String, Sources)]) -> Vec<String> {
    let mut homes: BTreeMap<&str, Vec<String>> = BTreeMap::new();
    for (room, sources) in crates {
        for (module, source) in &sources.0 {
            for name in source.code.lines().filter_map(defined) {
                homes.entry(name).or_default().push(format!("{room}::{}", module.join("::")));
            }
        }
    }
    let more = homes.into_iter().filter(|(_, homes)| homes.len() > 1);
    more.map(|(name, homes)| format!("{name} is the name of {} types: {}", homes.len(), homes.join(", "))).collect()
}

/// The type that a line defines at the top of a file, if it does.
fn defined(line: &str) -> Option<&str> {
    let bare = match line.strip_prefix("pub") {
        Some(rest) if rest.starts_with('(') => rest.split_once(") ")?.1,
        Some(rest) => rest.strip_prefix(' ')?,
        None => line,
    };
    let kinds = ["struct ", "enum ", "trait ", "type "];
    let rest = kinds.iter().find_map(|kind| bare.strip_prefix(kind))?;
    rest.split(|c: char| !c.is_alphanumeric() && c != '_').next()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_of_two_types_is_named_with_both_homes() {
        let mut core = Sources::default();
        core.add(vec!["heat".to_owned()], "pub struct Task {\n    pub tool: Tool,\n}\npub enum Tool {}\n");
        let mut web = Sources::default();
        web.add(vec!["desk".to_owned()], "pub(super) struct Task;\nimpl Trait for Task {\n    type Tool = u8;\n}\n");
        let found = twice(&[("core".to_owned(), core), ("web".to_owned(), web)]);
        assert_eq!(found, ["Task is the name of 2 types: core::heat, web::desk"]);
    }
}
