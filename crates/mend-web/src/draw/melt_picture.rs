//! How a metal melts: liquid over temperature, in balance and cooled quickly, beside what the factory used.

use askama::Template;
use mend_core::solder::MeltCurve;
use mend_core::units::{Scale, TempDelta, Temperature};

use super::axis::PictureAxis;
use super::n;
use crate::words::Words;

const WIDTH: f64 = 1000.0;
const LEFT: f64 = 56.0;
const RIGHT: f64 = 16.0;
const TOP: f64 = 46.0;
const BOTTOM: f64 = 300.0;
const HEIGHT: f64 = 384.0;
/// Of that, for what the joints reach.
const REACH: f64 = 54.0;
/// Written labels keep so far from the picture's ends.
const LABEL: f64 = 90.0;

/// What is to be seen.
pub(crate) struct MeltDiagram<'a> {
    pub(crate) mix: &'a MeltCurve,
    /// Drawn thin beside it, with its name.
    pub(crate) factory: Option<(&'a str, &'a MeltCurve)>,
    /// Where the mix counts as melted.
    pub(crate) works: Option<(Temperature, TempDelta)>,
    /// What the joints reach at the abort time.
    pub(crate) joints: Option<(Temperature, Temperature)>,
    pub(crate) scale: Scale,
}

/// A band on paper.
pub(crate) struct Span {
    pub(crate) x: String,
    pub(crate) width: String,
    pub(crate) middle: String,
    pub(crate) label_x: String,
    pub(crate) label: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/melt_picture.svg", escape = "html")]
pub(crate) struct MeltPicture {
    pub(crate) height: String,
    pub(crate) description: String,
    pub(crate) ticks: Vec<(String, String)>,
    pub(crate) shares: Vec<(String, &'static str)>,
    pub(crate) factory: String,
    pub(crate) lever: String,
    pub(crate) scheil: String,
    /// Between the two.
    pub(crate) between: String,
    pub(crate) works: Option<Span>,
    pub(crate) joints: Option<Span>,
    pub(crate) last: Option<(String, String, String)>,
    pub(crate) factory_label: Option<(String, String)>,
}

fn axis_of(scene: &MeltDiagram<'_>) -> PictureAxis {
    let celsius = |t: Option<Temperature>| t.map(Temperature::in_celsius);
    let (mix, factory) = (scene.mix, scene.factory.map(|(_, curve)| curve));
    let (works, joints) = (scene.works, scene.joints);
    let mut seen: Vec<f64> = [
        celsius(mix.scheil_end.map(|end| end.at)),
        celsius(mix.solidus),
        celsius(mix.liquidus),
        celsius(factory.and_then(|f| f.solidus)),
        celsius(factory.and_then(|f| f.liquidus)),
        works.map(|(at, spread)| (at + spread).in_celsius()),
        celsius(joints.map(|(low, _)| low)),
        celsius(joints.map(|(_, high)| high)),
    ]
    .into_iter()
    .flatten()
    .collect();
    seen.sort_by(f64::total_cmp);
    let (first, last) = (seen.first().copied().unwrap_or(100.0), seen.last().copied().unwrap_or(250.0));
    let (low, high) = ((first / 10.0).floor() * 10.0 - 30.0, (last / 10.0).ceil() * 10.0 + 20.0);
    PictureAxis { low, high, left: LEFT, width: WIDTH - LEFT - RIGHT }
}

/// A label's place: over its thing, but not off the paper.
fn label_x(axis: &PictureAxis, celsius: f64) -> String {
    n(axis.x(celsius).clamp(LEFT + LABEL, WIDTH - LABEL))
}

/// A point per half degree.
fn points(axis: &PictureAxis, of: impl Fn(Temperature) -> Option<f64>) -> Vec<String> {
    let count = ((axis.high - axis.low) * 2.0) as usize;
    let point = |k: usize| {
        let celsius = axis.low + k as f64 / 2.0;
        let share = of(Temperature::celsius(celsius))?;
        Some(format!("{} {}", n(axis.x(celsius)), n(y(share))))
    };
    (0..=count).filter_map(point).collect()
}

fn y(share: f64) -> f64 {
    BOTTOM - (BOTTOM - TOP) * share
}

fn path(points: &[String]) -> String {
    if points.is_empty() { String::new() } else { format!("M{}", points.join("L")) }
}

/// Draws it.
pub(crate) fn melt_picture(scene: &MeltDiagram<'_>) -> MeltPicture {
    let axis = axis_of(scene);
    let lever = points(&axis, |t| scene.mix.lever_at(t));
    let scheil = points(&axis, |t| scene.mix.scheil_at(t));
    let back: Vec<String> = scheil.iter().rev().cloned().collect();
    let degrees = |t: Temperature| Words { scale: scene.scale }.temperature(t.in_celsius());
    let band = |t: Temperature, spread: TempDelta| {
        let spread = scene.scale.of_delta(spread);
        format!("{:.0} ± {spread:.0} {}", scene.scale.of(t), scene.scale.symbol())
    };
    let span = |(low, high): (Temperature, Temperature), label: String| {
        let (from, to) = (axis.x(low.in_celsius()), axis.x(high.in_celsius()));
        let middle = (low.in_celsius() + high.in_celsius()) / 2.0;
        let (x, width) = (n(from), n((to - from).max(3.0)));
        Span { x, width, middle: n(axis.x(middle)), label_x: label_x(&axis, middle), label }
    };
    let works = scene.works.map(|(at, spread)| ((at - spread, at + spread), band(at, spread)));
    let factory_at = scene.factory.and_then(|(name, curve)| Some((name, curve.t98?)));
    MeltPicture {
        height: n(if scene.joints.is_some() { HEIGHT } else { HEIGHT - REACH }),
        description: description(scene, works.as_ref().map(|(_, view)| view.as_str())),
        ticks: axis.ticks(scene.scale, [20.0, 50.0]),
        shares: [(1.0, "all"), (0.5, "half"), (0.0, "solid")].map(|(share, word)| (n(y(share)), word)).to_vec(),
        factory: path(&scene.factory.map_or(vec![], |(_, curve)| points(&axis, |t| curve.lever_at(t)))),
        between: path(&[lever.clone(), back].concat()),
        lever: path(&lever),
        scheil: path(&scheil),
        works: works.map(|(ends, view)| span(ends, format!("melting point {view}"))),
        joints: scene.joints.map(|(low, high)| {
            let label = format!("joints reach {:.0}–{}", scene.scale.of(low), degrees(high));
            span((low, high), label)
        }),
        last: scene.mix.scheil_end.map(|end| {
            let x = axis.x(end.at.in_celsius());
            (n(x), n(x - 14.0), format!("Scheil solidus {}", degrees(end.at)))
        }),
        factory_label: factory_at
            .map(|(name, at)| (label_x(&axis, at.in_celsius()), format!("{name} {}", degrees(at)))),
    }
}

fn description(scene: &MeltDiagram<'_>, works: Option<&str>) -> String {
    let degrees = |t: Temperature| Words { scale: scene.scale }.temperature(t.in_celsius());
    let end = scene.mix.scheil_end.map_or("not computed".to_owned(), |end| degrees(end.at));
    let factory =
        scene.factory.and_then(|(name, curve)| Some(format!("; {name} {}", degrees(curve.t98?)))).unwrap_or_default();
    format!("Liquid over temperature: melting point {}, Scheil solidus {end}{factory}", works.unwrap_or("not computed"))
}
