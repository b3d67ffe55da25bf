//! What a consumable is used up as, and how much of it a use takes.
//!
//! An item says it of itself among its attributes: `alloy: Sn63Pb37`, `use: braid`, `use: polyimide tape` with `width: 20 mm`,
//! `nozzle: 8 mm`.

use mend_core::finding::Finding;
use mend_core::heat::shield::ShieldKind;
use mend_core::planning::used_up::Use;

use super::{ItemAttribute, RULE, StockItem, StockKind};

/// Names of the attributes that say it.
const SAYS: [&str; 4] = ["alloy", "use", "width", "nozzle"];
/// A mL of flux weighs so much, g: rosin in alcohol (E, 0.9-1.1).
const FLUX_G_PER_ML: f64 = 1.0;
/// Widths within this are the same, mm.
const SAME_MM: f64 = 0.05;

/// What is used of a consumable.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum UsedAs {
    /// Solder wire of an alloy.
    Wire,
    /// Braid.
    Braid,
    /// Flux.
    Flux,
    /// Alcohol to clean with.
    Alcohol,
    /// Polyimide tape of a width.
    Polyimide,
    /// Aluminium tape of a width.
    AluminiumTape,
    /// Aluminium foil of a width.
    Foil,
    /// A nozzle of a width: its hours.
    Nozzle,
}

impl UsedAs {
    /// All of them.
    pub const ALL: [Self; 8] = [
        Self::Wire,
        Self::Braid,
        Self::Flux,
        Self::Alcohol,
        Self::Polyimide,
        Self::AluminiumTape,
        Self::Foil,
        Self::Nozzle,
    ];

    /// Its name, which most have in their attribute `use`.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Wire => "solder wire",
            Self::Braid => "braid",
            Self::Flux => "flux",
            Self::Alcohol => "alcohol",
            Self::Polyimide => "polyimide tape",
            Self::AluminiumTape => "aluminium tape",
            Self::Foil => "foil",
            Self::Nozzle => "nozzle",
        }
    }

    /// The one of a name.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.name().eq_ignore_ascii_case(name))
    }

    /// The attributes that say it; `of` is the alloy of a wire, the width of a tape or a nozzle.
    pub fn attributes(self, of: &str) -> Vec<ItemAttribute> {
        let says = |name: &str, value: &str| ItemAttribute { name: name.to_owned(), value: value.to_owned() };
        match self {
            Self::Wire => vec![says("alloy", of)],
            Self::Nozzle => vec![says("nozzle", of)],
            _ if of.is_empty() => vec![says("use", self.name())],
            _ => vec![says("use", self.name()), says("width", of)],
        }
    }

    /// What is wrong with what it is said to be of. It is asked where that is typed, never of what is stored: there a word that is no
    /// width tells one nozzle from another, and nothing more is made of it.
    pub fn fault(self, of: &str) -> Option<Finding> {
        let object = |place: &str, message: String, hint: &str| Some(Finding::written(RULE, place, message).hint(hint));
        match self {
            Self::Wire if of.is_empty() => object("alloy", "a wire of no alloy".to_owned(), "like Sn63Pb37"),
            Self::Wire => None,
            _ if of.is_empty() && self != Self::Nozzle => None,
            _ if is_width(of) => None,
            _ => object("width", format!("“{of}” is no width"), "how wide it is, like 20 mm"),
        }
    }

    /// Is this of what the item is?
    fn is_of(self, used: &Use) -> bool {
        match used {
            Use::Alloy { .. } => self == Self::Wire,
            Use::Braid { .. } => self == Self::Braid,
            Use::Flux { .. } => self == Self::Flux,
            Use::Alcohol { .. } => self == Self::Alcohol,
            Use::Nozzle { .. } => self == Self::Nozzle,
            Use::Shield { shield, .. } => match shield {
                ShieldKind::Polyimide { .. } => self == Self::Polyimide,
                ShieldKind::AluminiumTape => self == Self::AluminiumTape,
                ShieldKind::FoilTent { .. } => self == Self::Foil,
                ShieldKind::MetalBlock { .. } | ShieldKind::HolderJaw | ShieldKind::Finger => false,
            },
        }
    }
}

/// Does an attribute say what its item is used up as?
pub fn says_use(attribute: &ItemAttribute) -> bool {
    SAYS.iter().any(|name| attribute.name.eq_ignore_ascii_case(name))
}

impl StockItem {
    fn says(&self, name: &str) -> Option<&str> {
        let said = self.attributes.iter().find(|attribute| attribute.name.eq_ignore_ascii_case(name));
        said.map(|attribute| attribute.value.trim())
    }

    /// What a consumable is used up as, with the alloy of a wire, or the width of a tape or a nozzle as it was typed.
    pub fn used_as(&self) -> Option<(UsedAs, &str)> {
        if self.kind != StockKind::Consumable {
            return None;
        }
        let by_name = |name, kind| self.says(name).map(|of| (kind, of));
        let by_use = || Some((UsedAs::named(self.says("use")?)?, self.says("width").unwrap_or_default()));
        by_name("alloy", UsedAs::Wire).or_else(|| by_name("nozzle", UsedAs::Nozzle)).or_else(by_use)
    }

    /// How much of it a use takes, in its unit; none: it is not what was used, or it is counted in a unit that says nothing of it.
    ///
    /// ```
    /// use mend_core::planning::used_up::Use;
    /// use mend_formats::item::parse;
    /// let flux = parse(
    ///     br#"{"format": "urgent-mend/item/1", "name": "Gel flux", "kind": "consumable", "unit": "mL",
    ///          "attributes": [{"name": "use", "value": "flux"}]}"#,
    /// )
    /// .unwrap();
    /// assert_eq!(flux.takes(&Use::Flux { ml: 0.4 }), Some(0.4));
    /// assert_eq!(flux.takes(&Use::Braid { cm: 4.0 }), None);
    /// ```
    pub fn takes(&self, used: &Use) -> Option<f64> {
        let (kind, of) = self.used_as().filter(|(kind, _)| kind.is_of(used))?;
        match used {
            Use::Alloy { mm, name } => self.length(*mm).filter(|_| of.eq_ignore_ascii_case(name)),
            Use::Braid { cm } => self.length(10.0 * cm),
            Use::Flux { ml } => self.volume(*ml).or_else(|| self.mass(FLUX_G_PER_ML * ml)),
            Use::Alcohol { ml } => self.volume(*ml),
            Use::Shield { shield, cm2 } => self.area(layers(*shield) * cm2, of),
            Use::Nozzle { width_mm, hours } => {
                let same = kind == UsedAs::Nozzle && millimetres(of).is_some_and(|mm| (mm - width_mm).abs() <= SAME_MM);
                self.in_unit(*hours, &[("h", 1.0), ("min", 60.0)]).filter(|_| same)
            }
        }
    }

    fn in_unit(&self, amount: f64, units: &[(&str, f64)]) -> Option<f64> {
        units.iter().find(|(unit, _)| *unit == self.unit).map(|(_, per)| amount * per)
    }

    fn length(&self, mm: f64) -> Option<f64> {
        self.in_unit(mm, &[("mm", 1.0), ("cm", 0.1), ("m", 0.001)])
    }

    fn volume(&self, ml: f64) -> Option<f64> {
        self.in_unit(ml, &[("mL", 1.0), ("ml", 1.0), ("L", 0.001), ("l", 0.001)])
    }

    fn mass(&self, g: f64) -> Option<f64> {
        self.in_unit(g, &[("g", 1.0), ("kg", 0.001)])
    }

    /// Off a sheet by its area, off a roll by its length.
    fn area(&self, cm2: f64, width: &str) -> Option<f64> {
        let off_a_sheet = self.in_unit(cm2, &[("cm²", 1.0), ("cm2", 1.0), ("m²", 1e-4), ("m2", 1e-4)]);
        off_a_sheet.or_else(|| self.length(100.0 * cm2 / millimetres(width)?))
    }
}

fn layers(shield: ShieldKind) -> f64 {
    match shield {
        ShieldKind::Polyimide { layers } => f64::from(layers),
        _ => 1.0,
    }
}

/// `20 mm`, `20`; more than nothing.
fn millimetres(text: &str) -> Option<f64> {
    let number = text.trim().trim_end_matches("mm").trim().replace(',', ".");
    number.parse().ok().filter(|mm: &f64| mm.is_finite() && *mm > 0.0)
}

/// Is this a width, as a tape and a nozzle want it?
fn is_width(text: &str) -> bool {
    millimetres(text).is_some()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn item(kind: UsedAs, of: &str, unit: &str) -> StockItem {
        let attributes = kind.attributes(of);
        StockItem { kind: StockKind::Consumable, unit: unit.to_owned(), attributes, ..StockItem::default() }
    }

    #[test]
    fn an_item_is_what_it_says_and_is_measured_in_its_unit() {
        let wire = item(UsedAs::Wire, "Sn63Pb37", "m");
        let fed = |name: &str| Use::Alloy { mm: 250.0, name: name.to_owned() };
        assert_eq!((wire.takes(&fed("sn63pb37")), wire.takes(&fed("SAC305"))), (Some(0.25), None));
        assert_eq!(item(UsedAs::Wire, "Sn63Pb37", "pc").takes(&fed("Sn63Pb37")), None, "counted in no length");
        assert_eq!(item(UsedAs::Flux, "", "g").takes(&Use::Flux { ml: 0.5 }), Some(0.5));
        assert_eq!(item(UsedAs::Alcohol, "", "L").takes(&Use::Alcohol { ml: 5.0 }), Some(0.005));
        let part = StockItem { kind: StockKind::Part, ..item(UsedAs::Braid, "", "m") };
        assert_eq!(part.takes(&Use::Braid { cm: 10.0 }), None);
    }

    #[test]
    fn what_is_typed_is_asked_for_and_what_is_stored_is_read_all_the_same() {
        assert!(UsedAs::Wire.fault("").is_some() && UsedAs::Nozzle.fault("").is_some());
        assert!(UsedAs::Polyimide.fault("broad").is_some() && UsedAs::Polyimide.fault("").is_none());
        let bent = StockItem { name: "Nozzle".to_owned(), ..item(UsedAs::Nozzle, "bent", "h") };
        let text = crate::item::write(&bent).expect("written");
        assert_eq!(crate::item::parse(text.as_bytes()), Ok(bent.clone()));
        assert_eq!(bent.takes(&Use::Nozzle { width_mm: 8.0, hours: 1.0 }), None);
    }

    #[test]
    fn tape_goes_by_its_layers_and_its_width() {
        let laid = Use::Shield { shield: ShieldKind::Polyimide { layers: 2 }, cm2: 3.0 };
        let roll = item(UsedAs::Polyimide, "20 mm", "cm").takes(&laid);
        assert!(roll.is_some_and(|cm| (cm - 3.0).abs() < 1e-9), "{roll:?}");
        assert_eq!(item(UsedAs::Polyimide, "", "cm²").takes(&laid), Some(6.0));
        assert_eq!(item(UsedAs::Polyimide, "", "m").takes(&laid), None, "nobody said how wide");
        assert_eq!(item(UsedAs::Foil, "", "cm²").takes(&laid), None);
        let block = Use::Shield { shield: ShieldKind::MetalBlock { height_mm: 8.0 }, cm2: 3.0 };
        assert!(UsedAs::ALL.iter().all(|kind| item(*kind, "20", "cm²").takes(&block).is_none()));
    }

    #[test]
    fn a_nozzle_is_told_by_its_width() {
        let blown = Use::Nozzle { width_mm: 8.0, hours: 0.05 };
        assert_eq!(item(UsedAs::Nozzle, "8 mm", "h").takes(&blown), Some(0.05));
        assert_eq!(item(UsedAs::Nozzle, "10 mm", "h").takes(&blown), None);
        assert!(is_width("8,5 mm") && !is_width("broad") && !is_width("-2"));
    }
}
