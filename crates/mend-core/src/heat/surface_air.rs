//! What the air does to one surface cell of the board.

/// One surface cell's exchange with the air, SI.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct SurfaceAir {
    /// h, W/m²K.
    pub loss: f64,
    /// h x gas excess, W/m².
    pub gain: f64,
    /// Emissivity; 0 where radiation is already in `loss`.
    pub emissivity: f64,
    /// Linearised radiation, W/m²K, without the half-cell factor.
    pub linear_radiation: f64,
}

impl SurfaceAir {
    /// All of it times `share`: what is left where something stands on the surface.
    pub fn scaled(self, share: f64) -> Self {
        Self {
            loss: self.loss * share,
            gain: self.gain * share,
            emissivity: self.emissivity * share,
            linear_radiation: self.linear_radiation * share,
        }
    }
}
