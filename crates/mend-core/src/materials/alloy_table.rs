//! The alloy table: composition in wt% (Sn Pb Bi In Ag Cu Sb Zn), published solidus and liquidus in °C.
//!
//! Recalled from the open literature, not looked up again: good to work with, but check one against a current
//! datasheet before it is shown as a rule. `confidence` says how sure each is; notes carry the disagreements.

use super::alloy::Alloy;
use super::alloy::Confidence::{self, High, Low, Medium};
use super::composition::Composition;

const fn alloy(name: &'static str, wt_percent: [f64; 8], range: (f64, f64), sure: (Confidence, &'static str)) -> Alloy {
    Alloy { name, wt_percent, solidus_c: range.0, liquidus_c: range.1, confidence: sure.0, note: sure.1 }
}

/// Every alloy the shop can name.
#[rustfmt::skip]
pub const ALLOYS: &[Alloy] = &[
    alloy("Sn63Pb37", [63.0, 37.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (183.0, 183.0), (High, "eutectic; assessments place it at 61.9 wt% Sn")),
    alloy("Sn60Pb40", [60.0, 40.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (183.0, 190.0), (High, "188-191 quoted")),
    alloy("Sn50Pb50", [50.0, 50.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (183.0, 214.0), (High, "212-216 quoted")),
    alloy("Sn40Pb60", [40.0, 60.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (183.0, 238.0), (High, "234-238 quoted")),
    alloy("Sn30Pb70", [30.0, 70.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (183.0, 257.0), (High, "255-258")),
    alloy("Sn20Pb80", [20.0, 80.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (183.0, 279.0), (High, "277-280")),
    alloy("Sn10Pb90", [10.0, 90.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (270.0, 302.0), (High, "solidus 268-275 (equilibrium), Scheil 183")),
    alloy("Sn5Pb95", [5.0, 95.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (305.0, 313.0), (High, "solidus 300-308, liquidus 312-314")),
    alloy("Sn70Pb30", [70.0, 30.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], (183.0, 193.0), (High, "")),
    alloy("Sn62Pb36Ag2", [62.0, 36.0, 0.0, 0.0, 2.0, 0.0, 0.0, 0.0], (179.0, 179.0), (High, "also quoted 177-189 / 179-180; ternary eutectic about 178 C")),
    alloy("Sn96.5Ag3.5", [96.5, 0.0, 0.0, 0.0, 3.5, 0.0, 0.0, 0.0], (221.0, 221.0), (High, "eutectic")),
    alloy("Sn95Ag5", [95.0, 0.0, 0.0, 0.0, 5.0, 0.0, 0.0, 0.0], (221.0, 242.0), (Medium, "240-245")),
    alloy("Sn90Ag10", [90.0, 0.0, 0.0, 0.0, 10.0, 0.0, 0.0, 0.0], (221.0, 295.0), (Medium, "")),
    alloy("Sn99.3Cu0.7", [99.3, 0.0, 0.0, 0.0, 0.0, 0.7, 0.0, 0.0], (227.0, 227.0), (High, "eutectic 0.7-0.9 wt% Cu")),
    alloy("Sn97Cu3", [97.0, 0.0, 0.0, 0.0, 0.0, 3.0, 0.0, 0.0], (227.0, 305.0), (Medium, "300-330 quoted: large disagreement")),
    alloy("SAC387", [95.5, 0.0, 0.0, 0.0, 3.8, 0.7, 0.0, 0.0], (217.0, 219.0), (High, "ternary eutectic 217 C near 3.5-3.8Ag 0.7-0.9Cu")),
    alloy("Sn42Bi58", [42.0, 0.0, 58.0, 0.0, 0.0, 0.0, 0.0, 0.0], (138.0, 138.0), (High, "eutectic 138-139")),
    alloy("Sn60Bi40", [60.0, 0.0, 40.0, 0.0, 0.0, 0.0, 0.0, 0.0], (138.0, 170.0), (High, "")),
    alloy("Bi55.5Pb44.5", [0.0, 44.5, 55.5, 0.0, 0.0, 0.0, 0.0, 0.0], (124.0, 124.0), (High, "assessments 125.5")),
    alloy("Bi52.5Pb32Sn15.5", [15.5, 32.0, 52.5, 0.0, 0.0, 0.0, 0.0, 0.0], (95.0, 95.0), (High, "ternary eutectic 95-97; eutectic composition quoted Bi 50-52.5")),
    alloy("Bi46Sn34Pb20", [34.0, 20.0, 46.0, 0.0, 0.0, 0.0, 0.0, 0.0], (96.0, 123.0), (Low, "sources give 95-105 to 96-123")),
    alloy("Bi50Pb25Sn25", [25.0, 25.0, 50.0, 0.0, 0.0, 0.0, 0.0, 0.0], (95.0, 115.0), (Low, "often quoted 93-98 as melting range, liquidus about 115")),
    alloy("Sn46Pb46Bi8", [46.0, 46.0, 8.0, 0.0, 0.0, 0.0, 0.0, 0.0], (159.0, 170.0), (Low, "8% Bi figures sit too low against neighbours 0% (214) and 14% (163); liquidus 167-175; solidus quoted inconsistent (120 v 159)")),
    alloy("Sn48Bi32Pb20", [48.0, 20.0, 32.0, 0.0, 0.0, 0.0, 0.0, 0.0], (96.0, 150.0), (Low, "140-160 quoted as range; equilibrium freezing 96-ish")),
    alloy("In52Sn48", [48.0, 0.0, 0.0, 52.0, 0.0, 0.0, 0.0, 0.0], (118.0, 118.0), (High, "117-120")),
    alloy("In50Sn50", [50.0, 0.0, 0.0, 50.0, 0.0, 0.0, 0.0, 0.0], (118.0, 125.0), (High, "")),
    alloy("In42Sn58", [58.0, 0.0, 0.0, 42.0, 0.0, 0.0, 0.0, 0.0], (118.0, 145.0), (High, "")),
    alloy("In51Bi32.5Sn16.5", [16.5, 0.0, 32.5, 51.0, 0.0, 0.0, 0.0, 0.0], (60.0, 60.0), (High, "60-62")),
    alloy("In66.3Bi33.7", [0.0, 0.0, 33.7, 66.3, 0.0, 0.0, 0.0, 0.0], (72.0, 72.0), (High, "72-73")),
    alloy("Bi67In33", [0.0, 0.0, 67.0, 33.0, 0.0, 0.0, 0.0, 0.0], (109.0, 109.0), (High, "")),
    alloy("Bi57Sn17In26", [17.0, 0.0, 57.0, 26.0, 0.0, 0.0, 0.0, 0.0], (79.0, 79.0), (High, "ternary eutectic 77.5-79")),
    alloy("Bi49In21Pb18Sn12", [12.0, 18.0, 49.0, 21.0, 0.0, 0.0, 0.0, 0.0], (58.0, 58.0), (High, "57-58, quaternary near-eutectic")),
    alloy("In97Ag3", [0.0, 0.0, 0.0, 97.0, 3.0, 0.0, 0.0, 0.0], (143.0, 143.0), (High, "143-144")),
    alloy("In90Ag10", [0.0, 0.0, 0.0, 90.0, 10.0, 0.0, 0.0, 0.0], (143.0, 237.0), (Medium, "141-237")),
    alloy("In70Pb30", [0.0, 30.0, 0.0, 70.0, 0.0, 0.0, 0.0, 0.0], (165.0, 174.0), (Medium, "160-174, 165-175")),
    alloy("In60Pb40", [0.0, 40.0, 0.0, 60.0, 0.0, 0.0, 0.0, 0.0], (174.0, 183.0), (Medium, "173-181 / 174-185")),
    alloy("In50Pb50", [0.0, 50.0, 0.0, 50.0, 0.0, 0.0, 0.0, 0.0], (182.0, 210.0), (Medium, "180-209 / 184-210")),
    alloy("In40Pb60", [0.0, 60.0, 0.0, 40.0, 0.0, 0.0, 0.0, 0.0], (196.0, 228.0), (Medium, "195-225 / 197-231")),
    alloy("In25Pb75", [0.0, 75.0, 0.0, 25.0, 0.0, 0.0, 0.0, 0.0], (230.0, 262.0), (Medium, "226-264 / 240-260")),
    alloy("In19Pb81", [0.0, 81.0, 0.0, 19.0, 0.0, 0.0, 0.0, 0.0], (265.0, 277.0), (Medium, "260-275 / 270-280")),
    alloy("In5Pb95", [0.0, 95.0, 0.0, 5.0, 0.0, 0.0, 0.0, 0.0], (295.0, 314.0), (Medium, "292-314 / 300-313")),
    alloy("Sn37.5Pb37.5In25", [37.5, 37.5, 0.0, 25.0, 0.0, 0.0, 0.0, 0.0], (134.0, 181.0), (High, "")),
    alloy("Sn54Pb26In20", [54.0, 26.0, 0.0, 20.0, 0.0, 0.0, 0.0, 0.0], (138.0, 152.0), (Medium, "136-152 / 140-154")),
    alloy("Sn77.2In20Ag2.8", [77.2, 0.0, 0.0, 20.0, 2.8, 0.0, 0.0, 0.0], (175.0, 187.0), (High, "DSC figures; as-cast metal shows a trace arrest near 114-118")),
    alloy("Sn95Sb5", [95.0, 0.0, 0.0, 0.0, 0.0, 0.0, 5.0, 0.0], (235.0, 240.0), (High, "232-240")),
    alloy("Pb88.9Sb11.1", [0.0, 88.9, 0.0, 0.0, 0.0, 0.0, 11.1, 0.0], (252.0, 252.0), (High, "")),
    alloy("Pb95Sb5", [0.0, 95.0, 0.0, 0.0, 0.0, 0.0, 5.0, 0.0], (252.0, 292.0), (Medium, "")),
    alloy("Pb97.5Ag2.5", [0.0, 97.5, 0.0, 0.0, 2.5, 0.0, 0.0, 0.0], (303.0, 303.0), (High, "303-304")),
    alloy("Pb93.5Sn5Ag1.5", [5.0, 93.5, 0.0, 0.0, 1.5, 0.0, 0.0, 0.0], (296.0, 301.0), (Medium, "")),
    alloy("Sn91Zn9", [91.2, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 8.8], (199.0, 199.0), (High, "")),
    alloy("Pb80Sn12Sb8", [12.0, 80.0, 0.0, 0.0, 0.0, 0.0, 8.0, 0.0], (240.0, 246.0), (Low, "bearing-type alloy, indicative only")),
    alloy("SAC305", [96.5, 0.0, 0.0, 0.0, 3.0, 0.5, 0.0, 0.0], (217.0, 220.0), (High, "217-221")),
    alloy("SAC105", [98.5, 0.0, 0.0, 0.0, 1.0, 0.5, 0.0, 0.0], (217.0, 226.0), (High, "215-227 also quoted")),
    alloy("SAC0307", [99.0, 0.0, 0.0, 0.0, 0.3, 0.7, 0.0, 0.0], (217.0, 227.0), (High, "")),
    alloy("Sn42Bi57.6Ag0.4", [42.0, 0.0, 57.6, 0.0, 0.4, 0.0, 0.0, 0.0], (138.0, 139.0), (Medium, "138-140")),
];

impl Alloy {
    /// The alloy of that name, if the table has it. Case does not matter.
    pub fn named(name: &str) -> Option<&'static Alloy> {
        ALLOYS.iter().find(|alloy| alloy.name.eq_ignore_ascii_case(name.trim()))
    }
    /// The row that a composition is, within 0.5 wt% on every element; the nearest of several.
    pub fn near(composition: &Composition) -> Option<&'static Alloy> {
        let off = |alloy: &Alloy| {
            let pairs = alloy.wt_percent.iter().zip(composition.wt_percent());
            pairs.map(|(own, wt)| (own - wt).abs()).fold(0.0, f64::max)
        };
        let nearest = ALLOYS.iter().min_by(|a, b| off(a).total_cmp(&off(b)))?;
        (off(nearest) <= 0.5).then_some(nearest)
    }
}
