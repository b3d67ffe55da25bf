//! All of the stock, and what to order today.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::{Redirect, Response};
use mend_core::shop::stock::order_point::{DemandHistory, Shelf};
use mend_core::units::Money;
use mend_formats::item::{self, StockItem, StockKind};
use mend_store::{ItemRow, NeedRow};

use super::form;
use super::item::quantity;
use crate::App;
use crate::extract::Form;
use crate::pages::Frame;
use crate::pages::saved::{CSV, rows, saved};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Use older than this says nothing of today's, ms: a year.
const LOOK_BACK_MS: i64 = 365 * 24 * 3600 * 1000;
const DAY_MS: f64 = 24.0 * 3600.0 * 1000.0;

/// An item with what follows from its ledger.
pub(super) struct ItemView {
    pub(super) row: ItemRow,
    pub(super) item: StockItem,
    pub(super) on_hand: String,
    pub(super) free: String,
    pub(super) on_order: String,
    pub(super) is_short: bool,
    /// Packs to hold; none: it is bought for a job alone.
    pub(super) order_point: Option<u32>,
    /// What is used in thirty days, as it is believed, in words.
    pub(super) monthly: String,
    /// Packs to order now.
    pub(super) to_order: u32,
    /// What they cost; empty: not known.
    pub(super) costs: String,
    /// Jobs that wait for it.
    pub(super) waiting: Vec<i64>,
}

/// What the ledger knows of an item besides its level.
pub(super) struct ItemHistory {
    pub(super) used: f64,
    pub(super) first_ms: Option<i64>,
}

impl ItemView {
    pub(super) fn new(row: ItemRow, history: &ItemHistory, needs: &[NeedRow], now_ms: i64) -> Self {
        let item = item::parse(row.file.as_bytes()).unwrap_or_default();
        let days = history.first_ms.map_or(0.0, |first| (now_ms - first.max(now_ms - LOOK_BACK_MS)) as f64 / DAY_MS);
        let demand = DemandHistory { used: history.used / item.pack, days };
        let order_point = item.keep.then(|| demand.order_point(item.lead_days));
        let waiting: Vec<&NeedRow> = needs.iter().filter(|need| need.item == row.id && need.waits()).collect();
        let level = row.level;
        let shelf = Shelf {
            free: level.free() / item.pack,
            on_order: level.on_order / item.pack,
            waited_for: waiting.iter().map(|need| need.lacks()).sum::<f64>() / item.pack,
            order_point,
        };
        let to_order = shelf.to_order();
        let price = item.price.parse::<Money>().ok();
        let costs = price.map(|price| Money::hundredths(price.in_hundredths() * i64::from(to_order)).to_string());
        let monthly = demand.per_day() * 30.0 * item.pack;
        Self {
            on_hand: quantity(level.on_hand, &item.unit),
            free: quantity(level.free(), &item.unit),
            on_order: quantity(level.on_order, &item.unit),
            is_short: to_order > 0,
            order_point,
            monthly: if monthly < 100.0 {
                format!("≈ {monthly:.1} {}", item.unit)
            } else {
                format!("≈ {monthly:.0} {}", item.unit)
            },
            to_order,
            costs: costs.unwrap_or_default(),
            waiting: waiting.iter().map(|need| need.job).collect(),
            row,
            item,
        }
    }

    /// Its order point, in words.
    pub(super) fn point_words(&self) -> String {
        match self.order_point {
            None => "for a job".to_owned(),
            Some(point) if (self.item.pack - 1.0).abs() < 1e-9 => point.to_string(),
            Some(1) => "1 pack".to_owned(),
            Some(point) => format!("{point} packs"),
        }
    }

    /// What is to be ordered, in words.
    pub(super) fn order_words(&self) -> String {
        let unit = &self.item.unit;
        let packs = f64::from(self.to_order) * self.item.pack;
        if (self.item.pack - 1.0).abs() < 1e-9 {
            return quantity(packs, unit);
        }
        format!("{} × {}", self.to_order, quantity(self.item.pack, unit))
    }
}

/// Every item.
pub(super) async fn load(app: &App) -> Result<Vec<ItemView>, Refusal> {
    let now_ms = app.now_ms();
    let read =
        app.reading(move |read| Ok((read.items()?, read.used_since(now_ms - LOOK_BACK_MS)?, read.open_needs(None)?)));
    let (items, used, needs) = read.await?;
    let view = |row: ItemRow| {
        let found = used.iter().find(|(item, ..)| *item == row.id);
        let history = found.map_or(ItemHistory { used: 0.0, first_ms: None }, |(_, used, first)| ItemHistory {
            used: *used,
            first_ms: Some(*first),
        });
        ItemView::new(row, &history, &needs, now_ms)
    };
    Ok(items.into_iter().map(view).collect())
}

#[derive(Template, WebTemplate)]
#[template(path = "stock/list.html")]
pub(crate) struct StockPage {
    frame: Frame,
    items: Vec<ItemView>,
    currency: String,
    /// What the whole order costs; empty: some price is not known.
    total: String,
    orders: usize,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor) -> Result<StockPage, Refusal> {
    let items = load(&app).await?;
    let orders: Vec<&ItemView> = items.iter().filter(|view| view.to_order > 0).collect();
    let costs: Option<Vec<Money>> = orders.iter().map(|view| view.costs.parse().ok()).collect();
    let total = costs.map(|costs| Money::hundredths(costs.iter().map(|cost| cost.in_hundredths()).sum()).to_string());
    let (orders, total) = (orders.len(), total.filter(|_| !orders.is_empty()).unwrap_or_default());
    let currency = crate::pages::settings::load(&app).await?.currency;
    let frame = Frame::new("Stock", visitor.scale, "stock", "/stock".to_owned());
    Ok(StockPage { frame, items, currency, total, orders })
}

pub(crate) async fn add(State(app): State<App>, Form(sent): Form<Vec<(String, String)>>) -> Result<Redirect, Refusal> {
    let item = form::read(&sent)?;
    let (name, file, now_ms) = (item.name.clone(), item::write(&item)?, app.now_ms());
    let added = app.writing(move |write| write.add_item(&name, &file, now_ms)).await?;
    let id = added.ok_or_else(|| taken(&item.name))?;
    Ok(Redirect::to(&format!("/stock/{id}")))
}

pub(super) fn taken(name: &str) -> Refusal {
    Refusal::field("name", format!("another item is called “{name}”"), "give this one another name")
}

/// The order list as a table for whoever orders.
pub(crate) async fn csv(State(app): State<App>) -> Result<Response, Refusal> {
    let row = |view: &ItemView| {
        let packs = f64::from(view.to_order);
        vec![
            view.row.name.clone(),
            format!("{}", packs * view.item.pack),
            view.item.unit.clone(),
            view.to_order.to_string(),
            view.item.supplier.clone(),
            view.costs.clone(),
        ]
    };
    let items = load(&app).await?;
    let ordered: Vec<Vec<String>> = items.iter().filter(|view| view.to_order > 0).map(row).collect();
    let text = "item,quantity,unit,packs,supplier,cost\r\n".to_owned() + &rows(&ordered);
    Ok(saved(CSV, "order.csv", text))
}

/// Is it used up by the work itself?
pub(super) fn is_consumable(item: &StockItem) -> bool {
    item.kind == StockKind::Consumable
}
