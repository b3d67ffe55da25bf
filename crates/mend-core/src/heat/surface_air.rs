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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_stands_on_a_surface_takes_its_share_of_everything() {
        let bare = SurfaceAir { loss: 20.0, gain: 4000.0, emissivity: 0.9, linear_radiation: 5.0 };
        let half = bare.scaled(0.5);
        assert_eq!((half.loss, half.gain, half.emissivity, half.linear_radiation), (10.0, 2000.0, 0.45, 2.5));
        assert_eq!(bare.scaled(0.0), SurfaceAir::default());
    }
}
