//! From what can be seen and weighed of a board to its copper, with how sure that is: nobody can count layers.
//!
//! Every stack-up that such boards are made with is weighed by how common it is and by how well it agrees with what was
//! seen (Bayes); the answer is the middle of what remains, and its spread goes into every band of the plan. Thickness is
//! measured; what is seen moves the odds by the factors below, all of them engineering estimates (E) from handling boards.

use super::StackUp;
use super::board_signs::BoardSigns;
use super::sign_odds::likelihood;
use crate::units::Length;

/// What it comes to.
#[derive(Debug, Clone, PartialEq)]
pub struct StackGuess {
    /// The stack-up nearest to the middle of what remains, its spread with it.
    pub stack: StackUp,
    /// Conductivity in the plane that holds eight in ten, W/mK.
    pub in_plane: (f64, f64),
    /// Every number of layers with its odds, 0-1, those under one in a hundred left out.
    pub layers: Vec<(u32, f64)>,
    /// Do the observations fight each other? Then one of them is a slip.
    pub at_odds: bool,
}

/// How common so many layers are on boards that carry ports (E).
const LAYERS: [(u32, f64); 8] =
    [(1, 0.03), (2, 0.14), (4, 0.23), (6, 0.21), (8, 0.18), (10, 0.12), (12, 0.07), (14, 0.02)];
/// Mean foil, µm, and how common (E: inner 17, outer plated to 35).
const FOILS: [(f64, f64); 4] = [(18.0, 0.25), (25.0, 0.35), (35.0, 0.33), (70.0, 0.07)];
/// Copper of planes and of signal layers, 0-1 (E).
const COVERS: [((f64, f64), f64); 4] =
    [((0.65, 0.2), 0.2), ((0.75, 0.3), 0.35), ((0.85, 0.3), 0.25), ((0.8, 0.45), 0.2)];
/// Thinner than this between two layers of copper is not made, mm (E).
const LEAST_DIELECTRIC_MM: f64 = 0.045;
/// A sheet of copper is never as even as the model takes it, and ports sit over plane edges: what is left even where all
/// is known (E).
const LEFT_OVER: f64 = 0.15;
/// Odds under which the observations have nothing in common.
const AT_ODDS: f64 = 2e-3;
/// Half width of the middle eight in ten of a bell, in standard deviations (T).
const EIGHT_IN_TEN: f64 = 1.281_6;

struct StackCandidate {
    stack: StackUp,
    odds: f64,
    ln_in_plane: f64,
}

/// What a board of this thickness is, by what was seen.
///
/// ```
/// use mend_core::board::board_signs::{BoardSigns, Light};
/// use mend_core::board::stack_guess::stack_guess;
/// use mend_core::units::Length;
/// let dark = BoardSigns { light: Some(Light::Nowhere), ..BoardSigns::default() };
/// let (plain, dark) = (stack_guess(Length::mm(1.0), &BoardSigns::default()), stack_guess(Length::mm(1.0), &dark));
/// assert!(dark.stack.layers >= plain.stack.layers);
/// assert!(dark.in_plane.0 > plain.in_plane.0, "no light comes through planes: the board conducts better");
/// ```
pub fn stack_guess(thickness: Length, seen: &BoardSigns) -> StackGuess {
    let prior = candidates(thickness, &BoardSigns::default());
    let mut left = candidates(thickness, seen);
    let agreed: f64 = left.iter().map(|c| c.odds).sum::<f64>() / prior.iter().map(|c| c.odds).sum::<f64>();
    // None agreed at all is no number: that is at odds as well.
    let at_odds = agreed.is_nan() || agreed <= AT_ODDS;
    if at_odds {
        left = prior;
    }
    let whole: f64 = left.iter().map(|c| c.odds).sum();
    let mean = left.iter().map(|c| c.odds * c.ln_in_plane).sum::<f64>() / whole;
    let variance = left.iter().map(|c| c.odds * (c.ln_in_plane - mean).powi(2)).sum::<f64>() / whole;
    let spread = (variance + LEFT_OVER * LEFT_OVER).sqrt();
    let share = |layers: u32| left.iter().filter(|c| c.stack.layers == layers).map(|c| c.odds).sum::<f64>() / whole;
    let layers: Vec<(u32, f64)> =
        LAYERS.iter().map(|(n, _)| (*n, share(*n))).filter(|(_, share)| *share >= 0.01).collect();
    let stack = nearest(&left, mean, &layers).unwrap_or_else(|| StackUp::usual(thickness));
    let reach = EIGHT_IN_TEN * spread;
    StackGuess {
        stack: StackUp { spread: Some((spread * 1000.0).round() / 1000.0), ..stack },
        in_plane: ((mean - reach).exp(), (mean + reach).exp()),
        layers,
        at_odds,
    }
}

/// Of the likeliest number of layers the stack-up that conducts most nearly as the mean of all.
fn nearest(left: &[StackCandidate], mean: f64, layers: &[(u32, f64)]) -> Option<StackUp> {
    let likeliest = layers.iter().max_by(|a, b| a.1.total_cmp(&b.1))?.0;
    let far = |c: &&StackCandidate| (c.ln_in_plane - mean).abs();
    let of_them = left.iter().filter(|c| c.stack.layers == likeliest && c.odds > 0.0);
    of_them.min_by(|a, b| far(a).total_cmp(&far(b))).map(|c| c.stack.clone())
}

fn candidates(thickness: Length, seen: &BoardSigns) -> Vec<StackCandidate> {
    let mut all = Vec::new();
    for (layers, common) in LAYERS {
        for (planes, share) in planes(layers) {
            for (foil_um, foil_odds) in FOILS {
                for ((plane_coverage, signal_coverage), cover_odds) in COVERS {
                    let usual = StackUp::usual(thickness);
                    let stack = StackUp { layers, planes, foil_um, plane_coverage, signal_coverage, ..usual };
                    let odds = common * share * foil_odds * cover_odds * fits(&stack) * likelihood(&stack, seen);
                    all.push(StackCandidate { ln_in_plane: stack.in_plane().ln(), stack, odds });
                }
            }
        }
    }
    all
}

/// How many of so many layers are planes (E).
fn planes(layers: u32) -> Vec<(u32, f64)> {
    match layers {
        1 => vec![(0, 1.0)],
        2 => vec![(0, 0.6), (1, 0.4)],
        4 => vec![(1, 0.25), (2, 0.75)],
        n => vec![(n / 2 - 1, 0.6), (n / 2, 0.4)],
    }
}

/// Can it be pressed into its thickness? Many layers in a thin board are a phone's, few in a thick one a console's or older.
fn fits(stack: &StackUp) -> f64 {
    let copper = f64::from(stack.layers) * stack.foil_um * 1e-3;
    let between = (stack.thickness.in_mm() - copper) / f64::from(stack.layers.max(2) - 1);
    if between < LEAST_DIELECTRIC_MM { 0.0 } else { 1.0 }
}

#[cfg(test)]
mod tests {
    use super::super::board_signs::{Beside, BoardWeight, Feels, Light};
    use super::*;

    fn guess(thickness: f64, seen: BoardSigns) -> StackGuess {
        stack_guess(Length::mm(thickness), &seen)
    }
    fn odds(guess: &StackGuess, layers: u32) -> f64 {
        guess.layers.iter().find(|(n, _)| *n == layers).map_or(0.0, |(_, odds)| *odds)
    }

    #[test]
    fn nothing_seen_is_as_unsure_as_it_is() {
        let blind = guess(1.6, BoardSigns::default());
        let spread = blind.stack.spread.expect("a spread");
        assert!((0.45..0.9).contains(&spread), "{spread}");
        assert!(blind.in_plane.1 > 3.0 * blind.in_plane.0);
        assert!(!blind.at_odds && (blind.layers.iter().map(|l| l.1).sum::<f64>() - 1.0).abs() < 0.03);
    }

    #[test]
    fn every_look_makes_it_surer_and_a_bare_board_on_the_scales_most() {
        let spread = |seen| guess(1.2, seen).stack.spread.expect("a spread");
        let lamp = BoardSigns { light: Some(Light::Nowhere), ..BoardSigns::default() };
        let lines = BoardSigns { edge_lines: Some(8), ..lamp };
        let truth =
            StackUp { layers: 8, planes: 3, foil_um: 25.0, plane_coverage: 0.75, ..StackUp::usual(Length::mm(1.2)) };
        let weighed = BoardWeight { grams: truth.weight() * 9000.0, area_mm2: 9000.0, bare: true };
        let scales = BoardSigns { weighed: Some(weighed), ..lines };
        let all = [BoardSigns::default(), lamp, lines, scales].map(spread);
        assert!(all[1] < all[0] && all[2] < all[1] && all[3] < all[2], "{all:?}");
        let found = guess(1.2, scales);
        assert!((found.in_plane.0..found.in_plane.1).contains(&truth.in_plane()), "{found:?}");
        assert!(odds(&found, 8) > 0.5, "{found:?}");
    }

    #[test]
    fn light_between_the_traces_means_no_plane() {
        let found = guess(1.6, BoardSigns { light: Some(Light::Between), ..BoardSigns::default() });
        assert!(odds(&found, 2) > 0.4, "{found:?}");
        assert!(found.stack.in_plane() < guess(1.6, BoardSigns::default()).stack.in_plane());
    }

    #[test]
    fn heavier_than_a_known_board_leans_to_more_copper() {
        let known = StackUp { layers: 4, ..StackUp::usual(Length::mm(1.6)) }.weight();
        let feels = |feels| {
            guess(1.6, BoardSigns { beside: Some(Beside { known, feels }), ..BoardSigns::default() }).in_plane.1
        };
        assert!(feels(Feels::Heavier) > feels(Feels::Same) && feels(Feels::Same) > feels(Feels::Lighter));
    }

    #[test]
    fn observations_that_fight_are_said_to() {
        let weighed = Some(BoardWeight { grams: 500.0, area_mm2: 9000.0, bare: true });
        let found = guess(1.0, BoardSigns { weighed, ..BoardSigns::default() });
        assert!(found.at_odds);
        assert_eq!(found.in_plane, guess(1.0, BoardSigns::default()).in_plane, "then the prior stands");
    }

    #[test]
    fn a_thin_board_is_never_given_layers_that_do_not_fit_in() {
        assert!(guess(0.4, BoardSigns::default()).layers.iter().all(|(n, _)| *n <= 8));
    }
}
