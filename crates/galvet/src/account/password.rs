//! Passwords: whether one will do, and how it is kept.
//!
//! Argon2id with the parameters its crate has as default: 19 MiB, two passes, one lane,
//! which are the least that OWASP's cheat sheet on password storage names.

use super::AccountError;
use argon2::Argon2;
use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};
use zxcvbn::{Score, zxcvbn};

/// Fewest characters of a password (OWASP ASVS 4.0.3, 2.1.1).
pub const SHORTEST: usize = 12;
/// Most characters (2.1.2).
pub const LONGEST: usize = 128;

/// Whether a password will do, of somebody `about` whom others know these words.
///
/// # Errors
/// Why it will not.
pub fn judge(password: &str, about: &[&str]) -> Result<(), String> {
    let letters = password.chars().count();
    if letters < SHORTEST {
        return Err(format!(
            "a password has at least {SHORTEST} characters: three or four words are easily kept in mind"
        ));
    }
    if letters > LONGEST {
        return Err(format!("a password has at most {LONGEST} characters"));
    }
    // Tried by common passwords, words, names, keys beside each other and dates.
    if zxcvbn(password, &known(about)).score() < Score::Three {
        return Err(
            "that password is among the first to be guessed: take words that have nothing to do with each other".to_owned(),
        );
    }
    Ok(())
}

/// How hard a password is to guess, as its meter shows it: of 4, from which on it will do,
/// and in words. Nothing typed is nothing.
#[must_use]
pub fn strength(password: &str, about: &[&str]) -> (u8, &'static str) {
    if password.is_empty() {
        return (0, "");
    }
    let typed: String = password.chars().take(LONGEST).collect();
    let score = u8::from(zxcvbn(&typed, &known(about)).score());
    let letters = password.chars().count();
    match score {
        _ if letters > LONGEST => (1, "too long"),
        _ if letters < SHORTEST => (score.min(1), "too short yet"),
        0..=1 => (score, "among the first to be guessed"),
        2 => (score, "soon guessed"),
        3 => (score, "will do"),
        _ => (score, "hard to guess"),
    }
}

/// Words others know of somebody, and of this program.
fn known<'a>(about: &[&'a str]) -> Vec<&'a str> {
    about.iter().copied().chain(["galvet", "kayak"]).collect()
}

/// What is kept of a password: a PHC string with its own salt.
///
/// # Errors
/// [`AccountError::Refused`] where this machine gives no random numbers.
pub(super) fn hash(password: &str) -> Result<String, AccountError> {
    let hashed = Argon2::default().hash_password(password.as_bytes());
    let hashed = hashed
        .map_err(|error| AccountError::Refused(format!("the password cannot be kept: {error}")))?;
    Ok(hashed.to_string())
}

/// Whether a password is the one a hash was kept of.
pub(super) fn fits(kept: &str, password: &str) -> bool {
    // Nobody's is that long; hashing what a stranger sends is not for free.
    let password = if password.chars().count() > LONGEST {
        ""
    } else {
        password
    };
    PasswordHash::new(kept).is_ok_and(|kept| {
        Argon2::default()
            .verify_password(password.as_bytes(), &kept)
            .is_ok()
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_hash_is_argon2id_with_a_salt_of_its_own() {
        let (a, b) = (
            hash("one two three").unwrap(),
            hash("one two three").unwrap(),
        );
        assert!(a.starts_with("$argon2id$v=19$m=19456,t=2,p=1$"), "{a}");
        assert_ne!(a, b);
        assert!(fits(&a, "one two three") && fits(&b, "one two three"));
        for wrong in ["", "one two thre", "One two three", "one two three "] {
            assert!(!fits(&a, wrong), "{wrong:?}");
        }
        assert!(!fits("no hash", "one two three"));
        assert!(!fits(&hash("").unwrap(), "x"));
    }

    #[test]
    fn the_meter_and_the_door_are_of_one_mind() {
        let long = "heron lamp ".repeat(12);
        let all = [
            ("short one", "too short yet"),
            ("123456789012", "among the first to be guessed"),
            (long.as_str(), "too long"),
            ("", ""),
        ];
        for (password, words) in all {
            let (score, said) = strength(password, &["Runa Vey"]);
            assert_eq!(said, words, "{password}");
            assert!(score < 3 && judge(password, &["Runa Vey"]).is_err());
        }
        for password in ["seventeen wet herons", "Runa Vey Runa Vey", "runavey12345"] {
            let (score, said) = strength(password, &["Runa Vey"]);
            let taken = judge(password, &["Runa Vey"]).is_ok();
            assert_eq!(taken, score >= 3, "{password}");
            assert_eq!(taken, ["will do", "hard to guess"].contains(&said));
        }
    }

    #[test]
    fn long_ones_with_any_letters_will_do() {
        judge("ännu en sen höstdag vid vattnet", &[]).unwrap();
        judge(&"heron lamp ".repeat(11), &[]).unwrap();
        assert!(judge(&"heron lamp ".repeat(12), &[]).is_err());
        assert!(judge("123456789012", &[]).is_err());
    }
}
