//! Which of a job's two runs of heat is meant: the old part off, or the new one on. Each has its settings, its plan and its pages.

use mend_core::heat::purpose::Purpose;
use mend_core::method::JobKind;

/// One of the two.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum HeatWork {
    /// The old part comes off.
    Removal,
    /// The new part goes on.
    Fit,
}

impl From<Purpose> for HeatWork {
    fn from(purpose: Purpose) -> Self {
        if purpose.fits() { Self::Fit } else { Self::Removal }
    }
}

impl HeatWork {
    /// Both, in their order.
    pub(crate) const ALL: [Self; 2] = [Self::Removal, Self::Fit];

    /// Those of a kind of job, in their order.
    pub(crate) fn of_kind(kind: JobKind) -> Vec<Self> {
        let off = kind.removes().then_some(Self::Removal);
        off.into_iter().chain(kind.fits().then_some(Self::Fit)).collect()
    }

    /// As it stands in an address.
    pub(crate) const fn path(self) -> &'static str {
        match self {
            Self::Removal => "heat",
            Self::Fit => "fit",
        }
    }

    /// As its tab is called.
    pub(crate) const fn name(self) -> &'static str {
        match self {
            Self::Removal => "Removal",
            Self::Fit => "Fit",
        }
    }

    /// Is it the new part's?
    pub(crate) fn is_fit(self) -> bool {
        self == Self::Fit
    }

    /// The address of a job's pages of it.
    pub(crate) fn address(self, job: impl std::fmt::Display) -> String {
        format!("/jobs/{job}/{}", self.path())
    }
}
