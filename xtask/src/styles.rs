//! Stylesheets that can't collide: a class that leads a selector is styled in one file alone. Two rooms once painted over each
//! other with a class of the same name.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

use crate::run::{root, run};

const TEMPLATES: &str = "crates/mend-web/templates";

/// Checks format and leading classes.
pub(crate) fn check() -> Result<(), String> {
    let mut files = Vec::new();
    stylesheets(&root().join(TEMPLATES), &mut files)?;
    let sheets = files.iter().map(|file| Ok((name(file), std::fs::read_to_string(file).map_err(|e| e.to_string())?)));
    let sheets = sheets.collect::<Result<Vec<(String, String)>, String>>()?;
    let twice = twice(&sheets);
    if !twice.is_empty() {
        return Err(format!("classes that two stylesheets begin a selector with:\n  {}", twice.join("\n  ")));
    }
    let formatted = [
        "prettier",
        "--check",
        "--log-level",
        "warn",
        "*.mjs",
        "{stories,bench}/*.mjs",
        "../crates/mend-web/{styles,templates}/**/*.css",
        "../crates/mend-web/assets/js/*.js",
    ];
    run("e2e", "npx", &formatted)
}

fn stylesheets(folder: &Path, files: &mut Vec<PathBuf>) -> Result<(), String> {
    for entry in std::fs::read_dir(folder).map_err(|e| e.to_string())? {
        let path = entry.map_err(|e| e.to_string())?.path();
        if path.is_dir() {
            stylesheets(&path, files)?;
        } else if path.extension().is_some_and(|e| e == "css") {
            files.push(path);
        }
    }
    files.sort();
    Ok(())
}

fn name(file: &Path) -> String {
    file.to_string_lossy().rsplit("templates/").next().unwrap_or_default().to_owned()
}

/// Each class that leads selectors in two files, with the files.
fn twice(sheets: &[(String, String)]) -> Vec<String> {
    let mut homes: BTreeMap<String, BTreeSet<&str>> = BTreeMap::new();
    for (file, text) in sheets {
        for class in text.lines().filter_map(leading_class) {
            homes.entry(class).or_default().insert(file);
        }
    }
    let shared = homes.into_iter().filter(|(_, files)| files.len() > 1);
    shared
        .map(|(class, files)| format!(".{class} in {}", files.into_iter().collect::<Vec<_>>().join(" and ")))
        .collect()
}

/// The first class of a line that is a selector, as the formatter lays them out: a selector a line, ending in `{` or a comma.
fn leading_class(line: &str) -> Option<String> {
    let line = line.trim();
    let selector = line.strip_suffix('{').or(line.strip_suffix(','))?;
    if selector.contains(':') && selector.contains(';') || selector.starts_with('@') || selector.starts_with("--") {
        return None;
    }
    let class = selector.split_once('.')?.1;
    let end = class.find(|c: char| !c.is_alphanumeric() && c != '-' && c != '_').unwrap_or(class.len());
    class.starts_with(char::is_alphabetic).then(|| class[..end].to_owned())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_class_that_two_files_lead_with_is_named_and_one_that_follows_is_not() {
        let sheet = |name: &str, text: &str| (name.to_owned(), text.to_owned());
        let a = sheet("a.css", "@layer components {\n  .head .dim,\n  .head a:hover {\n    flex: 1 1 0.5rem;\n  }\n}");
        let b = sheet("b.css", "  .foot .head {\n  }\n  .dim {\n  }");
        assert!(twice(&[a.clone(), b]).is_empty());
        assert_eq!(twice(&[a, sheet("c.css", "  .head {\n")]), [".head in a.css and c.css"]);
    }
}
