//! The solver against closed forms and an independent solver: R1-R5 and R7 of the heat design.

use mend_core::board::{Face, Point};
use mend_core::heat::axis::Axis;
use mend_core::heat::blowing::Blowing;
use mend_core::heat::boundary::{Ambient, BoundaryConditions, HeatedBoard, LOSS_SCALE, Radiation};
use mend_core::heat::jet::{Jet, JetLaw};
use mend_core::heat::mesh::{Mesh, Slab};
use mend_core::heat::motion::Motion;
use mend_core::heat::nodes::{CellLink, Melting, Node, Nodes};
use mend_core::heat::shielding::Shielding;
use mend_core::heat::simulation::Simulation;
use mend_core::heat::stepping::Sweep;
use mend_core::heat::surface_air::SurfaceAir;
use mend_core::heat::tool::{Blower, HotAir};
use mend_core::units::{Flow, Length, Temperature};

const ROOM_K: f64 = 296.15;

fn plate([nx, ny, layers]: [usize; 3], cell: f64, slab: Slab) -> Mesh {
    Mesh::plate(Axis::uniform(nx, cell), Axis::uniform(ny, cell), layers, slab)
}

/// The same air on every column of the top, and of the bottom.
fn even_air(mesh: &Mesh, nodes: &Nodes, [top, bottom]: [SurfaceAir; 2]) -> BoundaryConditions {
    let columns = mesh.inside.len();
    BoundaryConditions {
        faces: [vec![top; columns], vec![bottom; columns]],
        nodes: vec![(0.0, 0.0); nodes.nodes.len()],
        tips: Vec::new(),
    }
}

fn air(h: f64, gas_excess: f64) -> SurfaceAir {
    SurfaceAir { loss: h, gain: h * gas_excess, ..SurfaceAir::default() }
}

fn insulated<R: Sweep>(mesh: Mesh, nodes: Nodes, step: f64) -> Simulation<R> {
    Simulation::new(mesh, nodes, (0.0, ROOM_K), step)
}

#[test]
fn r1_a_lumped_body_follows_its_exponential() {
    let slab = Slab { thickness: 1e-3, in_plane: 40.0, through: 1e6, capacity: 2e6 };
    let mesh = plate([3, 3, 1], 1.0, slab);
    let blown = even_air(&mesh, &Nodes::default(), [air(60.0, 300.0), air(0.0, 0.0)]);
    let mut s: Simulation<f64> = insulated(mesh, Nodes::default(), 0.5);
    s.set_air(&blown);
    for step in 1..=200 {
        s.advance();
        let t = f64::from(step) * 0.5;
        let exact = 300.0 * (1.0 - (-t / (2e6 * 1e-3 / 60.0)).exp());
        assert!((s.cell((1, 1), 0) - exact).abs() < 0.02, "{} against {exact} at {t} s", s.cell((1, 1), 0));
    }
}

/// Surface of a slab heated on one face: the series over the roots of z tan z = Bi.
fn slab_surface(biot: f64, fourier: f64) -> f64 {
    let root = |n: i32| {
        let (mut low, mut high) = (f64::from(n) * std::f64::consts::PI, (f64::from(n) + 0.5) * std::f64::consts::PI);
        for _ in 0..80 {
            let mid = (low + high) / 2.0;
            if mid * mid.tan() < biot { low = mid } else { high = mid }
        }
        low
    };
    let left: f64 = (0..40)
        .map(root)
        .map(|z| 4.0 * z.sin() / (2.0 * z + (2.0 * z).sin()) * (-z * z * fourier).exp() * z.cos())
        .sum();
    300.0 * (1.0 - left)
}

#[test]
fn r2_a_slab_follows_its_series_and_more_layers_come_closer() {
    let slab = Slab { thickness: 2e-3, in_plane: 0.35, through: 0.35, capacity: 2.2e6 };
    let exact = slab_surface(300.0 * 2e-3 / 0.35, 0.35 / 2.2e6 * 5.0 / 4e-6);
    assert!((exact - 149.7).abs() < 0.05, "the series gives {exact}");
    for (layers, tolerance) in [(6, 1.0), (16, 0.2)] {
        let mesh = plate([3, 3, layers], 1.0, slab);
        let blown = even_air(&mesh, &Nodes::default(), [air(300.0, 300.0), air(0.0, 0.0)]);
        let half_cell = 300.0 * mesh.layer_thickness() / 2.0 / slab.through;
        let mut s: Simulation<f64> = insulated(mesh, Nodes::default(), 0.1);
        s.set_air(&blown);
        (0..50).for_each(|_| s.advance());
        // From the middle of the first cell to its surface.
        let surface = (s.cell((1, 1), 0) + half_cell * 300.0) / (1.0 + half_cell);
        assert!((surface - exact).abs() < tolerance, "{layers} layers: {surface} against {exact}");
    }
}

/// Share of a 1 mm cell within 10 mm of the middle, by 20 x 20 points.
fn disk_share(x: f64, y: f64) -> f64 {
    let points = (0..400).map(|k| (f64::from(k % 20), f64::from(k / 20)));
    let inside = points.filter(|(a, b)| (x + (a - 9.5) / 20.0).hypot(y + (b - 9.5) / 20.0) < 10.0);
    inside.count() as f64 / 400.0
}

#[test]
fn r3_a_disk_source_on_a_sheet() {
    let slab = Slab { thickness: 1.6e-3, in_plane: 40.0, through: 40.0, capacity: 2.3e6 };
    let mesh = plate([160, 160, 2], 1.0, slab);
    let mut blown = even_air(&mesh, &Nodes::default(), [air(0.0, 0.0), air(0.0, 0.0)]);
    for (j, i) in (0..160).flat_map(|j| (0..160).map(move |i| (j, i))) {
        let share = disk_share(mesh.x.middle(i) - 80.0, mesh.y.middle(j) - 80.0);
        blown.faces[0][mesh.column(i, j)].gain = 3e4 * share;
    }
    let mut s: Simulation<f32> = insulated(mesh, Nodes::default(), 0.5);
    s.set_air(&blown);
    let mut done = 0;
    for (seconds, expected, percent) in [(5, 21.17, 1.2), (20, 36.22, 0.7), (60, 48.82, 0.5)] {
        (done..seconds * 2).for_each(|_| s.advance());
        done = seconds * 2;
        let middle: f64 =
            [(79, 79), (80, 79), (79, 80), (80, 80)].iter().map(|c| s.cell(*c, 0) + s.cell(*c, 1)).sum::<f64>() / 8.0;
        let off = (middle / expected - 1.0) * 100.0;
        assert!(off.abs() < percent, "{middle} K at {seconds} s, {off} % off");
    }
}

#[test]
fn r4_a_fin_settles_to_its_closed_form() {
    let slab = Slab { thickness: 1.6e-3, in_plane: 40.0, through: 40.0, capacity: 2.3e6 };
    let cell = 0.5;
    let mesh = plate([160, 1, 1], cell, slab);
    let mut nodes = Nodes::default();
    let base = nodes.add(Node::lump(f64::INFINITY));
    // The base is the border of the first cell: half a cell of board lies between.
    let conductance = 40.0 * (cell * 1e-3 * 1.6e-3) / (cell * 0.5e-3);
    nodes.cells.push(CellLink { node: base, column: (0, 0), layer: 0, conductance });
    let still = even_air(&mesh, &nodes, [air(25.0, 0.0), air(25.0, 0.0)]);
    let mut s: Simulation<f64> = insulated(mesh, nodes, 2.0);
    s.set_air(&still);
    s.set_node(base, 200.0);
    (0..600).for_each(|_| s.advance());
    let (m, length) = (27.95, 0.080);
    for i in 0..160 {
        let x = (i as f64 + 0.5) * cell * 1e-3;
        let exact = 200.0 * (m * (length - x)).cosh() / (m * length).cosh();
        assert!((s.cell((i, 0), 0) - exact).abs() < 0.05, "{} against {exact} at {x} m", s.cell((i, 0), 0));
    }
}

fn hot_corner<R: Sweep>() -> Simulation<R> {
    let slab = Slab { thickness: 1.6e-3, in_plane: 35.0, through: 1.2, capacity: 2.3e6 };
    let mesh = plate([24, 18, 4], 1.0, slab);
    let mut nodes = Nodes::default();
    let joint = nodes.add(Node { melting: Some(Melting::whole(60.0, 70.0, 0.8)), ..Node::lump(0.02) });
    let body = nodes.add(Node::lump(0.5));
    nodes.join(joint, body, 0.02);
    nodes.cells.extend((0..4).map(|layer| CellLink { node: joint, column: (5, 5), layer, conductance: 0.05 }));
    let mut s = insulated(mesh, nodes, 0.5);
    for (i, j, layer) in (0..6).flat_map(|i| (0..6).flat_map(move |j| (0..4).map(move |l| (i, j, l)))) {
        s.set_cell((i, j), layer, 300.0);
    }
    s
}

#[test]
fn r5_an_insulated_board_with_nodes_keeps_its_heat() {
    fn drift<R: Sweep>() -> f64 {
        let mut s = hot_corner::<R>();
        let before = s.heat();
        (0..200).for_each(|_| s.advance());
        assert!(s.node(0) > 1.0, "the joint took part");
        (s.heat() / before - 1.0).abs()
    }
    assert!(drift::<f64>() < 1e-12, "f64 drifts by {}", drift::<f64>());
    assert!(drift::<f32>() < 1e-3, "f32 drifts by {}", drift::<f32>());
}

#[test]
fn r7_the_jet_on_a_plate_agrees_with_an_independent_solver() {
    let slab = Slab { thickness: 1.6e-3, in_plane: 35.0, through: 1.2, capacity: 2.3e6 };
    let mesh = plate([40, 40, 6], 1.0, slab);
    let tool = HotAir {
        set: Temperature::celsius(400.0),
        flow: Flow::litres_per_minute(60.0),
        nozzle: Length::mm(10.0),
        distance: Length::mm(15.0),
        face: Face::Top,
        motion: Motion::Still,
        aim: [0.0, 0.0],
        approach: None,
        tilt: None,
    };
    let room = Temperature::celsius(25.0);
    let jet = Jet::new(&tool, &JetLaw::from_blower(Blower::Fan), room);
    let blowing = Blowing { jet, face: Face::Top, path: vec![Point { x: 15.0, y: 20.0 }], tilt: None };
    let ambient = Ambient { temperature: room, loss: LOSS_SCALE, radiation: Radiation::Linear };
    let open = [vec![0.0; 1600], vec![0.0; 1600]];
    let (nodes, shielding) = (Nodes::default(), Shielding::default());
    let scene = HeatedBoard { mesh: &mesh, nodes: &nodes, covered: &open, shielding: &shielding, ambient };
    let blown = scene.with(&blowing.into());
    let mut s: Simulation<f32> = Simulation::new(mesh, Nodes::default(), (0.0, room.in_kelvin()), 0.5);
    s.set_air(&blown);
    (0..120).for_each(|_| s.advance());
    let (top, bottom) = (s.cell((15, 20), 0), s.cell((15, 20), 5));
    assert!((top - 253.93).abs() < 0.5, "top {top}");
    assert!((bottom - 242.52).abs() < 0.5, "bottom {bottom}");
    // What a general-purpose library gets for the same plate (tools/check_heat.py).
    assert!((top - 253.942).abs() < 0.05 && (bottom - 242.538).abs() < 0.05, "top {top}, bottom {bottom}");
}
