//! What the unit tests draw: the demo's laptop power board at a demo station, planned once.

use std::sync::LazyLock;

use mend_core::board::Board;
use mend_core::heat::station::Station;
use mend_core::planning::make_plan::plan;
use mend_core::planning::plan::Plan;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::watch::Watch;
use mend_formats::bundle::Bundle;
use mend_formats::{board, shop, station};

static PLANNED: LazyLock<(PlanInputs, Plan)> = LazyLock::new(|| {
    let job = shop::parse(include_bytes!("../../../demo/jobs/06-tern-late.json")).expect("a job");
    let mut inputs = job.plan.expect("a plan's inputs");
    // Cooler than the demo has it: a plan with something to mend.
    let air = inputs.settings.air.as_mut().expect("hot air");
    air.set = mend_core::units::Temperature::celsius(330.0);
    let bundle = bundle(&inputs);
    let plan = plan(&bundle.order(&Watch::new())).expect("can be planned");
    (inputs, plan)
});

pub(crate) fn power_board() -> Board {
    board::parse(include_bytes!("../../../demo/boards/quillon-tern-15.json")).expect("a board")
}

pub(crate) fn gull() -> Station {
    station::parse(include_bytes!("../../../demo/stations/1-gull.json")).expect("a station")
}

/// What the demo's job 6 is planned from, and its plan.
pub(crate) fn planned() -> &'static (PlanInputs, Plan) {
    &PLANNED
}

/// The board with some inputs at the station, whatever station they name.
pub(crate) fn bundle(inputs: &PlanInputs) -> Bundle {
    Bundle {
        board: power_board(),
        keep_intact: inputs.keep_intact,
        composition: inputs.heated_composition(&power_board()).expect("an alloy"),
        purpose: inputs.purpose,
        station: gull(),
        recipe: inputs.settings.clone(),
        fit: None,
        equipment: mend_formats::equipment::EquipmentFile::default().equipment().expect("known"),
        ambient: mend_core::units::Temperature::celsius(23.0),
        known: mend_core::heat::known::Knowledge::NOTHING,
    }
}
