//! The help page: our own words, each explained once, and the keys.

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::routing::get;

use super::Frame;
use crate::App;
use crate::visitor::Visitor;

/// A word that the trade does not have.
struct OwnWord {
    /// Its anchor on the page.
    key: &'static str,
    word: &'static str,
    is: &'static str,
}

/// All of them. Other words on the pages are the trade's.
const OWN_WORDS: [OwnWord; 7] = [
    OwnWord {
        key: "process-window",
        word: "Process window",
        is: "The settings at which every joint melts before anything is damaged. Open: nine samples of ten work, and nothing comes near its limit. Tight: at least half of them. Closed: fewer.",
    },
    OwnWord {
        key: "margin-strip",
        word: "Margin strip",
        is: "All joints and all limits on one temperature axis. A joint's band must end right of its melting line, everything else's left of its limit; the figure at the end is the headroom that is left.",
    },
    OwnWord {
        key: "line-of-stops",
        word: "Line of stops",
        is: "The stages of a job, from intake to handover. A filled pad is done, a ringed one is next; each shows its one key figure.",
    },
    OwnWord {
        key: "pin-walk",
        word: "Pin walk",
        is: "The check of every pin after soldering, one after the other, under the microscope: firm, moves, bridged, starved or missing.",
    },
    OwnWord {
        key: "cleaning-ledger",
        word: "Cleaning ledger",
        is: "What was fed into the joints, flooded and wicked out again, and what is left in them by arithmetic. Fitting stays closed until the joints are within limits.",
    },
    OwnWord {
        key: "probe",
        word: "Probe",
        is: "A warm-up that measures a station and a board: two minutes at 150 °C with a thermocouple beside the part. What it reads is compared with 256 runs, and the plans after it start from those that agree.",
    },
    OwnWord {
        key: "lesson",
        word: "Lesson",
        is: "What one measurement taught of a station and a board. Every plan starts from all lessons that count; one that went wrong can be left out with a reason on the station's page.",
    },
];

/// Keys, by where they work.
const KEYS: [(&str, &str); 11] = [
    (
        "Heat plan",
        "1 to 4 open its parts; on the process window the arrow keys move the setting, on the map they move a shield or the jet.",
    ),
    (
        "Bench run",
        "Space, Enter, the right arrow or a pedal goes on; Backspace or the left arrow undoes the last press; S aborts.",
    ),
    ("Cleaning ledger", "F enters a feed or a flood, W a wick pass."),
    (
        "Opening and closing",
        "Space or a pedal is the next thing out, or back in; B puts one back; the left arrow undoes; Escape skips.",
    ),
    ("Look", "Arrows move; w, c, l, t and x say how a land is; a reading is typed and entered, o is open."),
    ("Pin walk", "Arrows move; f, m, b, s and x mark; Backspace takes a mark back; Escape skips."),
    ("Between pins", "a apart, j joined."),
    ("What stands near", "i in place, k knocked off, h harmed."),
    ("Tests", "w works, f fails, n not possible; Enter goes on; Escape skips."),
    (
        "Board editor",
        "Arrows move by 0.1 mm, with Shift by 1 mm, with Alt they change the size; Delete removes, D duplicates.",
    ),
    ("Replay", "The slider moves through time; a click on a board watches that place."),
];

#[derive(Template, WebTemplate)]
#[template(path = "help.html")]
struct HelpPage {
    frame: Frame,
    words: &'static [OwnWord],
    keys: &'static [(&'static str, &'static str)],
}

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/help", get(show))
}

async fn show(visitor: Visitor) -> HelpPage {
    let frame = Frame::new("Help".to_owned(), visitor.scale, "help", "/help".to_owned());
    HelpPage { frame, words: &OWN_WORDS, keys: &KEYS }
}
