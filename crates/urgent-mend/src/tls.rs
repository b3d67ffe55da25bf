//! TLS by a certificate and its key from files.

use std::path::Path;
use std::sync::Arc;

use anyhow::Context;
use tokio_rustls::TlsAcceptor;
use tokio_rustls::rustls::ServerConfig;
use tokio_rustls::rustls::crypto::ring;
use tokio_rustls::rustls::pki_types::pem::PemObject;
use tokio_rustls::rustls::pki_types::{CertificateDer, PrivateKeyDer};

/// What answers over TLS. The files are read once, at the start.
pub(crate) fn acceptor(certificate: &Path, key: &Path) -> anyhow::Result<TlsAcceptor> {
    let unread = |what: &str, file: &Path| format!("{what} {} can't be read as PEM", file.display());
    let chain: Result<Vec<_>, _> = CertificateDer::pem_file_iter(certificate).and_then(Iterator::collect);
    let chain = chain.with_context(|| unread("certificate", certificate))?;
    anyhow::ensure!(!chain.is_empty(), "{} holds no certificate", certificate.display());
    let private = PrivateKeyDer::from_pem_file(key).with_context(|| unread("key", key))?;
    let config = ServerConfig::builder_with_provider(Arc::new(ring::default_provider()))
        .with_safe_default_protocol_versions()?
        .with_no_client_auth()
        .with_single_cert(chain, private)
        .with_context(|| format!("{} is not the key of {}", key.display(), certificate.display()))?;
    Ok(TlsAcceptor::from(Arc::new(config)))
}

#[cfg(test)]
#[allow(clippy::unwrap_used)]
mod tests {
    use tokio::io::{AsyncReadExt, AsyncWriteExt};
    use tokio::net::{TcpListener, TcpStream};
    use tokio_rustls::TlsConnector;
    use tokio_rustls::rustls::{ClientConfig, RootCertStore};

    use super::*;
    use crate::listening::{Listener, serve};

    #[tokio::test]
    async fn a_certificate_and_its_key_answer_over_tls_and_only_over_it() {
        let folder = tempfile::tempdir().unwrap();
        let made = rcgen::generate_simple_self_signed(["localhost".to_owned()]).unwrap();
        let [certificate, key] = ["cert.pem", "key.pem"].map(|name| folder.path().join(name));
        std::fs::write(&certificate, made.cert.pem()).unwrap();
        std::fs::write(&key, made.signing_key.serialize_pem()).unwrap();
        let tcp = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = tcp.local_addr().unwrap();
        let tls = Some(acceptor(&certificate, &key).unwrap());
        let router = axum::Router::new().route("/", axum::routing::get(|| async { "here" }));
        tokio::spawn(serve(Listener { tcp, tls }, router, std::future::pending(), || ()));

        let mut roots = RootCertStore::empty();
        roots.add(made.cert.der().clone()).unwrap();
        let client = ClientConfig::builder_with_provider(Arc::new(ring::default_provider()))
            .with_safe_default_protocol_versions()
            .unwrap()
            .with_root_certificates(roots)
            .with_no_client_auth();
        let connector = TlsConnector::from(Arc::new(client));
        let plain = TcpStream::connect(address).await.unwrap();
        let mut stream = connector.connect("localhost".try_into().unwrap(), plain).await.unwrap();
        let ask = b"GET / HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\n\r\n";
        stream.write_all(ask).await.unwrap();
        let mut answer = Vec::new();
        stream.read_to_end(&mut answer).await.unwrap();
        assert!(String::from_utf8_lossy(&answer).ends_with("here"));

        let mut plain = TcpStream::connect(address).await.unwrap();
        plain.write_all(ask).await.unwrap();
        answer.clear();
        let _ = plain.read_to_end(&mut answer).await;
        assert!(!String::from_utf8_lossy(&answer).contains("here"), "not in the clear");
    }

    #[test]
    fn files_that_are_none_are_named() {
        let said =
            |certificate: &str| acceptor(Path::new(certificate), Path::new("/no/key")).err().unwrap().to_string();
        assert!(said("/no/cert").contains("certificate /no/cert"));
    }
}
