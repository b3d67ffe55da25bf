//! Circles between files: two files that need each other, straight or by way of others, are one file or have a type in the
//! wrong place.

use std::collections::{BTreeMap, BTreeSet};

use super::imports::{Module, Sources};

/// Names every circle: a shortest way round, `a -> b -> a`.
pub(crate) fn circles(sources: &Sources) -> Vec<String> {
    let needs: BTreeMap<&Module, BTreeSet<Module>> = sources.0.keys().map(|m| (m, sources.needs(m))).collect();
    let mut told = BTreeSet::new();
    let mut found = Vec::new();
    for start in needs.keys() {
        let Some(round) = way_round(&needs, start) else { continue };
        let members: BTreeSet<Module> = round.iter().cloned().collect();
        if told.insert(members) {
            found.push(round.iter().map(|m| m.join("::")).collect::<Vec<_>>().join(" -> "));
        }
    }
    found
}

/// A shortest way from a file back to itself, breadth first.
fn way_round(needs: &BTreeMap<&Module, BTreeSet<Module>>, start: &Module) -> Option<Vec<Module>> {
    let mut from: BTreeMap<Module, Module> = BTreeMap::new();
    let mut next: Vec<Module> = vec![start.clone()];
    while let Some(at) = (!next.is_empty()).then(|| next.remove(0)) {
        for other in needs.get(&at)? {
            if other == start {
                let mut way = vec![start.clone(), at.clone()];
                while let Some(before) = from.get(way.last()?).cloned() {
                    way.push(before);
                }
                way.reverse();
                way.dedup();
                way.push(start.clone());
                way.dedup();
                return Some(way);
            }
            if !from.contains_key(other) && needs.contains_key(other) {
                from.insert(other.clone(), at.clone());
                next.push(other.clone());
            }
        }
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_circle_is_named_once_by_its_shortest_way() {
        let mut sources = Sources::default();
        let file = |name: &str| vec![name.to_owned()];
        sources.add(file("a"), "use crate::b::B;");
        sources.add(file("b"), "use crate::c::C;");
        sources.add(file("c"), "use crate::{a::A, d::D};");
        sources.add(file("d"), "pub struct D;");
        assert_eq!(circles(&sources).len(), 1);
        assert!(circles(&sources)[0].contains("a -> b -> c -> a"), "{:?}", circles(&sources));
    }
}
