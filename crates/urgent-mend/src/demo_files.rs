//! The demo shop, out of the binary.

use std::collections::BTreeMap;

use mend_web::filling::ShopFiles;
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../../demo"]
#[include = "*.json"]
#[include = "*.jpg"]
struct Demo;

/// The files of the demo shop.
pub(crate) fn shop_files() -> ShopFiles {
    let (boards, stations, jobs) = (folder("boards/"), folder("stations/"), folder("jobs/"));
    let [equipment, settings, counter] = ["equipment", "shop", "counter"].map(|name| folder("").remove(name));
    let (photos, drafts, openings) = (pictures("photos/"), folder("drafts/"), folder("openings/"));
    ShopFiles { boards, equipment, settings, stations, photos, drafts, openings, jobs, counter }
}

fn folder(prefix: &str) -> BTreeMap<String, String> {
    let names = Demo::iter().filter(|name| name.starts_with(prefix) && name.ends_with(".json"));
    let file = |name: std::borrow::Cow<'static, str>| {
        let text = String::from_utf8(Demo::get(&name)?.data.into_owned()).ok()?;
        Some((name[prefix.len()..].trim_end_matches(".json").to_owned(), text))
    };
    names.filter_map(file).collect()
}

fn pictures(prefix: &str) -> BTreeMap<String, Vec<u8>> {
    let names = Demo::iter().filter(|name| name.starts_with(prefix) && name.ends_with(".jpg"));
    names.filter_map(|name| Some((name[prefix.len()..].to_owned(), Demo::get(&name)?.data.into_owned()))).collect()
}
