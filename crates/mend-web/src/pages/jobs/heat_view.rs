//! Which part of the heat plan is looked at. Each has its own address and its own key.

use serde::Deserialize;

/// A part of the plan beside its verdict.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(crate) enum HeatView {
    /// The margin strip, and both faces at release.
    #[default]
    Margins,
    /// The process window.
    Window,
    /// The replay with its curves.
    Replay,
    /// What the laminate bears, and what the rules have to say.
    Limits,
}

impl HeatView {
    /// All of them, in the order of their keys.
    pub(crate) const ALL: [Self; 4] = [Self::Margins, Self::Window, Self::Replay, Self::Limits];

    /// As it stands in an address.
    pub(crate) const fn key(self) -> &'static str {
        match self {
            Self::Margins => "margins",
            Self::Window => "window",
            Self::Replay => "replay",
            Self::Limits => "limits",
        }
    }

    /// As its tab is called.
    pub(crate) const fn name(self) -> &'static str {
        match self {
            Self::Margins => "Margins",
            Self::Window => "Process window",
            Self::Replay => "Replay",
            Self::Limits => "Laminate, notes",
        }
    }

    /// The page's address with this part.
    pub(crate) fn address(self, job: impl std::fmt::Display) -> String {
        match self {
            Self::Margins => format!("/jobs/{job}/heat"),
            _ => format!("/jobs/{job}/heat?view={}", self.key()),
        }
    }

    /// By what an address or a form says; the margins where it says nothing we know.
    pub(crate) fn named(key: &str) -> Self {
        Self::ALL.into_iter().find(|view| view.key() == key).unwrap_or_default()
    }

    /// As a form that the page sends has it.
    pub(crate) fn from_form(fields: &[(String, String)]) -> Self {
        Self::named(fields.iter().find(|(name, _)| name == "view").map_or("", |(_, key)| key))
    }
}

/// The query of the page's addresses.
#[derive(Debug, Deserialize)]
pub(crate) struct ViewQuery {
    #[serde(default)]
    view: String,
}

impl ViewQuery {
    /// What it asks for.
    pub(crate) fn view(&self) -> HeatView {
        HeatView::named(&self.view)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_view_has_an_address_and_anything_else_shows_the_margins() {
        assert!(HeatView::ALL.into_iter().all(|view| HeatView::named(view.key()) == view));
        assert_eq!(HeatView::named("elsewhere"), HeatView::Margins);
        let form = [("set".to_owned(), "window".to_owned()), ("view".to_owned(), "replay".to_owned())];
        assert_eq!(HeatView::from_form(&form), HeatView::Replay);
    }
}
