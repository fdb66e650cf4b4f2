//! Random keys, and what is kept of one.

use super::AccountError;
use sha2::{Digest, Sha256};

/// So many random bytes from the system, hexadecimal.
///
/// # Errors
/// [`AccountError::Refused`] where this machine gives none.
pub(super) fn hex<const BYTES: usize>() -> Result<String, AccountError> {
    let mut bytes = [0u8; BYTES];
    getrandom::fill(&mut bytes).map_err(|error| {
        AccountError::Refused(format!("this machine gives no random numbers: {error}"))
    })?;
    Ok(written(&bytes))
}

/// What the database keeps of a key: its SHA-256. A key is 256 random bits, which nobody
/// tries out, so that one round does.
pub(super) fn keyed(key: &str) -> String {
    written(&Sha256::digest(key.as_bytes()))
}

fn written(bytes: &[u8]) -> String {
    bytes.iter().map(|b| format!("{b:02x}")).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keys_differ_and_what_is_kept_is_their_hash() {
        let (a, b) = (hex::<32>().unwrap(), hex::<32>().unwrap());
        assert!(a != b && a.len() == 64);
        // FIPS 180-4's example.
        assert_eq!(
            keyed("abc"),
            "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad"
        );
    }
}
