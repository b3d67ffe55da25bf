//! What each address wants of who asks. An address that is listed nowhere is the owner's alone.

use axum::http::Method;
use mend_core::shop::people::Permission;
use mend_core::shop::people::Permission::{Bench, BenchSettings, Counter, Enter, Shop};

/// What an address and all below it want.
struct AccessRule {
    under: &'static str,
    /// To look.
    read: Permission,
    /// To change.
    write: Permission,
}

const fn rule(under: &'static str, read: Permission, write: Permission) -> AccessRule {
    AccessRule { under, read, write }
}

/// Addresses that everybody may, signed in or not.
const OPEN: [&str; 5] = ["/assets", "/sign-in", "/sign-out", "/welcome", "/scale"];

/// The longest that an address lies under counts.
const RULES: [AccessRule; 24] = [
    rule("/help", Enter, Enter),
    rule("/people/me", Enter, Enter),
    rule("/people", Shop, Shop),
    rule("/settings", Shop, Shop),
    rule("/stations", Bench, BenchSettings),
    rule("/equipment", Bench, BenchSettings),
    rule("/instruments", Bench, BenchSettings),
    rule("/alloys", Bench, Bench),
    rule("/boards", Bench, Bench),
    rule("/boards/photos", Enter, Bench),
    rule("/review", Bench, Bench),
    rule("/customers", Counter, Counter),
    rule("/customers/erase", Shop, Shop),
    rule("/practice", Bench, Bench),
    rule("/stock", Counter, Counter),
    rule("/schedule", Enter, Counter),
    rule("/jobs/{id}/quote", Enter, Counter),
    rule("/jobs/{id}/parts", Enter, Counter),
    rule("/jobs/{id}", Bench, Bench),
    rule("/jobs/{id}/intake", Enter, Counter),
    rule("/jobs/{id}/label", Enter, Counter),
    rule("/jobs/{id}/photos", Enter, Counter),
    rule("/jobs/{id}/handover", Enter, Counter),
    rule("/jobs/{id}/look/extras/{extra}", Enter, Counter),
];

/// Lists, at exactly these addresses.
const LISTS: [AccessRule; 3] =
    [rule("/", Enter, Enter), rule("/jobs", Enter, Counter), rule("/jobs/{id}", Enter, Counter)];

/// What a route wants; none: nothing.
pub(crate) fn wanted(method: &Method, route: &str) -> Option<Permission> {
    if route.is_empty() || OPEN.iter().any(|open| lies_under(route, open)) {
        return None;
    }
    let list = LISTS.iter().find(|list| list.under == route);
    let rule = list.or_else(|| RULES.iter().filter(|rule| lies_under(route, rule.under)).max_by_key(|r| r.under.len()));
    let reads = matches!(*method, Method::GET | Method::HEAD);
    Some(rule.map_or(Shop, |rule| if reads { rule.read } else { rule.write }))
}

fn lies_under(route: &str, under: &str) -> bool {
    route.strip_prefix(under).is_some_and(|rest| rest.is_empty() || rest.starts_with('/'))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_listed_nowhere_is_the_owners() {
        assert_eq!(wanted(&Method::GET, "/launch"), Some(Shop));
        assert_eq!(wanted(&Method::GET, "/settings-old"), Some(Shop));
        assert_eq!(wanted(&Method::GET, "/assets/{*name}"), None);
    }

    #[test]
    fn the_nearest_rule_counts() {
        assert_eq!(wanted(&Method::GET, "/jobs/{id}"), Some(Enter));
        assert_eq!(wanted(&Method::GET, "/jobs/{id}/heat"), Some(Bench));
        assert_eq!(wanted(&Method::POST, "/jobs/{id}/intake"), Some(Counter));
        assert_eq!(wanted(&Method::POST, "/stations/{id}"), Some(BenchSettings));
        assert_eq!(wanted(&Method::GET, "/people/me"), Some(Enter));
    }

    /// Every route that the sources name has a rule: one that is added is thought about.
    #[test]
    fn every_route_of_the_application_has_a_rule() {
        let mut routes = Vec::new();
        collect(std::path::Path::new(concat!(env!("CARGO_MANIFEST_DIR"), "/src")), &mut routes);
        assert!(routes.len() > 100, "{}", routes.len());
        for route in routes {
            let listed = OPEN.iter().any(|open| lies_under(&route, open))
                || LISTS.iter().any(|list| list.under == route)
                || RULES.iter().any(|rule| lies_under(&route, rule.under));
            assert!(listed, "{route}");
        }
    }

    fn collect(folder: &std::path::Path, routes: &mut Vec<String>) {
        for entry in std::fs::read_dir(folder).expect("the sources are there").flatten() {
            let path = entry.path();
            if path.is_dir() {
                collect(&path, routes);
            } else if path.file_name().is_some_and(|name| name != "access.rs") {
                let text = std::fs::read_to_string(&path).unwrap_or_default();
                let named = text.split(".route(\"").skip(1).filter_map(|rest| rest.split('"').next());
                routes.extend(named.map(str::to_owned));
            }
        }
    }
}
