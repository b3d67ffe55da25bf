//! A solder by what a person calls it: an alloy of the table, or a composition, or a mix of those.

use super::{ALLOYS, Alloy, Composition, Element};
use crate::finding::Finding;
use crate::finding::problem::AlloyProblem;

const RULE: &str = "metal";
/// A mix longer than this is a slip, characters.
const LONGEST: usize = 200;
/// Parts may miss 100 % by this much in all, wt%.
const SUM_SLACK: f64 = 0.5;

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
    ///
    /// ```
    /// use mend_core::materials::{Element, Metal};
    /// let mix = Metal::parse("feed.alloy", "SAC305=60,Sn42Bi58=40").expect("parts that sum to 100 %");
    /// assert!((mix.composition.wt(Element::Bi) - 23.2).abs() < 0.1);
    /// assert_eq!(Metal::parse("feed.alloy", "Unobtainium").expect_err("no such alloy")[0].place, "feed.alloy");
    /// ```
    pub fn parse(place: &str, text: &str) -> Result<Self, Vec<Finding>> {
        let text = text.trim();
        Self::try_from_text(text).map_err(|problem| vec![Finding::blocking(RULE, place, problem)])
    }

    fn try_from_text(text: &str) -> Result<Self, AlloyProblem> {
        if text.is_empty() || text.len() > LONGEST {
            return Err(AlloyProblem::BadName { characters: text.len(), most: LONGEST });
        }
        if !text.contains('=') {
            let known = || ALLOYS.iter().map(|alloy| alloy.name.to_owned()).collect();
            let unknown = || AlloyProblem::NotInTable { text: text.to_owned(), known: known() };
            return Alloy::named(text).map(Self::from).ok_or_else(unknown);
        }
        let parts = parse_parts(text)?;
        let sum: f64 = parts.iter().map(|(_, share)| share).sum();
        if (sum - 100.0).abs() > SUM_SLACK {
            return Err(AlloyProblem::SharesSum { percent: sum, slack: SUM_SLACK });
        }
        let composition = Composition::mixed(&parts).ok_or(AlloyProblem::NoMass)?;
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

fn parse_parts(text: &str) -> Result<Vec<(Composition, f64)>, AlloyProblem> {
    text.split([',', ';']).map(str::trim).filter(|part| !part.is_empty()).map(parse_part).collect()
}

fn parse_part(part: &str) -> Result<(Composition, f64), AlloyProblem> {
    let no_share = || AlloyProblem::PartWithoutShare { part: part.to_owned() };
    let (name, share) = part.split_once('=').ok_or_else(no_share)?;
    let share: f64 = share.trim().trim_end_matches('%').trim().parse().unwrap_or(f64::NAN);
    if !(0.0..=100.5).contains(&share) {
        return Err(AlloyProblem::BadShare { part: part.to_owned() });
    }
    let metal = match Element::named(name) {
        Some(element) => Composition::pure(element),
        None => Alloy::named(name).map(Alloy::composition).ok_or_else(|| {
            let elements = Element::ALL.iter().map(|element| element.symbol().to_owned()).collect();
            AlloyProblem::NotAMetal { text: name.trim().to_owned(), elements }
        })?,
    };
    Ok((metal, share))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_metal_is_read_as_it_is_called() {
        let read = |text: &str| Metal::parse("alloy", text);
        assert_eq!(read(" sac305 ").expect("known").name, "SAC305");
        let mix = read("SAC305=60, Sn42Bi58 = 40 %").expect("a mix").composition;
        assert!((mix.wt(Element::Bi) - 23.2).abs() < 0.01, "{}", mix.wt(Element::Bi));
        assert!(read("Sn=43,Pb=43,Bi=14").expect("a composition").has_lead());
        assert_eq!(read("Sn=63.1,Pb=36.9").expect("near a row").published().map(|a| a.name), Some("Sn63Pb37"));
    }

    #[test]
    fn what_is_no_metal_is_refused_in_words() {
        let cases = [
            ("Unobtainium", "not-in-table"),
            ("Sn=60,Pb=37", "shares-sum"),
            ("Sn=103,Pb=-3", "bad-share"),
            ("Sn=60,Xx=40", "not-a-metal"),
            ("Sn=1e300", "bad-share"),
            ("Sn=NaN,Pb=40", "bad-share"),
            ("=,=", "bad-share"),
            ("Sn", "not-in-table"),
            ("Sn,Pb=40", "part-without-share"),
            ("", "bad-alloy-name"),
        ];
        for (text, expected) in cases {
            let found = Metal::parse("alloy", text).expect_err(text);
            let kind = serde_json::to_value(&found[0]).expect("plain data")["kind"].clone();
            assert_eq!(kind, expected, "{text}");
        }
    }
}
