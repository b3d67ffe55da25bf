//! Installs what is missing: Debian's Chromium by apt, Node packages by npm.

use crate::run::{has, root, run_with};

/// Chromium for the browser tests, pdftoppm to look at printed pages.
const DEBIAN_PACKAGES: &[&str] = &["chromium", "poppler-utils"];

/// Node packages of e2e, as locked.
pub(crate) fn node_packages() -> Result<(), String> {
    let lock = root().join("e2e/package-lock.json");
    let installed = root().join("e2e/node_modules/.package-lock.json");
    let time = |file: &std::path::Path| file.metadata().and_then(|m| m.modified()).ok();
    if time(&installed) >= time(&lock) && installed.exists() {
        return Ok(());
    }
    run_with("e2e", "npm", &["ci", "--no-audit", "--no-fund"], &[("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")])
}

/// Debian packages, where they are missing.
pub(crate) fn browser() -> Result<(), String> {
    if has("chromium", "--version") && has("pdftoppm", "-v") {
        return Ok(());
    }
    let quiet = [("DEBIAN_FRONTEND", "noninteractive")];
    let (program, first): (&str, &[&str]) =
        if has("sudo", "--version") { ("sudo", &["apt-get"]) } else { ("apt-get", &[]) };
    let apt = |words: &[&str]| run_with(".", program, &[first, words].concat(), &quiet);
    apt(&["update"])?;
    apt(&[&["install", "-y", "--no-install-recommends"], DEBIAN_PACKAGES].concat())
}
