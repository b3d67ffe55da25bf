//! What bodies near the heat are made of, and what each stands for a short time without load.
//!
//! Limits are material-family data and engineering estimates, recalled; check a datasheet where a part matters.
//! Where a family has a range, its lower end is the limit here.

use serde::{Deserialize, Serialize};

use crate::units::{TempDelta, Temperature};

/// The material of a connector body or of a component near it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum BodyMaterial {
    /// Liquid-crystal polymer: most modern connectors.
    Lcp,
    /// Polyamide 9T: better connectors.
    Pa9t,
    /// Polyamide 46: headers, older connectors.
    Pa46,
    /// Polyamide 66: latches, cheap headers.
    Pa66,
    /// Polybutylene terephthalate: older connectors, optical ports.
    Pbt,
    /// Polyphenylene sulphide: sockets, coil formers.
    Pps,
    /// Polycarbonate/ABS blend: frames and holders.
    PcAbs,
    /// PVC cable sheath.
    Pvc,
    /// Moulded chip package on the board.
    EpoxyPackage,
    /// Ceramic capacitor, filter or resistor.
    Ceramic,
    /// Quartz crystal or oscillator in a metal can.
    Crystal,
    /// Wet aluminium electrolytic capacitor.
    ElectrolyticCan,
    /// Microphone or sensor with an open port.
    MemsMicrophone,
    /// Lithium cell: comes out before heat.
    LithiumCell,
    /// Display or camera: comes out before heat, or stays far.
    Display,
    /// Acrylic foam adhesive.
    AcrylicFoam,
    /// Film of a flexible circuit, with the adhesive between its layers.
    FlexFilm,
    /// Laminate of a second board, with its copper and its chips.
    Laminate,
    /// Metal shield or can.
    Metal,
}

impl BodyMaterial {
    /// All of them, in the order in which a person looks for one.
    pub const ALL: [Self; 19] = [
        Self::Lcp,
        Self::Pa9t,
        Self::Pa46,
        Self::Pa66,
        Self::Pbt,
        Self::Pps,
        Self::PcAbs,
        Self::Pvc,
        Self::EpoxyPackage,
        Self::Ceramic,
        Self::Crystal,
        Self::ElectrolyticCan,
        Self::MemsMicrophone,
        Self::LithiumCell,
        Self::Display,
        Self::AcrylicFoam,
        Self::FlexFilm,
        Self::Laminate,
        Self::Metal,
    ];

    /// The most its body stands for seconds, in °C (material-family data, lower end of the range).
    pub const fn limit(self) -> Temperature {
        Temperature::celsius(match self {
            Self::Lcp => 300.0,
            Self::Pa9t => 280.0,
            Self::Pa46 => 270.0,
            Self::Pa66 => 235.0,
            Self::Pbt => 215.0,
            Self::Pps => 265.0,
            Self::PcAbs => 95.0,
            Self::Pvc => 75.0,
            // Peak of a package in a reflow profile (J-STD-020 class figure).
            Self::EpoxyPackage | Self::Crystal | Self::MemsMicrophone | Self::Laminate => 260.0,
            // The ceramic stands more; its ramp and its own joints are what suffers.
            Self::Ceramic => 280.0,
            Self::ElectrolyticCan => 230.0,
            Self::LithiumCell => 60.0,
            Self::Display => 70.0,
            Self::AcrylicFoam => 80.0,
            // The film stands more; its adhesive blisters above this (E, 260-300).
            Self::FlexFilm => 280.0,
            // Solid: what melts is its own solder. Float-off of components' joints is judged apart.
            Self::Metal => 320.0,
        })
    }

    /// How far below the limit the body is wanted: the margin that the material data deserve.
    pub const fn wanted_margin(self) -> TempDelta {
        TempDelta::kelvin(15.0)
    }

    /// Heat capacity of the gross volume, J/m³K, hollows included. Plastic 1.4 g/cm³ x 1.4 J/gK x 0.6 filled
    /// (engineering estimate, +-30 %); ceramic, package, metal from textbook density x specific heat.
    pub const fn capacity(self) -> f64 {
        match self {
            Self::Ceramic => 3.0e6,
            Self::EpoxyPackage => 1.9e6,
            Self::Crystal | Self::Metal | Self::FlexFilm => 1.5e6,
            Self::ElectrolyticCan | Self::LithiumCell | Self::Display | Self::Laminate => 2.2e6,
            Self::MemsMicrophone => 1.2e6,
            Self::AcrylicFoam => 0.8e6,
            _ => 1.2e6,
        }
    }

    /// Density of the gross volume, g/cm³, hollows included (D for the materials, E for how full a body is, +-30 %): plastic 1.5
    /// x 0.6, a capacitor's ceramic 5.5, a drawn can is mostly air.
    pub const fn density(self) -> f64 {
        match self {
            Self::Ceramic => 5.5,
            Self::EpoxyPackage | Self::MemsMicrophone | Self::ElectrolyticCan | Self::Laminate => 1.8,
            Self::Crystal => 2.5,
            Self::LithiumCell | Self::Display => 2.4,
            Self::Metal => 1.2,
            Self::AcrylicFoam => 0.3,
            Self::FlexFilm => 1.5,
            _ => 0.9,
        }
    }

    /// How fast it may warm, K/s: packages that may hold moisture and ceramics that crack (J-STD-020 class figure).
    pub const fn fastest_ramp(self) -> Option<f64> {
        match self {
            Self::EpoxyPackage | Self::MemsMicrophone | Self::Ceramic => Some(3.0),
            _ => None,
        }
    }

    /// Conductance between skin and core per area, W/m²K: k / path. Plastic k 0.3 over 0.8 mm (range k 0.2-0.5).
    pub const fn skin_to_core(self) -> f64 {
        match self {
            Self::Ceramic | Self::Metal | Self::Crystal => 5000.0,
            // 0.35 W/mK over half of 0.8 mm.
            Self::Laminate => 900.0,
            Self::EpoxyPackage | Self::MemsMicrophone => 1000.0,
            Self::ElectrolyticCan => 800.0,
            _ => 375.0,
        }
    }

    /// Share of its footprint that is soldered pad, 0-1 (E, x0.5-2): a part soldered all over follows its board.
    pub const fn pad_share(self) -> f64 {
        match self {
            Self::Ceramic => 0.4,
            Self::Crystal | Self::MemsMicrophone => 0.3,
            Self::EpoxyPackage => 0.15,
            Self::Metal | Self::Laminate => 0.1,
            Self::ElectrolyticCan => 0.05,
            Self::LithiumCell | Self::Display | Self::AcrylicFoam | Self::Pvc | Self::PcAbs => 0.0,
            // Contacts reach the plastic through thin pins only.
            _ => 0.02,
        }
    }

    /// Emissivity: metal 0.15 bare, all else 0.9 (textbook).
    pub const fn emissivity(self) -> f64 {
        match self {
            Self::Metal | Self::Crystal | Self::ElectrolyticCan => 0.15,
            _ => 0.9,
        }
    }

    /// Its name as a technician says it.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Lcp => "LCP plastic",
            Self::Pa9t => "PA9T plastic",
            Self::Pa46 => "PA46 plastic",
            Self::Pa66 => "PA66 plastic",
            Self::Pbt => "PBT plastic",
            Self::Pps => "PPS plastic",
            Self::PcAbs => "PC/ABS plastic",
            Self::Pvc => "PVC sheath",
            Self::EpoxyPackage => "chip package",
            Self::Ceramic => "ceramic",
            Self::Crystal => "crystal can",
            Self::ElectrolyticCan => "electrolytic can",
            Self::MemsMicrophone => "microphone",
            Self::LithiumCell => "lithium cell",
            Self::Display => "display",
            Self::AcrylicFoam => "adhesive foam",
            Self::FlexFilm => "flex film",
            Self::Laminate => "laminate",
            Self::Metal => "metal can",
        }
    }
}
