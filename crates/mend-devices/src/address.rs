//! Where an instrument may be: a number in the shop's own network and a port. Names and addresses elsewhere are refused, so that a
//! page can't be made to knock at strangers' doors.

use std::net::{IpAddr, SocketAddr};

/// Instruments listen here when no port is said (the usual one of SCPI over a raw socket).
pub const USUAL_PORT: u16 = 5025;

/// Why an address is none for an instrument.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BadAddress {
    /// It is not a number and a port.
    Unread,
    /// It is not in the shop's own network.
    Elsewhere,
}

/// Reads `192.168.1.40`, `192.168.1.40:5025` or `[::1]:5025`.
///
/// ```
/// use mend_devices::address::{BadAddress, parse};
/// assert_eq!(parse("192.168.1.40").map(|at| at.port()), Ok(5025));
/// assert_eq!(parse("8.8.8.8:5025"), Err(BadAddress::Elsewhere));
/// assert_eq!(parse("logger"), Err(BadAddress::Unread));
/// ```
pub fn parse(text: &str) -> Result<SocketAddr, BadAddress> {
    let text = text.trim();
    let with_port = text.parse::<SocketAddr>();
    let address = with_port.or_else(|_| text.parse::<IpAddr>().map(|ip| SocketAddr::new(ip, USUAL_PORT)));
    let address = address.map_err(|_| BadAddress::Unread)?;
    let own = match address.ip() {
        IpAddr::V4(ip) => ip.is_loopback() || ip.is_private() || ip.is_link_local(),
        IpAddr::V6(ip) => ip.is_loopback() || ip.is_unique_local() || ip.is_unicast_link_local(),
    };
    if own && address.port() != 0 { Ok(address) } else { Err(BadAddress::Elsewhere) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_the_shops_own_network_is_spoken_to() {
        for own in ["127.0.0.1:5025", "10.1.2.3", "172.16.0.9:1", "169.254.7.7", "[::1]:9", "fd00::2", " 192.168.0.4 "]
        {
            assert!(parse(own).is_ok(), "{own}");
        }
        for other in ["1.1.1.1", "172.32.0.1", "0.0.0.0:5025", "255.255.255.255", "[2001:db8::1]:5025", "10.0.0.1:0"] {
            assert_eq!(parse(other), Err(BadAddress::Elsewhere), "{other}");
        }
        for none in ["", "localhost", "10.0.0", "10.0.0.1:99999", "http://10.0.0.1", "10.0.0.1/24"] {
            assert_eq!(parse(none), Err(BadAddress::Unread), "{none}");
        }
    }
}
