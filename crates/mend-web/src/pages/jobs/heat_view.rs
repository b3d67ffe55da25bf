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
    /// Of a fit: the ways to do it, side by side.
    Ways,
}

impl HeatView {
    const ALL: [Self; 5] = [Self::Margins, Self::Window, Self::Replay, Self::Limits, Self::Ways];

    /// Those that a run of heat has, in the order of their keys.
    pub(crate) fn of(fit: bool) -> &'static [Self] {
        if fit { &Self::ALL } else { &Self::ALL[..4] }
    }

    /// As it stands in an address.
    pub(crate) const fn key(self) -> &'static str {
        match self {
            Self::Margins => "margins",
            Self::Window => "window",
            Self::Replay => "replay",
            Self::Limits => "limits",
            Self::Ways => "ways",
        }
    }

    /// As its tab is called.
    pub(crate) const fn name(self) -> &'static str {
        match self {
            Self::Margins => "Margins",
            Self::Window => "Process window",
            Self::Replay => "Replay",
            Self::Limits => "Laminate, notes",
            Self::Ways => "Ways to fit",
        }
    }

    /// The page's address with this part, by the address of its run of heat.
    pub(crate) fn address(self, at: &str) -> String {
        match self {
            Self::Margins => at.to_owned(),
            _ => format!("{at}?view={}", self.key()),
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
