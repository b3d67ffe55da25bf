//! The example bundle compared and searched: what is written names everything that the format promises.
#![allow(clippy::expect_used)]

use mend_core::method::MethodFamily;
use mend_core::method::reason::Obstacle;
use mend_core::planning::compare::compare;
use mend_core::planning::difficulty::difficulty;
use mend_core::planning::search::request::{Effort, SearchRequest};
use mend_core::planning::search::search;
use mend_core::watch::Watch;
use mend_formats::bundle::{self, Bundle};
use mend_formats::comparison::{FORMAT, SEARCH_FORMAT, feed, write, write_searches};
use serde_json::Value;

fn example() -> Bundle {
    bundle::parse(include_bytes!("../../../docs/formats/bundle.example.json")).expect("the example can be read")
}

#[test]
fn a_comparison_is_written_with_every_family_once() {
    let bundle = example();
    let found = compare(&bundle.subject(), bundle.ambient, &Watch::new()).expect("can be compared");
    let reading = difficulty(&bundle.subject(), found.best().into(), 0);
    let text = write(&found, &reading).expect("can be written");
    let file: Value = serde_json::from_str(&text).expect("JSON");
    assert_eq!(file["format"], FORMAT);
    let of = |list: &str| file[list].as_array().expect("a list").clone();
    let (lanes, ruled) = (of("lanes"), of("ruled_out"));
    let mut names: Vec<String> = lanes.iter().chain(&ruled).map(|f| f["family"].to_string()).collect();
    names.sort();
    names.dedup();
    assert_eq!(names.len(), MethodFamily::ALL.len());
    assert!(ruled.iter().all(|family| family["why"][0]["kind"].is_string()));
    for lane in &lanes {
        for field in ["chance", "release", "bench", "total_s", "uses", "settings", "search"] {
            assert!(!lane[field].is_null(), "{field} of {}", lane["family"]);
        }
        assert!(lane["search"]["candidates"].as_u64().is_some_and(|count| count > 0));
    }
    let best = found.best().expect("the example can be done");
    assert_eq!(file["recommended"], best.choice.family.key());
    // What a lane is fed and set to is what a bundle takes.
    let again = serde_json::from_value::<mend_core::heat::recipe::Recipe>(lanes[0]["settings"].clone());
    assert_eq!(again.expect("settings of a bundle"), found.lanes[0].plan.recipe);
    assert_eq!(feed(&best.composition).is_some(), best.composition.feed.is_some());
}

#[test]
fn a_search_is_written_and_a_family_that_does_not_apply_says_why() {
    let (bundle, watch) = (example(), Watch::new());
    let subject = bundle.subject();
    let sought = SearchRequest { subject: &subject, ambient: bundle.ambient, effort: Effort::Look, watch: &watch };
    let found = search(&sought, MethodFamily::FromBelow.method()).expect("can be searched");
    let why = vec![Obstacle::NoPreheater];
    let text = write_searches(&[(MethodFamily::FromBelow, Ok(found)), (MethodFamily::PreheaterAndAir, Err(why))])
        .expect("written");
    let file: Value = serde_json::from_str(&text).expect("JSON");
    assert_eq!(file["format"], SEARCH_FORMAT);
    let families = &file["families"];
    assert!(families[0]["search"]["limited_by"]["how"].is_string(), "{}", families[0]["search"]);
    assert!(families[0].get("why_not").is_none() && families[1].get("search").is_none());
    assert_eq!(families[1]["why_not"][0]["kind"], "no-preheater");
}
