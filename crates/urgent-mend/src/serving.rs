//! Opening a store, listening, and going down gracefully.

use std::net::SocketAddr;
use std::path::Path;
use std::process::ExitCode;
use std::sync::Arc;
use std::time::Duration;

use anyhow::Context;
use mend_store::Store;
use mend_web::{App, opening, router};
use tokio::net::TcpListener;
use tokio::sync::oneshot;

use crate::demo_files::shop_files;

/// After this long an open request no longer keeps the application from going down.
const LAST_WAIT: Duration = Duration::from_secs(5);

/// The demo shop in a temporary store that goes when the application goes.
pub(crate) fn demo(listen: SocketAddr) -> anyhow::Result<ExitCode> {
    let folder = tempfile::tempdir().context("no temporary folder")?;
    run(folder.path(), listen, true)
}

/// A shop that keeps its data.
pub(crate) fn serve(data: &Path, listen: SocketAddr) -> anyhow::Result<ExitCode> {
    std::fs::create_dir_all(data).with_context(|| format!("{} can't be made", data.display()))?;
    run(data, listen, false)
}

#[tokio::main]
async fn run(data: &Path, listen: SocketAddr, fill: bool) -> anyhow::Result<ExitCode> {
    let app = App::new(Store::open(&data.join("shop.db"))?, Arc::new(jiff::ZonedDateTime::now));
    // Bound before the shop is filled, so that a taken port is said at once.
    let listener = TcpListener::bind(listen).await.with_context(|| format!("{listen} can't be listened on"))?;
    if fill {
        opening::fill(&app, &shop_files()).await?;
    }
    announce(listener.local_addr()?);
    let (down, going_down) = oneshot::channel();
    let server = axum::serve(listener, router(app)).with_graceful_shutdown(async move {
        stop_signal().await;
        let _ = down.send(());
    });
    tokio::select! {
        ended = server => ended?,
        () = last_wait(going_down) => tracing::warn!("requests were still open"),
    }
    Ok(ExitCode::SUCCESS)
}

#[allow(clippy::print_stdout, reason = "the address line is what a person waits for")]
fn announce(address: SocketAddr) {
    println!("http://{address}");
}

/// Ends some time after the way down began.
async fn last_wait(going_down: oneshot::Receiver<()>) {
    match going_down.await {
        Ok(()) => tokio::time::sleep(LAST_WAIT).await,
        Err(_) => std::future::pending().await,
    }
}

async fn stop_signal() {
    let interrupt = tokio::signal::ctrl_c();
    #[cfg(unix)]
    {
        use tokio::signal::unix::{SignalKind, signal};
        if let Ok(mut terminate) = signal(SignalKind::terminate()) {
            tokio::select! {
                _ = interrupt => {}
                _ = terminate.recv() => {}
            }
            return;
        }
    }
    let _ = interrupt.await;
}
