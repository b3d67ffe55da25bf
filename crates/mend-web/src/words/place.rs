//! Where a finding is, as the page labels the field: `preheat[1].flow_lpm` and `stage-1-flow` are both "stage 2, flow". A file
//! and the command line keep the path.

use mend_core::shop::IntakeField;

use super::quantity::capital;

/// Fields by the last words of their path in our formats, and of their name in a form.
const FIELDS: &[(&[&str], &str)] = &[
    (&["set_c", "set"], "air"),
    (&["set-low"], "lowest set temperature"),
    (&["set-high"], "highest set temperature"),
    (&["flow_lpm", "flow"], "flow"),
    (&["flow-low"], "least flow"),
    (&["flow-high"], "most flow"),
    (&["nozzle_mm", "nozzle"], "nozzle"),
    (&["nozzles_mm", "nozzles"], "nozzles"),
    (&["heater_w", "heater"], "heater"),
    (&["iron.most_w", "iron-most"], "iron, at most"),
    (&["iron.to_tip_k_per_w", "iron-to-tip"], "from its heater to the tip"),
    (&["nozzle_air.share"], "share of what is set"),
    (&["nozzle_air.loss_w_per_k"], "loss of the nozzle"),
    (&["distance_mm", "distance"], "distance"),
    (&["aim_mm", "aim-x", "aim-y"], "aim off"),
    (&["approach.from_mm", "approach-from"], "comes near from"),
    (&["approach.over_s", "approach-over"], "comes near within"),
    (&["tilt.lean_deg", "lean"], "leans by"),
    (&["tilt.towards_deg", "towards"], "blows towards"),
    (&["longest_s", "longest"], "maximum heating time"),
    (&["lasts_s", "lasts"], "lasts"),
    (&["change_s", "change"], "change over"),
    (&["preheater.set_c", "preheater-set"], "preheater"),
    (&["preheater.side_mm", "preheater-side"], "side of the preheater"),
    (&["preheater-coupling"], "preheater through"),
    (&["preheater-face"], "preheater at"),
    (&["iron.set_c", "iron-set"], "iron"),
    (&["iron.tip_mm", "iron-tip"], "iron tip"),
    (&["iron.row", "iron-row"], "iron held on"),
    (&["iron.dwell_s", "iron-dwell"], "iron on each place"),
    (&["second_iron.set_c", "second-iron-set"], "second iron"),
    (&["second_iron.tip_mm", "second-iron-tip"], "tip of the second iron"),
    (&["second_iron.row", "second-iron-row"], "second iron held on"),
    (&["second_iron.dwell_s", "second-iron-dwell"], "second iron on each place"),
    (&["begins_at_c", "begins-at"], "board begins at"),
    (&["purpose"], "the part is"),
    (&["bridge.wire_mm", "bridge-wire"], "wire of the bridge"),
    (&["bridge.bead_mm2", "bridge-bead"], "bead of the bridge"),
    (&["width_mm"], "width"),
    (&["depth_mm"], "depth"),
    (&["height_mm"], "height"),
    (&["gap_mm"], "gap"),
    (&["at_mm"], "position"),
    (&["thickness_mm"], "thickness"),
    (&["copper.layers"], "copper layers"),
    (&["copper.planes"], "planes"),
    (&["copper.foil_um"], "foil"),
    (&["copper.plane_coverage"], "copper on a plane"),
    (&["copper.signal_coverage"], "copper on a signal layer"),
    (&["copper.vias_per_mm2"], "plated holes"),
    (&["copper.stiffener.thickness_mm", "stiffener_mm"], "thickness of the stiffener"),
    (&["copper.spread"], "how far the copper may be off"),
    (&["wire_mm"], "wire"),
    (&["flux_share"], "flux in the wire"),
    (&["mixing_fraction"], "share of a joint"),
    (&["want"], "wanted melting point"),
    (&["year"], "board built in"),
    (&["keep_intact"], "keep intact"),
    (&["tips", "tips_mm"], "widths of iron tips"),
    (&["station"], "station"),
    (&["settings"], "settings"),
    (&["preheat"], "preheat stages"),
    (&["shields"], "shields"),
    (&["outline"], "outline"),
    (&["name"], "name"),
    (&["file"], "file"),
    (&["photograph"], "photograph"),
];

/// What the page calls a place; a name of the shop's own stays as it is.
pub(super) fn label(place: &str) -> String {
    let named = match row(place) {
        None => known(place),
        Some((of, "")) => Some(of),
        Some((of, field)) => Some(format!("{of}, {}", known(field).unwrap_or_else(|| field.to_owned()))),
    };
    named.map_or_else(|| place.to_owned(), |named| capital(&named))
}

fn known(field: &str) -> Option<String> {
    let bare = field.split('[').next().unwrap_or(field);
    let found = FIELDS.iter().find(|(keys, _)| keys.contains(&bare)).map(|(_, label)| (*label).to_owned());
    let of_intake = || IntakeField::named(bare).map(|field| field.label.to_lowercase());
    found.or_else(of_intake)
}

/// The row of a list that a place is in, counted from one, and the field in it.
fn row(place: &str) -> Option<(String, &str)> {
    let lists = [("preheat[", "stage"), ("stage-", "stage"), ("shields[", "shield"), ("shield-", "shield")];
    let (rest, name) = lists.iter().find_map(|(start, name)| Some((place.strip_prefix(start)?, name)))?;
    let digits = rest.len() - rest.trim_start_matches(|c: char| c.is_ascii_digit()).len();
    let k: usize = rest[..digits].parse().ok()?;
    let field = rest[digits..].trim_start_matches(']').trim_start_matches(['.', '-']);
    Some((format!("{name} {}", k + 1), field))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_place_is_called_what_its_page_calls_it() {
        for (place, called) in [
            ("set_c", "Air"),
            ("preheat[1].flow_lpm", "Stage 2, flow"),
            ("stage-1-flow", "Stage 2, flow"),
            ("stage-0-preheater-set", "Stage 1, preheater"),
            ("shields[0].width_mm", "Shield 1, width"),
            ("shields[2]", "Shield 3"),
            ("shield-0-amount", "Shield 1, amount"),
            ("nozzles_mm[3]", "Nozzles"),
            ("price", "Price agreed"),
            ("keyboard latch", "keyboard latch"),
            ("stage-left", "stage-left"),
        ] {
            assert_eq!(label(place), called, "{place}");
        }
    }
}
