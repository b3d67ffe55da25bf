//! What goes to and fro while somebody is at it: moves come as text, frames go as bytes. A screen that is slow gets fewer frames:
//! the newest waits alone, and nothing queues. A connection that is lost stops the clock; the next one goes on.

use std::sync::Arc;
use std::time::Duration;

use axum::extract::ws::rejection::WebSocketUpgradeRejection;
use axum::extract::ws::{Message, WebSocket, WebSocketUpgrade};
use axum::extract::{Path, State};
use axum::http::uri::Authority;
use axum::http::{HeaderMap, StatusCode, Uri, header};
use axum::response::Response;
use futures_util::stream::SplitSink;
use futures_util::{SinkExt, StreamExt};
use mend_formats::practice::sent;
use tokio::sync::watch;
use tokio::time::{MissedTickBehavior, interval};

use super::attempt::{DrawnHands, DrawnShields};
use super::attempt_at;
use crate::App;
use crate::practice::frame::CuesAt;
use crate::practice::seat::Watcher;
use crate::refusal::Refusal;

/// A step of the attempt.
const STEP: Duration = Duration::from_millis(100);
/// What hands did is kept so often, and how far it is where they did nothing, steps.
const KEEPS_EVERY: u32 = 5;
const KEEPS_TIME: u32 = 50;
/// The longest move, bytes.
const LONGEST_MOVE: usize = 512;

/// Opens the way, for a page of our own alone.
pub(crate) async fn open(
    State(app): State<App>,
    path: Path<String>,
    headers: HeaderMap,
    upgrade: Result<WebSocketUpgrade, WebSocketUpgradeRejection>,
) -> Result<Response, Refusal> {
    let row = attempt_at(&app, &path).await?;
    if !is_ours(&headers) {
        return Err(Refusal::Plain(StatusCode::FORBIDDEN, "Another site asked for this".to_owned()));
    }
    let upgrade = upgrade.map_err(|refused| Refusal::Plain(refused.status(), refused.body_text()))?;
    if row.ended_ms.is_some() {
        return Err(Refusal::NotYet("This attempt is over"));
    }
    let seat = app.practice.seat(&app, &row).await?;
    let id = row.id;
    Ok(upgrade.max_message_size(LONGEST_MOVE).on_upgrade(move |socket| async move {
        let over = attend(&app, socket, seat.watch()).await;
        if over {
            app.practice.leave(id);
        }
    }))
}

/// Browsers say with every upgrade which page asks: it must be one of this host.
fn is_ours(headers: &HeaderMap) -> bool {
    let text = |name| headers.get(name).and_then(|value| value.to_str().ok());
    let origin = text(header::ORIGIN).and_then(|origin| origin.parse::<Uri>().ok());
    let host = text(header::HOST).and_then(|host| host.parse::<Authority>().ok());
    origin.and_then(|origin| origin.authority().cloned()).zip(host).is_some_and(|(origin, host)| origin == host)
}

/// Goes on with an attempt until it is over, the connection is lost, or somebody else comes to it. Answers whether it is over.
async fn attend(app: &App, mut socket: WebSocket, watcher: Watcher) -> bool {
    let hands = serde_json::to_string(&DrawnHands::new(watcher.seat.held())).unwrap_or_default();
    if socket.send(Message::text(hands)).await.is_err() {
        return false;
    }
    let (sink, mut moves) = socket.split();
    let (newest, seen) = watch::channel(CuesAt::default());
    let writer = tokio::spawn(send_newest(sink, seen));
    let mut clock = interval(STEP);
    clock.set_missed_tick_behavior(MissedTickBehavior::Delay);
    let (mut steps, mut over) = (0_u32, false);
    while watcher.has_it() && !over && !writer.is_finished() {
        tokio::select! {
            sent = moves.next() => if !took(&watcher, sent) { break },
            _ = clock.tick() => {
                let seat = Arc::clone(&watcher.seat);
                let Ok(cues) = tokio::task::spawn_blocking(move || seat.step()).await else { break };
                steps += 1;
                let moved = steps.is_multiple_of(KEEPS_EVERY) && watcher.seat.has_unkept();
                if moved || steps.is_multiple_of(KEEPS_TIME) || is_over(&cues) {
                    over = kept(app, &watcher).await;
                }
                newest.send_replace(cues);
            }
        }
    }
    let over = kept(app, &watcher).await || over;
    drop(newest);
    drop(writer.await);
    over
}

/// Takes what came; false: the connection is at its end, or what came is no move.
fn took(watcher: &Watcher, message: Option<Result<Message, axum::Error>>) -> bool {
    match message {
        Some(Ok(Message::Text(text))) => sent(&text).is_some_and(|sent| watcher.seat.takes(sent).is_ok()),
        Some(Ok(Message::Ping(_) | Message::Pong(_))) => true,
        _ => false,
    }
}

async fn kept(app: &App, watcher: &Watcher) -> bool {
    match watcher.seat.keep(app).await {
        Ok(over) => over,
        Err(refusal) => {
            tracing::error!(?refusal, "what was practised is not kept yet");
            false
        }
    }
}

/// Says the third byte of the cues that it is over?
fn is_over(cues: &CuesAt) -> bool {
    cues.cues.get(2).is_some_and(|bits| bits & 4 != 0)
}

/// Sends the newest frame whenever the last has gone.
async fn send_newest(mut sink: SplitSink<WebSocket, Message>, mut seen: watch::Receiver<CuesAt>) {
    let mut before: Option<CuesAt> = None;
    while seen.changed().await.is_ok() {
        let now = seen.borrow_and_update().clone();
        if before.as_ref().is_some_and(|before| before.laid != now.laid) {
            let laid = serde_json::to_string(&DrawnShields::new(&now.laid)).unwrap_or_default();
            if sink.send(Message::text(laid)).await.is_err() {
                return;
            }
        }
        if sink.send(Message::binary(now.frame(before.as_ref()))).await.is_err() {
            return;
        }
        before = Some(now);
    }
    // A screen that is gone is told nothing more.
    drop(sink.close().await);
}
