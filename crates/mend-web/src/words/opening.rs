//! What a device is opened by, in words.

use mend_core::opening::item::{Hazard, ItemKind, Latch};
use mend_core::opening::order::OrderProblem;
use mend_core::opening::tally::Heap;

use super::Words;

/// How a latch opens.
const fn latch(of: Latch) -> &'static str {
    match of {
        Latch::FlipUp => "flip the bar up",
        Latch::SlideOut => "slide the frame out",
        Latch::PushFit => "straight up",
        Latch::SnapOn => "coaxial, straight up by its shell",
        Latch::ZeroForce => "by its tape, nothing to open",
    }
}

fn coloured(colour: &str) -> String {
    if colour.is_empty() { String::new() } else { format!(", {colour}") }
}

impl Words {
    /// A thing on a map.
    pub fn opening_item(&self, what: &ItemKind) -> String {
        match what {
            ItemKind::Screw { head, length_mm, thread_mm, colour } => {
                format!("{} screw {length_mm} mm, thread {thread_mm} mm{}", head.key(), coloured(colour))
            }
            ItemKind::Cable { latch: how, of_cell: true } => format!("cable of the cell: {}", latch(*how)),
            ItemKind::Cable { latch: how, .. } => format!("cable: {}", latch(*how)),
            ItemKind::Clip => "clip".to_owned(),
            ItemKind::Adhesive { warm_c, for_s } => {
                format!("adhesive: warm to {} for {for_s} s", self.temperature(*warm_c))
            }
            ItemKind::ThermalPad { count: 1, thickness_mm } => format!("thermal pad, {thickness_mm} mm"),
            ItemKind::ThermalPad { count, thickness_mm } => format!("{count} thermal pads, {thickness_mm} mm"),
            ItemKind::Paste => "thermal paste: renewed".to_owned(),
            ItemKind::LiquidMetal => "liquid metal: contain it, renew it".to_owned(),
            ItemKind::Own => "the customer's own: bag it with its label".to_owned(),
            ItemKind::Hazard { of: Hazard::Cell } => "lithium cell".to_owned(),
            ItemKind::Hazard { of: Hazard::Mains } => "mains supply".to_owned(),
            ItemKind::Hazard { of: Hazard::Spring } => "spring that jumps".to_owned(),
            ItemKind::Hazard { of: Hazard::Glass } => "glass that breaks".to_owned(),
        }
    }
}

/// Things that are counted together.
pub fn heap(of: &Heap) -> String {
    match of {
        Heap::Screws { head, length_mm, thread_mm, colour } => {
            format!("{} {length_mm} mm × {thread_mm} mm{}", head.key(), coloured(colour))
        }
        Heap::Cables => "cables".to_owned(),
        Heap::Other => "clips, pads and the like".to_owned(),
    }
}

/// What is wrong with a map's order; `named` names a thing.
pub fn order_problem(of: &OrderProblem, named: &dyn Fn(u32) -> String) -> String {
    match of {
        OrderProblem::NoCellCable => {
            "There is a cell, and no cable is said to be the cell's. It is disconnected before anything else."
                .to_owned()
        }
        OrderProblem::BeforeCell(before) => {
            let before: Vec<String> = before.iter().map(|id| named(*id)).collect();
            format!("{} would be opened while the cell is connected: the cell's cable comes first.", before.join(", "))
        }
    }
}

#[cfg(test)]
mod tests {
    use mend_core::opening::item::ScrewHead;

    use super::*;

    #[test]
    fn a_screw_is_said_with_its_units() {
        let what =
            ItemKind::Screw { head: ScrewHead::SixLobe, length_mm: 4.5, thread_mm: 2.0, colour: "black".to_owned() };
        assert_eq!(Words::default().opening_item(&what), "six-lobe screw 4.5 mm, thread 2 mm, black");
        let before = OrderProblem::BeforeCell(vec![3, 4]);
        assert!(order_problem(&before, &|id| format!("cable {id}")).starts_with("cable 3, cable 4 would be opened"));
    }
}
