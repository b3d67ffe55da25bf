//! The address of a job's heat pages: whose, and which of its two runs of heat. `/jobs/7/heat` and `/jobs/7/fit` are one page each
//! with the same parts.

use axum::extract::{FromRequestParts, Path};
use axum::http::request::Parts;

use crate::job::HeatWork;
use crate::refusal::Refusal;

/// A job and one of its runs of heat, as an address says.
#[derive(Debug, Clone, Copy)]
pub(crate) struct HeatPath {
    pub(crate) job: i64,
    pub(crate) work: HeatWork,
}

impl HeatPath {
    /// What its addresses begin with.
    pub(crate) fn address(self) -> String {
        self.work.address(self.job)
    }
}

impl<S: Send + Sync> FromRequestParts<S> for HeatPath {
    type Rejection = Refusal;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Refusal> {
        let path = Path::<String>::from_request_parts(parts, state).await.map_err(|_| Refusal::NotFound("job"))?;
        // `/jobs/7/fit/...`: what stands after the number.
        let said = parts.uri.path().split('/').nth(3).unwrap_or_default();
        let work = HeatWork::ALL.into_iter().find(|work| work.path() == said).unwrap_or(HeatWork::Removal);
        Ok(Self { job: super::number(&path)?, work })
    }
}
