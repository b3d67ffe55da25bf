//! What the files of a crate import, resolved to the files that define it. Paths are read from `use` trees and from paths
//! that stand in the code; comments and tests are left out.

use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;

/// A module's path within its crate: `["heat", "rig"]`; the crate's root is empty.
pub(crate) type Module = Vec<String>;

/// A file of the crate.
#[derive(Debug, Default)]
pub(crate) struct CrateFile {
    /// Its code without comments and tests.
    pub(crate) code: String,
    /// What it imports by `use`, each with the name it has here.
    uses: Vec<Import>,
}

#[derive(Debug)]
struct Import {
    path: Module,
    name: String,
    public: bool,
}

/// All files of a crate by module.
#[derive(Debug, Default)]
pub(crate) struct Sources(pub(crate) BTreeMap<Module, CrateFile>);

impl Sources {
    /// Reads a crate's `src` folder.
    pub(crate) fn read(folder: &Path) -> Result<Self, String> {
        let mut sources = Self::default();
        sources.read_folder(folder, &Vec::new())?;
        Ok(sources)
    }

    fn read_folder(&mut self, folder: &Path, module: &Module) -> Result<(), String> {
        for entry in std::fs::read_dir(folder).map_err(|e| format!("{}: {e}", folder.display()))? {
            let path = entry.map_err(|e| e.to_string())?.path();
            let stem = path.file_stem().unwrap_or_default().to_string_lossy().into_owned();
            if path.is_dir() {
                self.read_folder(&path, &[module.as_slice(), &[stem]].concat())?;
            } else if path.extension().is_some_and(|e| e == "rs") {
                let own = match stem.as_str() {
                    "mod" | "lib" | "main" => module.clone(),
                    _ => [module.as_slice(), &[stem]].concat(),
                };
                let text = std::fs::read_to_string(&path).map_err(|e| e.to_string())?;
                self.add(own, &text);
            }
        }
        Ok(())
    }

    /// Adds a file.
    pub(crate) fn add(&mut self, module: Module, text: &str) {
        let code = without_comments(without_tests(text));
        let uses = uses(&code);
        self.0.insert(module, CrateFile { code, uses });
    }

    /// The modules that a file needs, itself not among them. What it only hands on (`pub use`) it does not need.
    pub(crate) fn needs(&self, module: &Module) -> BTreeSet<Module> {
        let Some(source) = self.0.get(module) else { return BTreeSet::new() };
        let named = source.uses.iter().filter(|u| !u.public).map(|u| self.full(module, &u.path));
        let inline =
            inline_paths(&without_uses(&source.code)).into_iter().filter_map(|path| self.absolute(module, &path));
        let found = named.chain(inline).filter_map(|path| self.home(&path, 0));
        found.filter(|home| home != module).collect()
    }

    /// A path in the code as a full one; none where its first word is neither a module nor imported.
    fn absolute(&self, module: &Module, path: &[String]) -> Option<Module> {
        if matches!(path[0].as_str(), "crate" | "self" | "super") {
            return Some(self.full(module, path));
        }
        let imported = self.0[module].uses.iter().find(|u| u.name == path[0]);
        let first = match imported {
            Some(found) => self.full(module, &found.path),
            None => [module.as_slice(), &path[..1]].concat(),
        };
        self.0.contains_key(&first).then(|| [first.as_slice(), &path[1..]].concat())
    }

    /// A path as written in a module, from the crate's root: `super`, `self` and modules of its own are done away with.
    fn full(&self, module: &Module, path: &[String]) -> Module {
        let own = path.first().map(|first| [module.as_slice(), std::slice::from_ref(first)].concat());
        match path.first().map(String::as_str) {
            Some("crate") => path[1..].to_vec(),
            Some("self") => [module.as_slice(), &path[1..]].concat(),
            Some("super") => {
                let up = path.iter().take_while(|word| *word == "super").count();
                [&module[..module.len().saturating_sub(up)], &path[up..]].concat()
            }
            _ if own.is_some_and(|own| self.0.contains_key(&own)) => [module.as_slice(), path].concat(),
            _ => path.to_vec(),
        }
    }

    /// The module that defines what a path names, through what is handed on.
    fn home(&self, path: &[String], depth: usize) -> Option<Module> {
        let deepest = (0..=path.len()).rev().map(|k| &path[..k]).find(|module| self.0.contains_key(*module))?;
        let Some(item) = path.get(deepest.len()) else { return Some(deepest.to_vec()) };
        let handed_on = self.0[deepest].uses.iter().find(|u| u.public && u.name == *item);
        match handed_on {
            Some(found) if depth < 5 => self.home(&self.full(&deepest.to_vec(), &found.path), depth + 1),
            _ => (!deepest.is_empty()).then(|| deepest.to_vec()),
        }
    }
}

fn without_comments(text: &str) -> String {
    text.lines().map(|line| line.split("//").next().unwrap_or_default()).collect::<Vec<_>>().join("\n")
}

/// Where the `use` of a statement stands, if it is one.
fn use_at(statement: &str) -> Option<usize> {
    statement.rfind("use ").filter(|at| is_statement(&statement[..*at]))
}

fn without_uses(code: &str) -> String {
    let rest = code.split(';').map(|statement| use_at(statement).map_or(statement, |at| &statement[..at]));
    rest.collect::<Vec<_>>().join(";")
}

/// Every `use` of a file.
fn uses(code: &str) -> Vec<Import> {
    let mut found = Vec::new();
    for statement in code.split(';') {
        let Some(at) = use_at(statement) else { continue };
        let public = statement[..at].trim_end().lines().last().is_some_and(|line| line.trim_start().starts_with("pub"));
        for leaf in leaves(&statement[at + 4..]) {
            let (path, alias) = leaf.split_once(" as ").unwrap_or((&leaf, ""));
            let mut words: Module = path.split("::").map(|word| word.trim().to_owned()).collect();
            if words.last().is_some_and(|word| word == "self") {
                words.pop();
            }
            let name =
                if alias.is_empty() { words.last().cloned().unwrap_or_default() } else { alias.trim().to_owned() };
            found.push(Import { path: words, name, public });
        }
    }
    found
}

/// Nothing but a visibility and blanks before it on its line?
fn is_statement(before: &str) -> bool {
    let line = before.lines().last().unwrap_or_default().trim();
    before.is_empty() || before.ends_with('\n') || line.is_empty() || (line.starts_with("pub") && !line.contains('{'))
}

/// A `use` tree spread out: `a::{b, c::D}` is `a::b` and `a::c::D`.
fn leaves(tree: &str) -> Vec<String> {
    let tree = tree.trim();
    let Some((before, inside)) = tree.split_once('{') else { return vec![tree.to_owned()] };
    let inside = inside.rsplit_once('}').map_or(inside, |(inside, _)| inside);
    let (mut parts, mut depth, mut part) = (Vec::new(), 0, String::new());
    for c in inside.chars() {
        depth += i32::from(c == '{') - i32::from(c == '}');
        if c == ',' && depth == 0 {
            parts.push(std::mem::take(&mut part));
        } else {
            part.push(c);
        }
    }
    parts.push(part);
    let parts = parts.iter().filter(|part| !part.trim().is_empty());
    parts.flat_map(|part| leaves(part)).map(|leaf| format!("{}{leaf}", before.trim())).collect()
}

/// Paths of at least two words that stand in the code.
fn inline_paths(code: &str) -> Vec<Vec<String>> {
    let is_word = |c: char| c.is_alphanumeric() || c == '_' || c == ':';
    let words = code.split(|c: char| !is_word(c)).filter(|word| word.contains("::") && !word.starts_with(':'));
    let path = |word: &str| word.split("::").filter(|part| !part.is_empty()).map(str::to_owned).collect::<Vec<_>>();
    words.map(path).filter(|path| path.len() > 1 && path[0].starts_with(char::is_lowercase)).collect()
}

/// What stands above a file's tests: nothing of a file that says of itself that it is for tests only.
fn without_tests(text: &str) -> &str {
    text.split("#[cfg(test)]").next().filter(|_| !text.contains("\n#![cfg(test)]")).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn module(path: &str) -> Module {
        path.split("::").map(str::to_owned).collect()
    }

    #[test]
    fn trees_supers_and_what_is_handed_on_lead_to_the_file_that_defines_it() {
        let mut sources = Sources::default();
        sources.add(module("board"), "mod joint;\npub use joint::Joint;\npub fn area() {}\n");
        sources.add(module("board::joint"), "use super::area;\npub struct Joint;\n");
        sources.add(module("heat"), "use crate::{board::{Joint, area}, units};\n// use crate::shop::Stop;\n");
        sources.add(
            module("shop"),
            "fn walk() { crate::board::joint::reach(); std::mem::take(x); }\n#[cfg(test)]\nuse crate::heat;",
        );
        let needs = |sources: &Sources, path: &str| {
            sources.needs(&module(path)).iter().map(|m| m.join("::")).collect::<Vec<_>>()
        };
        assert_eq!(needs(&sources, "heat"), ["board", "board::joint"]);
        assert_eq!(needs(&sources, "board::joint"), ["board"]);
        assert_eq!(needs(&sources, "shop"), ["board::joint"]);
        assert!(needs(&sources, "board").is_empty(), "handing on is no need");
        sources.add(module("fixture"), "//! For tests.\n#![cfg(test)]\nuse crate::board;");
        assert!(needs(&sources, "fixture").is_empty(), "a file of tests");
    }
}
