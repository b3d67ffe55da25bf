//! The cells of the board under something, and what they are at on the whole.

use super::mesh::Mesh;
use super::run_view::RunView;
use super::stepping::Sweep;
use crate::board::Face;

/// Cells of one layer under something, with their shares.
#[derive(Debug, Clone, PartialEq)]
pub struct Under {
    /// Columns and shares; the shares sum to 1.
    pub columns: Vec<((usize, usize), f64)>,
    /// The layer, 0 at the top.
    pub layer: usize,
}

/// The layer of a face.
pub(super) fn layer_of(mesh: &Mesh, face: Face) -> usize {
    match face {
        Face::Top => 0,
        Face::Bottom => mesh.layers - 1,
    }
}

/// Mean of the cells under something, K over ambient.
pub(crate) fn mean<const RUNS: usize>(state: &RunView<'_, f32, RUNS>, under: &Under) -> f64
where
    f32: Sweep<RUNS>,
{
    under.columns.iter().map(|(column, share)| share * state.cell(*column, under.layer)).sum()
}
