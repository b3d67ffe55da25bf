//! A solder by what a person calls it: an alloy of the table, or a composition, or a mix of those.

use super::{ALLOYS, Alloy, Composition, Element};
use crate::finding::Finding;

const RULE: &str = "metal";
/// A mix longer than this is a slip, characters.
const LONGEST: usize = 200;

/// A named metal.
#[derive(Debug, Clone, PartialEq)]
pub struct Metal {
    /// As it was called: `SAC305`, `Sn=43,Pb=43,Bi=14`, `SAC305=60,Sn42Bi58=40`.
    pub name: String,
    /// What it is made of.
    pub composition: Composition,
}

impl Metal {
    /// Reads `SAC305`, or parts in wt% that sum to 100 ± 0.5: `Sn=43,Pb=43,Bi=14`, `SAC305=60,Sn42Bi58=40`. Each part is
    /// an element's symbol or an alloy of the table; case and blanks do not matter. Objections are about `place`.
    pub fn read(place: &str, text: &str) -> Result<Self, Vec<Finding>> {
        let text = text.trim();
        let object = |message: String, hint: &str| vec![Finding::blocking(RULE, place, message).hint(hint)];
        if text.is_empty() || text.len() > LONGEST {
            let message = if text.is_empty() { "no solder is named".to_owned() } else { "is too long".to_owned() };
            return Err(object(message, "name an alloy like SAC305, or give parts like Sn=43,Pb=43,Bi=14"));
        }
        if !text.contains('=') {
            let unknown = || {
                let names: Vec<&str> = ALLOYS.iter().map(|alloy| alloy.name).collect();
                let hint = format!("take one of {}, or give parts like Sn=43,Pb=57", names.join(", "));
                object(format!("“{text}” is not in the alloy table"), &hint)
            };
            let alloy = Alloy::named(text).ok_or_else(unknown)?;
            return Ok(Self::from(alloy));
        }
        let parts = read_parts(text).map_err(|(message, hint)| object(message, hint))?;
        let sum: f64 = parts.iter().map(|(_, share)| share).sum();
        if (sum - 100.0).abs() > 0.5 {
            return Err(object(format!("the parts sum to {sum:.2} %"), "they must sum to 100 %, give or take 0.5"));
        }
        let composition = Composition::mixed(&parts);
        let composition =
            composition.ok_or_else(|| object("has no mass".to_owned(), "give parts that sum to 100 %"))?;
        Ok(Self { name: text.to_owned(), composition })
    }

    /// The row of the alloy table that it is, within 0.5 wt%.
    pub fn published(&self) -> Option<&'static Alloy> {
        Alloy::near(&self.composition)
    }

    /// Does it hold lead, more than the trace that counts as lead-free (0.1 wt%)? Then hands and waste need the caution.
    pub fn has_lead(&self) -> bool {
        self.composition.wt(Element::Pb) > 0.1
    }
}

impl From<&Alloy> for Metal {
    fn from(alloy: &Alloy) -> Self {
        Self { name: alloy.name.to_owned(), composition: alloy.composition() }
    }
}

type Slip = (String, &'static str);

fn read_parts(text: &str) -> Result<Vec<(Composition, f64)>, Slip> {
    text.split([',', ';']).map(str::trim).filter(|part| !part.is_empty()).map(read_part).collect()
}

fn read_part(part: &str) -> Result<(Composition, f64), Slip> {
    let (name, share) = part.split_once('=').ok_or_else(|| (format!("“{part}” has no share"), "write it as Sn=43"))?;
    let share: f64 = share.trim().trim_end_matches('%').trim().parse().unwrap_or(f64::NAN);
    if !(0.0..=100.5).contains(&share) {
        return Err((format!("“{part}” is no share"), "a share is a number between 0 and 100"));
    }
    let metal = match Element::named(name) {
        Some(element) => Composition::pure(element),
        None => Alloy::named(name).map(Alloy::composition).ok_or_else(|| {
            let hint = "take Sn, Pb, Bi, In, Ag, Cu, Sb or Zn, or an alloy of the table";
            (format!("“{}” is no element that is computed and no alloy of the table", name.trim()), hint)
        })?,
    };
    Ok((metal, share))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_metal_is_read_as_it_is_called() {
        let read = |text: &str| Metal::read("alloy", text);
        assert_eq!(read(" sac305 ").expect("known").name, "SAC305");
        let mix = read("SAC305=60, Sn42Bi58 = 40 %").expect("a mix").composition;
        assert!((mix.wt(Element::Bi) - 23.2).abs() < 0.01, "{}", mix.wt(Element::Bi));
        assert!(read("Sn=43,Pb=43,Bi=14").expect("a composition").has_lead());
        assert_eq!(read("Sn=63.1,Pb=36.9").expect("near a row").published().map(|a| a.name), Some("Sn63Pb37"));
    }

    #[test]
    fn what_is_no_metal_is_refused_in_words() {
        let cases = [
            ("Unobtainium", "not in the alloy table"),
            ("Sn=60,Pb=37", "sum to 97.00 %"),
            ("Sn=103,Pb=-3", "is no share"),
            ("Sn=60,Xx=40", "“Xx” is no element"),
            ("Sn=1e300", "is no share"),
            ("Sn=NaN,Pb=40", "is no share"),
            ("=,=", "is no share"),
            ("", "no solder"),
        ];
        for (text, expected) in cases {
            let found = Metal::read("alloy", text).expect_err(text);
            assert!(found[0].message.contains(expected), "{text}: {}", found[0].message);
        }
    }
}
