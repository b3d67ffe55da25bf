//! What differs between two revisions of a board, in words.

use mend_core::board::compare::{Difference, DifferenceOf, Differing, DifferingNumber};

use super::Words;
use super::quantity::count;

impl Words {
    /// What a difference is about.
    pub fn difference_of(&self, of: &DifferenceOf) -> String {
        match of {
            DifferenceOf::Outline => "Outline".to_owned(),
            DifferenceOf::StackUp => "Stack-up".to_owned(),
            DifferenceOf::Part => "The part".to_owned(),
            DifferenceOf::Joints => "Joints".to_owned(),
            DifferenceOf::Component(name) => name.clone(),
        }
    }

    /// What differs, in a row.
    pub fn differing(&self, difference: &Difference) -> String {
        difference.values.iter().map(|value| self.differs(value)).collect::<Vec<_>>().join("; ")
    }

    fn differs(&self, value: &Differing) -> String {
        match value {
            Differing::Number { what: DifferingNumber::Corners, was, is, .. } => format!("{is} corners, was {was}"),
            Differing::Number { what, was, is, unit } => {
                format!("{} {}, was {}", number_name(*what), self.quantity(*is, *unit), self.quantity(*was, *unit))
            }
            Differing::Size { was_mm: [was_width, was_depth], is_mm: [width, depth] } => {
                format!("{width} x {depth} mm, was {was_width} x {was_depth} mm")
            }
            Differing::Rim => "of another shape".to_owned(),
            Differing::Moved { right_mm, away_mm } => moved(*right_mm, *away_mm),
            Differing::Face { was, is } => format!("on the {} face, was on the {}", is.name(), was.name()),
            Differing::Name { was, is } => format!("{is}, was {was}"),
            Differing::Material { was, is } => format!("{}, was {}", is.name(), was.name()),
            Differing::MadeOf(material) => material.name().to_owned(),
            Differing::Round { is: true } => "round, was rectangular".to_owned(),
            Differing::Round { is: false } => "rectangular, was round".to_owned(),
            Differing::Shell { is: true } => "with a metal shell, was without".to_owned(),
            Differing::Shell { is: false } => "without a metal shell, was with one".to_owned(),
            Differing::NewJoints(joints) => format!("{} new or changed", count(*joints, "joint", "joints")),
            Differing::GoneJoints(joints) => format!("{} gone", count(*joints, "joint", "joints")),
        }
    }
}

/// A way of each, where there is one: a hundredth of a millimetre is noise of a hand.
fn moved(right_mm: f64, away_mm: f64) -> String {
    let way = |by: f64, (less, more): (&str, &str)| {
        let by_mm = (by.abs() * 100.0).round() / 100.0;
        (by_mm > 0.02).then(|| format!("{by_mm} mm {}", if by < 0.0 { less } else { more }))
    };
    let ways = [way(right_mm, ("left", "right")), way(away_mm, ("nearer", "away"))];
    format!("by {}", ways.into_iter().flatten().collect::<Vec<_>>().join(", "))
}

const fn number_name(what: DifferingNumber) -> &'static str {
    match what {
        DifferingNumber::Thickness => "thickness",
        DifferingNumber::Layers => "layers",
        DifferingNumber::Planes => "planes",
        DifferingNumber::Foil => "foil",
        DifferingNumber::PlaneCopper => "plane copper",
        DifferingNumber::SignalCopper => "signal copper",
        DifferingNumber::Conductivity => "conducts",
        DifferingNumber::ConductivitySpread => "spread",
        DifferingNumber::Corners => "corners",
        DifferingNumber::Height => "height",
        DifferingNumber::Pegs => "pegs",
        DifferingNumber::Limit => "limit",
        DifferingNumber::OwnJoints => "own joints",
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::units::{Scale, Unit};

    #[test]
    fn what_differs_is_said_with_both_values_on_the_visitors_scale() {
        let said = |value: Differing| Words::default().differs(&value);
        assert_eq!(said(Differing::Moved { right_mm: 1.5, away_mm: 0.0 }), "by 1.5 mm right");
        assert_eq!(said(Differing::Moved { right_mm: -0.5, away_mm: -2.0 }), "by 0.5 mm left, 2 mm nearer");
        let limit = Differing::Number { what: DifferingNumber::Limit, was: 200.0, is: 250.0, unit: Unit::Celsius };
        assert_eq!(said(limit.clone()), "limit 250 °C, was 200 °C");
        assert_eq!(Words { scale: Scale::Fahrenheit }.differs(&limit), "limit 482 °F, was 392 °F");
    }
}
