//! Connections: how many at a time, how long each may take over its request, and how they end.

use std::sync::Arc;
use std::time::Duration;

use axum::Router;
use hyper_util::rt::{TokioExecutor, TokioIo, TokioTimer};
use hyper_util::server::conn::auto::Builder;
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use tokio::io::{AsyncRead, AsyncWrite};
use tokio::net::{TcpListener, TcpStream};
use tokio::sync::Semaphore;
use tokio_rustls::TlsAcceptor;

/// Connections at a time; more wait to be accepted.
const CONNECTIONS: usize = 512;
/// The head of a request must be there within this, counted from the connection or from the answer before it: so long, too, an
/// idle connection stays.
const HEAD: Duration = Duration::from_secs(15);
/// After this long an open request no longer keeps the application from going down.
const LAST_WAIT: Duration = Duration::from_secs(2);
/// After a connection could not be accepted (no more files, say).
const RETRY: Duration = Duration::from_millis(200);

/// Where it listens, and how it speaks there.
pub(crate) struct Listener {
    pub(crate) tcp: TcpListener,
    /// None: in the clear.
    pub(crate) tls: Option<TlsAcceptor>,
}

/// A connection as it is spoken over.
trait Spoken: AsyncRead + AsyncWrite + Send + Unpin {}
impl<T: AsyncRead + AsyncWrite + Send + Unpin> Spoken for T {}

impl Listener {
    /// Agrees on how to speak; none where the other side can't, or takes too long.
    async fn greet(tls: Option<TlsAcceptor>, stream: TcpStream) -> Option<Box<dyn Spoken>> {
        let Some(tls) = tls else { return Some(Box::new(stream)) };
        match tokio::time::timeout(HEAD, tls.accept(stream)).await {
            Ok(Ok(stream)) => Some(Box::new(stream)),
            Ok(Err(error)) => {
                tracing::debug!(%error, "no TLS was agreed on");
                None
            }
            Err(_) => None,
        }
    }
}

/// Answers until `stop`, then calls `closing` and lets what is under way come to its end, for a moment.
pub(crate) async fn serve(listener: Listener, router: Router, stop: impl Future<Output = ()>, closing: impl FnOnce()) {
    let (places, graceful) = (Arc::new(Semaphore::new(CONNECTIONS)), GracefulShutdown::new());
    let mut http = Builder::new(TokioExecutor::new()).http1_only();
    http.http1().timer(TokioTimer::new()).header_read_timeout(HEAD);
    tokio::pin!(stop);
    loop {
        let accepted = async {
            let place = places.clone().acquire_owned().await;
            (place, listener.tcp.accept().await)
        };
        let (place, stream) = tokio::select! {
            () = &mut stop => break,
            (place, accepted) = accepted => match accepted {
                Ok((stream, _)) => (place, stream),
                Err(error) => {
                    tracing::warn!(%error, "a connection can't be accepted");
                    tokio::time::sleep(RETRY).await;
                    continue;
                }
            },
        };
        let _ = stream.set_nodelay(true);
        let service = TowerToHyperService::new(router.clone());
        let (tls, http, watcher) = (listener.tls.clone(), http.clone(), graceful.watcher());
        tokio::spawn(async move {
            let Some(stream) = Listener::greet(tls, stream).await else { return };
            // The practice bench goes on over a WebSocket.
            let connection = http.serve_connection_with_upgrades(TokioIo::new(stream), service);
            if let Err(error) = watcher.watch(connection).await {
                tracing::debug!(%error, "a connection ended");
            }
            drop(place);
        });
    }
    closing();
    if tokio::time::timeout(LAST_WAIT, graceful.shutdown()).await.is_err() {
        tracing::warn!("requests were still open");
    }
}

#[cfg(test)]
#[allow(clippy::unwrap_used)]
mod tests {
    use axum::routing::get;
    use tokio::io::{AsyncReadExt, AsyncWriteExt};
    use tokio::time::Instant;

    use super::*;

    async fn connected() -> TcpStream {
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = listener.local_addr().unwrap();
        let router = Router::new().route("/", get(|| async { "here" }));
        let listener = Listener { tcp: listener, tls: None };
        tokio::spawn(serve(listener, router, std::future::pending(), || ()));
        TcpStream::connect(address).await.unwrap()
    }

    // The clock of these tests stands still, and jumps to the next timer when nobody has anything to do.

    #[tokio::test(start_paused = true)]
    async fn a_head_that_does_not_come_to_its_end_is_hung_up_on() {
        let (mut stream, began) = (connected().await, Instant::now());
        stream.write_all(b"GET / HTTP/1.1\r\nhost: ").await.unwrap();
        let mut answer = Vec::new();
        stream.read_to_end(&mut answer).await.unwrap();
        assert!(!String::from_utf8_lossy(&answer).contains("here"));
        assert_eq!(began.elapsed().as_secs(), HEAD.as_secs());
    }

    #[tokio::test(start_paused = true)]
    async fn an_idle_connection_is_closed_after_its_last_answer() {
        let mut stream = connected().await;
        stream.write_all(b"GET / HTTP/1.1\r\nhost: localhost\r\n\r\n").await.unwrap();
        let mut answer = Vec::new();
        stream.read_to_end(&mut answer).await.unwrap();
        assert!(String::from_utf8_lossy(&answer).ends_with("here"));
    }
}
