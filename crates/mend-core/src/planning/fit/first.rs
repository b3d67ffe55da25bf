//! What a fit is set to before anybody has set it.

use crate::board::Board;
use crate::heat::iron::{EVERY_ROW, Iron};
use crate::heat::recipe::{HeatingAids, Recipe};
use crate::method::usual;
use crate::units::{Duration, Length};

/// Until an iron is seen to wet a pin (E, 2-6 s).
const ON_A_PIN: Duration = Duration::seconds(4.0);
/// A tip for pins before anybody has chosen one.
const PIN_TIP: Length = Length::mm(1.0);

/// The air of the removal again, and where none blew an iron from pin to pin. From a cold board: cleaning and looking take longer
/// than a board stays warm.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::planning::fit::first_settings;
/// let bench = Bench::try_new().expect("the example");
/// assert_eq!(first_settings(&bench.recipe, &bench.board).air, bench.recipe.air);
/// let pumped = mend_core::heat::recipe::Recipe { air: None, ..bench.recipe.clone() };
/// assert!(first_settings(&pumped, &bench.board).during.iron.is_some());
/// ```
pub fn first_settings(removal: &Recipe, board: &Board) -> Recipe {
    if removal.air.is_some() {
        return Recipe { bridge: None, begins_at: None, levered: false, ..removal.clone() };
    }
    let iron = Iron { row: EVERY_ROW.to_owned(), tip: PIN_TIP, dwell: ON_A_PIN, ..usual::iron(board) };
    let round = iron.visits(board).len() as f64 * ON_A_PIN.in_seconds();
    let longest = Duration::seconds((2.0 * round).clamp(20.0, 600.0));
    Recipe {
        longest,
        ..Recipe::from(HeatingAids { preheater: removal.during.preheater, iron: Some(iron), ..HeatingAids::default() })
    }
}
