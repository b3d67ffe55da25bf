//! The shop's own settings: name, money, hours, units and the terms of its quotes; kept as they are typed.

use std::collections::BTreeMap;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::State;
use axum::response::Response;
use axum::routing::get;
use mend_core::finding::Finding;
use mend_core::units::Scale;
use mend_formats::shop_settings::{self, DAYS, ShopSettings};

use super::Frame;
use super::equipment::KeptNote;
use crate::App;
use crate::extract::Form;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// A day of the week as it may be ticked.
struct Day {
    key: &'static str,
    open: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "shop/settings.html")]
struct SettingsPage {
    frame: Frame,
    shop: ShopSettings,
    days: Vec<Day>,
    fahrenheit: bool,
    prices: String,
}

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/settings", get(show).post(keep))
}

/// The settings as they were entered; what cannot be read counts as not entered.
pub(crate) async fn load(app: &App) -> Result<ShopSettings, Refusal> {
    let kept = app.reading(|read| read.shop()).await?;
    Ok(kept.and_then(|file| shop_settings::parse(file.as_bytes()).ok()).unwrap_or_default())
}

async fn show(State(app): State<App>, visitor: Visitor) -> Result<SettingsPage, Refusal> {
    let shop = load(&app).await?;
    let days = DAYS.map(|key| Day { key, open: shop.days.iter().any(|day| day == key) });
    let frame = Frame::new("Shop settings", visitor.scale, "shop", "/settings".to_owned());
    let fahrenheit = shop.scale == Scale::Fahrenheit;
    Ok(SettingsPage { frame, days: days.into(), fahrenheit, prices: as_typed(&shop.prices), shop })
}

async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let checked = match read(&sent) {
        Ok(shop) => shop.checked(),
        Err(findings) => Err(findings),
    };
    let shop = match checked {
        Ok(shop) => shop,
        Err(findings) => {
            return Ok(KeptNote::refused(visitor, &findings));
        }
    };
    let (text, now) = (shop_settings::write(&shop)?, app.now_ms());
    app.writing(move |w| w.set_shop(&text, now)).await?;
    app.set_usual_scale(shop.scale);
    Ok(KeptNote::kept(&app))
}

fn read(sent: &[(String, String)]) -> Result<ShopSettings, Vec<Finding>> {
    let get = |name: &str| {
        sent.iter().find(|(field, _)| field == name).map_or(String::new(), |(_, value)| value.trim().to_owned())
    };
    let whole = |name: &'static str, usual: u32| match get(name).as_str() {
        "" => Ok(usual),
        typed => typed.parse::<u32>().map_err(|_| {
            vec![Finding::written("settings", name, format!("“{typed}” is no whole number")).hint("digits, like 90")]
        }),
    };
    let (warranty_days, forget_months) = (whole("warranty", 90)?, whole("forget", 0)?);
    let days = sent.iter().filter(|(field, _)| field == "day").map(|(_, day)| day.clone());
    Ok(ShopSettings {
        name: get("name"),
        currency: get("currency"),
        rate: get("rate"),
        prices: prices(&get("prices"))?,
        hours: [get("opens"), get("closes")],
        days: days.collect(),
        scale: if get("scale") == "F" { Scale::Fahrenheit } else { Scale::Celsius },
        terms: get("terms"),
        warranty_days,
        forget_months,
        ..ShopSettings::default()
    })
}

/// Fixed prices, a kind a line: `five-leg power jack: 85.00`.
fn prices(typed: &str) -> Result<BTreeMap<String, String>, Vec<Finding>> {
    let line = |line: &str| match line.rsplit_once(':') {
        Some((kind, price)) if !kind.trim().is_empty() => Ok((kind.trim().to_owned(), price.trim().to_owned())),
        _ => Err(vec![
            Finding::written("settings", "prices", format!("“{line}” has no price"))
                .hint("like five-leg power jack: 85.00"),
        ]),
    };
    typed.lines().map(str::trim).filter(|line| !line.is_empty()).map(line).collect()
}

/// The same as it is typed.
fn as_typed(prices: &BTreeMap<String, String>) -> String {
    prices.iter().map(|(kind, price)| format!("{kind}: {price}")).collect::<Vec<_>>().join("\n")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn fixed_prices_are_a_line_each() {
        let typed = "five-leg power jack: 85.00\nport: 1:2: 40";
        let read = prices(typed).expect("two lines");
        assert_eq!(read["port: 1:2"], "40");
        assert_eq!(as_typed(&read), typed);
        assert!(prices("five-leg power jack 85").is_err());
    }

    #[test]
    fn the_form_is_read_as_it_is_typed() {
        let sent =
            [("name", " Harbour bench "), ("opens", "08:30"), ("closes", "16:00"), ("day", "monday"), ("scale", "F")];
        let sent: Vec<(String, String)> = sent.iter().map(|(a, b)| ((*a).to_owned(), (*b).to_owned())).collect();
        let shop = read(&sent).expect("numbers").checked().expect("can be kept");
        assert_eq!((shop.name.as_str(), shop.days.as_slice()), ("Harbour bench", &["monday".to_owned()][..]));
        assert_eq!(shop.scale, Scale::Fahrenheit);
    }
}
