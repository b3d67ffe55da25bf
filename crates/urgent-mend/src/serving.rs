//! Opening a shop, listening, and going down gracefully.

use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use std::time::Duration;

use anyhow::Context;
use mend_store::{Folder, Store, snapshot};
use mend_web::{App, Door, filling, router};
use tokio::net::TcpListener;
use tokio_rustls::TlsAcceptor;

use crate::clocks::clocks;
use crate::demo_files::shop_files;
use crate::listening::{self, Listener};
use crate::plan_command::BAD_INPUT;
use crate::stand_ins::{Hidden, StandIn, USUAL, start};
use crate::tls;

/// How often it is looked whether a day has passed since the last snapshot.
const SNAPSHOT_LOOK: Duration = Duration::from_secs(600);

/// Where and for whom it listens.
#[derive(clap::Args)]
pub(crate) struct Listen {
    /// Address and port; port 0 takes a free one.
    #[arg(long, default_value = crate::USUAL_ADDRESS)]
    listen: SocketAddr,
    /// A name that it answers to besides this machine's own; may be given more than once.
    #[arg(long)]
    host: Vec<String>,
    /// Everybody signs in, also on this machine: for a proxy in front. On an address that others reach everybody does anyway.
    #[arg(long)]
    sign_in: bool,
    /// A certificate (PEM, with those it hangs on) to answer over TLS.
    #[arg(long, requires = "tls_key")]
    tls_cert: Option<PathBuf>,
    /// The certificate's private key (PEM).
    #[arg(long, requires = "tls_cert")]
    tls_key: Option<PathBuf>,
    /// A proxy in front of it speaks TLS: cookies are sent over that alone.
    #[arg(long)]
    behind_tls: bool,
}

impl Listen {
    /// What it answers over TLS with, if anything.
    fn tls(&self) -> anyhow::Result<Option<TlsAcceptor>> {
        let files = self.tls_cert.as_deref().zip(self.tls_key.as_deref());
        files.map(|(certificate, key)| tls::acceptor(certificate, key)).transpose()
    }

    /// Has everybody to sign in?
    fn asks_for_names(&self) -> bool {
        self.sign_in || self.behind_tls || !self.listen.ip().is_loopback()
    }
}

/// The demo shop, in a temporary folder that goes when the application goes, or in one that stays.
pub(crate) fn demo(keep: Option<&Path>, listen: &Listen) -> anyhow::Result<ExitCode> {
    let temporary = tempfile::tempdir().context("no temporary folder")?;
    let shop = Folder::create(keep.unwrap_or(&temporary.path().join("shop")))?;
    run(&shop, listen, ShopExtras { demo: true, stand_ins: Some(USUAL) })
}

/// A shop that keeps its data. A folder without one is no shop: `init` makes it.
pub(crate) fn serve(data: &Path, listen: &Listen, stand_ins: Option<Hidden>) -> anyhow::Result<ExitCode> {
    match Folder::open(data) {
        Ok(folder) => run(&folder, listen, ShopExtras { demo: false, stand_ins }),
        Err(error) => {
            eprintln!("{error}{}", crate::shop_commands::remedy(&error, data));
            Ok(ExitCode::from(BAD_INPUT))
        }
    }
}

/// Opens a held folder's database; what waits to be brought up to date is copied first.
pub(crate) fn open_store(folder: &Folder) -> anyhow::Result<Store> {
    let database = folder.database();
    if snapshot::is_outdated(&database)? {
        let kept = snapshot::snapshot(&database, &format!("{}-before-update", moment_name()))?;
        tracing::info!(file = %kept.display(), "snapshot before the update");
    }
    Ok(Store::open(&database)?)
}

/// A moment as files are named by it, so that their names sort by time.
pub(crate) fn moment_name() -> String {
    jiff::ZonedDateTime::now().strftime("%Y-%m-%dT%H-%M-%S").to_string()
}

/// What a shop is given besides what is in it.
struct ShopExtras {
    /// All of the demo.
    demo: bool,
    /// Simulated instruments with this hidden in them.
    stand_ins: Option<Hidden>,
}

#[tokio::main]
async fn run(folder: &Folder, listen: &Listen, extras: ShopExtras) -> anyhow::Result<ExitCode> {
    let tls = match listen.tls() {
        Ok(tls) => tls,
        Err(error) => {
            eprintln!("{error:#}");
            return Ok(ExitCode::from(BAD_INPUT));
        }
    };
    let (is_tls, is_seen) = (tls.is_some(), !listen.listen.ip().is_loopback());
    if is_seen && !is_tls && !listen.behind_tls {
        eprintln!(
            "warning: passphrases cross the network unencrypted: give --tls-cert and --tls-key, or put a proxy in front"
        );
    }
    let app = App::new(open_store(folder)?, clocks());
    // Bound before the shop is filled, so that a taken port is said at once.
    let listener =
        TcpListener::bind(listen.listen).await.with_context(|| format!("{} can't be listened on", listen.listen))?;
    app.start().await;
    let rest = if extras.demo { Some(filling::fill(&app, &shop_files()).await?) } else { None };
    let owner_link = if listen.asks_for_names() { app.ask_for_names(is_tls || listen.behind_tls).await } else { None };
    announce(&listener, is_tls, owner_link)?;
    look_after(&app, folder, rest, extras.stand_ins);
    let door = Door { hosts: listen.host.iter().cloned().chain([listen.listen.ip().to_string()]).collect() };
    let listener = Listener { tcp: listener, tls };
    listening::serve(listener, router(app.clone(), door), stop_signal(), || app.close()).await;
    Ok(ExitCode::SUCCESS)
}

/// What goes on beside the answering: plans of a demo, a look at the database, a snapshot a day.
fn look_after(
    app: &App,
    folder: &Folder,
    rest: Option<impl Future<Output = Result<(), filling::CannotFill>> + Send + 'static>,
    hidden: Option<Hidden>,
) {
    let filled = app.clone();
    let at_work = app.clone();
    tokio::spawn(async move {
        if let Some(rest) = rest
            && let Err(error) = rest.await
        {
            tracing::error!(%error, "the demo is not complete");
        }
        if let Some(hidden) = hidden {
            stand_ins(&at_work, hidden).await;
        }
    });
    let app = app.clone();
    tokio::spawn(async move {
        app.list_missing_jobs().await;
        app.review_missing_jobs().await;
        app.learn_what_waits();
        for line in app.quick_check().await {
            tracing::error!(line, "the database is damaged: run urgent-mend check");
        }
    });
    let (database, forgetful) = (folder.database(), filled);
    tokio::spawn(async move {
        loop {
            forgetful.forget_old_customers().await;
            let database = database.clone();
            let kept = tokio::task::spawn_blocking(move || daily(&database)).await;
            if let Ok(Err(error)) = kept {
                tracing::error!(%error, "no snapshot of the day");
            }
            tokio::time::sleep(SNAPSHOT_LOOK).await;
        }
    });
}

/// Simulated instruments, on any free ports of the loopback.
async fn stand_ins(app: &App, hidden: Hidden) {
    let Some(bundle) = filling::bench_bundle(app).await else { return };
    let anywhere = std::net::SocketAddr::from(([127, 0, 0, 1], 0));
    let started = tokio::task::spawn_blocking(move || start(&bundle, anywhere, hidden)).await;
    for StandIn { name, kind, address } in started.into_iter().flatten().flatten() {
        filling::add_instrument(app, name, kind, address).await;
    }
}

/// A snapshot, unless there is one of this day.
fn daily(database: &Path) -> Result<(), mend_store::StoreError> {
    let today = jiff::ZonedDateTime::now().strftime("%Y-%m-%d").to_string();
    let of_today = |file: &std::path::PathBuf| {
        file.file_name().and_then(|name| name.to_str()).is_some_and(|name| name == format!("{today}-daily.db"))
    };
    if !snapshot::kept(database)?.iter().any(of_today) {
        snapshot::snapshot(database, &format!("{today}-daily"))?;
    }
    Ok(())
}

#[allow(clippy::print_stdout, reason = "the address line is what a person waits for")]
fn announce(listener: &TcpListener, is_tls: bool, owner_link: Option<String>) -> anyhow::Result<()> {
    let address = format!("{}://{}", if is_tls { "https" } else { "http" }, listener.local_addr()?);
    println!("{address}");
    if let Some(link) = owner_link {
        println!("Nobody can sign in yet. Open this once and become the owner: {address}{link}");
    }
    Ok(())
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
