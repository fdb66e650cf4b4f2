//! Moves as an address has them, in signs that need no escape there:
//! `2_stand*8_cast*13.5_lean_-0.4`.

use galvet_core::pond::Act;

/// Most moves of one course.
const MOST: usize = 400;
/// Longest course, s.
pub const LONGEST: f64 = 120.0;

/// The moves of a text, in order of time.
///
/// # Errors
/// What is wrong with it, in words.
pub fn parsed(text: &str) -> Result<Vec<(f64, Act)>, String> {
    let parts = text.split('*').map(str::trim).filter(|p| !p.is_empty());
    let mut moves = Vec::new();
    for part in parts {
        if moves.len() == MOST {
            return Err(format!("at most {MOST} moves"));
        }
        moves.push(one(part)?);
    }
    moves.sort_by(|a, b| a.0.total_cmp(&b.0));
    Ok(moves)
}

fn one(part: &str) -> Result<(f64, Act), String> {
    let mut words = part.splitn(3, '_');
    let number = |word: &str| {
        let value: Option<f64> = word.trim().parse().ok();
        value.filter(|v| v.is_finite())
    };
    let time = words.next().and_then(number);
    let time = time.filter(|t| (0.0..=LONGEST).contains(t));
    let Some(time) = time else {
        return Err(format!("when: `{part}` (0 to {LONGEST} s)"));
    };
    let what = words.next().unwrap_or("").trim();
    let side = match words.next() {
        None => 0.0,
        Some(word) => match number(word).filter(|s| s.abs() <= 1.0) {
            Some(side) => side,
            None => return Err(format!("to which side: `{part}` (-1 to 1)")),
        },
    };
    let act = match what {
        "stand" => Act::Stand,
        "sit" => Act::Sit,
        "lean" => Act::Reach(side),
        "cast" => Act::Cast(side),
        "strike" => Act::Strike(if side == 0.0 { 1.0 } else { side }),
        "fish" => Act::Fish,
        "rod" => Act::Rod(side),
        "dog" => Act::Dog(side),
        "aside" => Act::Sideways(side),
        "turn" => Act::Turn,
        _ => return Err(format!("what is done: `{part}`")),
    };
    Ok((time, act))
}

/// Moves as a text.
#[must_use]
pub fn written(moves: &[(f64, Act)]) -> String {
    let word = |act: &Act| match act {
        Act::Stand => ("stand", 0.0),
        Act::Sit => ("sit", 0.0),
        Act::Reach(side) => ("lean", *side),
        Act::Cast(side) => ("cast", *side),
        Act::Strike(side) => ("strike", *side),
        Act::Fish => ("fish", 0.0),
        Act::Rod(side) => ("rod", *side),
        Act::Dog(side) => ("dog", *side),
        Act::Sideways(side) => ("aside", *side),
        Act::Turn => ("turn", 0.0),
    };
    let one = |(time, act): &(f64, Act)| match word(act) {
        (what, 0.0) => format!("{time}_{what}"),
        (what, side) => format!("{time}_{what}_{side}"),
    };
    moves.iter().map(one).collect::<Vec<_>>().join("*")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_written_is_read_again_and_nonsense_is_told() {
        let all = vec![
            (0.5, Act::Stand),
            (2.0, Act::Reach(-0.4)),
            (3.0, Act::Fish),
            (4.0, Act::Cast(1.0)),
            (4.5, Act::Strike(-1.0)),
            (5.0, Act::Rod(1.0)),
            (6.0, Act::Dog(-1.0)),
            (7.0, Act::Sideways(1.0)),
            (8.0, Act::Turn),
            (9.25, Act::Sit),
        ];
        assert_eq!(parsed(&written(&all)).unwrap(), all);
        assert_eq!(
            parsed(" * 3_sit*1_stand*").unwrap(),
            vec![(1.0, Act::Stand), (3.0, Act::Sit)]
        );
        for odd in [
            "stand",
            "x_stand",
            "1_fly",
            "1_lean_2",
            "1_lean_x",
            "-1_sit",
            "121_sit",
            "NaN_sit",
            "1_lean_inf",
        ] {
            assert!(parsed(odd).is_err(), "{odd}");
        }
        assert!(parsed(&"1_cast*".repeat(401)).is_err());
    }
}
