//! Connections: how many at a time, how long each may take over its request, and how they end.

use std::sync::Arc;
use std::time::Duration;

use axum::Router;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use tokio::net::TcpListener;
use tokio::sync::Semaphore;

/// Connections at a time; more wait to be accepted.
const CONNECTIONS: usize = 512;
/// The head of a request must be there within this, counted from the connection or from the answer before it: so long, too, an
/// idle connection stays.
const HEAD: Duration = Duration::from_secs(15);
/// After this long an open request no longer keeps the application from going down.
const LAST_WAIT: Duration = Duration::from_secs(2);
/// After a connection could not be accepted (no more files, say).
const RETRY: Duration = Duration::from_millis(200);

/// Answers until `stop`, then calls `closing` and lets what is under way come to its end, for a moment.
pub(crate) async fn serve(
    listener: TcpListener,
    router: Router,
    stop: impl Future<Output = ()>,
    closing: impl FnOnce(),
) {
    let (places, graceful) = (Arc::new(Semaphore::new(CONNECTIONS)), GracefulShutdown::new());
    let mut http = hyper::server::conn::http1::Builder::new();
    http.timer(TokioTimer::new()).header_read_timeout(HEAD);
    tokio::pin!(stop);
    loop {
        let accepted = async {
            let place = places.clone().acquire_owned().await;
            (place, listener.accept().await)
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
        let connection = graceful.watch(http.serve_connection(TokioIo::new(stream), service));
        tokio::spawn(async move {
            if let Err(error) = connection.await {
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
    use tokio::net::TcpStream;
    use tokio::time::Instant;

    use super::*;

    async fn connected() -> TcpStream {
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = listener.local_addr().unwrap();
        let router = Router::new().route("/", get(|| async { "here" }));
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
