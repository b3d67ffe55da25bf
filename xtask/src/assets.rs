//! What the browser gets: compiled CSS, htmx, the font, the icons. Built with Node, committed, checked for staleness,
//! so that `cargo demo` needs no Node.

use std::fs;
use std::path::{Path, PathBuf};

use crate::run::{root, run};

const ASSETS: &str = "crates/mend-web/assets";
/// Icons that the templates use.
const ICONS: &[&str] =
    &["arrow-right", "check", "flame", "plus", "printer", "redo-2", "triangle-alert", "undo-2", "upload"];
/// Copied as they are: from e2e/node_modules, to the assets.
const COPIES: &[(&str, &str)] = &[
    ("htmx.org/dist/htmx.min.js", "vendor/htmx.min.js"),
    ("@fontsource-variable/archivo/files/archivo-latin-standard-normal.woff2", "vendor/archivo-5.3.0.woff2"),
    ("htmx.org/LICENSE", "vendor/htmx.LICENSE.txt"),
    ("@fontsource-variable/archivo/LICENSE", "vendor/archivo.LICENSE.txt"),
    ("lucide-static/LICENSE", "vendor/icons.LICENSE.txt"),
];

/// Builds the assets in place.
pub(crate) fn build() -> Result<(), String> {
    build_into(&root().join(ASSETS))
}

/// Builds them aside and compares.
pub(crate) fn check() -> Result<(), String> {
    let aside = root().join("target/assets-check");
    build_into(&aside)?;
    let names = COPIES.iter().map(|(_, to)| *to).chain(["app.css", "vendor/icons.svg"]);
    let same = |name: &&str| fs::read(aside.join(name)).ok() == fs::read(root().join(ASSETS).join(name)).ok();
    let stale: Vec<&str> = names.filter(|name| !same(name)).collect();
    if stale.is_empty() {
        return Ok(());
    }
    Err(format!("stale assets: {}; run `cargo xtask assets` and commit", stale.join(", ")))
}

fn build_into(folder: &Path) -> Result<(), String> {
    let vendor = folder.join("vendor");
    fs::create_dir_all(&vendor).map_err(|e| format!("{}: {e}", vendor.display()))?;
    let packages = root().join("e2e/node_modules");
    for (from, to) in COPIES {
        let (from, to) = (packages.join(from), folder.join(to));
        fs::copy(&from, &to).map_err(|e| format!("{}: {e}", from.display()))?;
    }
    fs::write(vendor.join("icons.svg"), icons(&packages)?).map_err(|e| e.to_string())?;
    let to: PathBuf = folder.join("app.css");
    let to = std::path::absolute(&to).map_err(|e| e.to_string())?;
    let words =
        ["tailwindcss", "--input", "../crates/mend-web/styles/app.css", "--output", &to.to_string_lossy(), "--minify"];
    run("e2e", "npx", &words)
}

/// One sprite of all icons, a symbol each.
fn icons(packages: &Path) -> Result<String, String> {
    let mut sprite = String::from("<svg xmlns=\"http://www.w3.org/2000/svg\">\n");
    for name in ICONS {
        let file = packages.join(format!("lucide-static/icons/{name}.svg"));
        let text = fs::read_to_string(&file).map_err(|e| format!("{}: {e}", file.display()))?;
        let inner = text
            .split_once("<svg")
            .and_then(|(_, rest)| rest.split_once('>'))
            .and_then(|(_, rest)| rest.split_once("</svg>"));
        let (inner, _) = inner.ok_or_else(|| format!("{name} is no icon"))?;
        let inner = inner.split_whitespace().collect::<Vec<_>>().join(" ");
        sprite.push_str(&format!("<symbol id=\"{name}\" viewBox=\"0 0 24 24\">{inner}</symbol>\n"));
    }
    Ok(sprite + "</svg>\n")
}
