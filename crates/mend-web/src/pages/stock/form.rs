//! What is typed of an item.

use mend_core::finding::Finding;
use mend_formats::item::used_as::{UsedAs, says_use};
use mend_formats::item::{FORMAT, ItemAttribute, StockItem, StockKind};

use crate::pages::number::number;

/// An item as it was typed, field by field.
pub(super) fn read(sent: &[(String, String)]) -> Result<StockItem, Vec<Finding>> {
    let get = |name: &str| {
        let found = sent.iter().find(|(field, _)| field == name);
        found.map_or(String::new(), |(_, value)| value.trim().to_owned())
    };
    let lines = |name: &str| get(name).lines().map(|line| line.trim().to_owned()).filter(|l| !l.is_empty()).collect();
    let mut bad = Vec::new();
    let (used_as, of) = (UsedAs::named(&get("used-as")), get("of"));
    bad.extend(used_as.and_then(|kind| kind.fault(&of)));
    let mut or_usual = |name: &str, usual: f64| {
        let typed = get(name);
        if typed.is_empty() { usual } else { number("item", name, &typed, &mut bad) }
    };
    let says = used_as.map(|kind| kind.attributes(&of)).unwrap_or_default();
    let (lead_days, pack) = (or_usual("lead-days", 7.0), or_usual("pack", 1.0));
    let item = StockItem {
        format: FORMAT.to_owned(),
        name: get("name"),
        kind: if get("kind") == "consumable" { StockKind::Consumable } else { StockKind::Part },
        unit: Some(get("unit")).filter(|unit| !unit.is_empty()).unwrap_or_else(|| "pc".to_owned()),
        connector: get("connector"),
        attributes: Vec::<String>::from_iter(lines("attributes"))
            .iter()
            .map(|line| attribute(line))
            .chain(says)
            .collect(),
        fits: lines("fits"),
        supplier: get("supplier"),
        price: get("price").replace(',', "."),
        lead_days,
        pack,
        keep: !get("keep").is_empty(),
    };
    match item.checked() {
        Ok(item) if bad.is_empty() => Ok(item),
        Ok(_) => Err(bad),
        Err(more) => Err(bad.into_iter().chain(more).collect()),
    }
}

/// `pin height: 1.2 mm`, as it is typed a line each.
fn attribute(line: &str) -> ItemAttribute {
    let (name, value) = line.split_once(':').unwrap_or((line, ""));
    ItemAttribute { name: name.trim().to_owned(), value: value.trim().to_owned() }
}

/// The same the other way round, for the form. What it is used up as has fields of its own.
pub(super) fn attribute_lines(item: &StockItem) -> String {
    let line = |a: &ItemAttribute| if a.value.is_empty() { a.name.clone() } else { format!("{}: {}", a.name, a.value) };
    let stands_alone = |a: &&ItemAttribute| item.used_as().is_none() || !says_use(a);
    item.attributes.iter().filter(stands_alone).map(line).collect::<Vec<_>>().join("\n")
}

/// What a consumable is used up as, in the form's two fields.
pub(super) fn used_as(item: &StockItem) -> (&'static str, String) {
    item.used_as().map_or(("", String::new()), |(kind, of)| (kind.name(), of.to_owned()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_it_is_used_up_as_is_chosen_and_stands_in_no_other_field() {
        let sent = [("name", "Tape"), ("kind", "consumable"), ("used-as", "polyimide tape"), ("of", "20 mm")];
        let sent: Vec<(String, String)> =
            sent.into_iter().chain([("attributes", "amber")]).map(|(a, b)| (a.to_owned(), b.to_owned())).collect();
        let item = read(&sent).expect("it can be");
        assert_eq!(
            (attribute_lines(&item).as_str(), used_as(&item)),
            ("amber", ("polyimide tape", "20 mm".to_owned()))
        );
        let broad = [("name", "Nozzle"), ("kind", "consumable"), ("used-as", "nozzle"), ("of", "broad")];
        assert_eq!(read(&broad.map(|(a, b)| (a.to_owned(), b.to_owned()))).expect_err("no width").len(), 1);
    }

    #[test]
    fn the_form_is_read_as_it_is_typed() {
        let sent = [("name", "Port, mid mount"), ("attributes", "pin height: 1.2 mm\nmid mount"), ("price", "6,40")];
        let sent: Vec<(String, String)> = sent.map(|(a, b)| (a.to_owned(), b.to_owned())).into();
        let item = read(&sent).expect("it can be");
        assert_eq!((item.price.as_str(), item.lead_days, item.unit.as_str()), ("6.40", 7.0, "pc"));
        assert_eq!(attribute_lines(&item), "pin height: 1.2 mm\nmid mount");
        let wrong = [("name", ""), ("lead-days", "soon")].map(|(a, b)| (a.to_owned(), b.to_owned()));
        assert_eq!(read(&wrong).expect_err("two slips").len(), 2);
    }
}
