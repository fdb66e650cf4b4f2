//! Columns of a hull table whose unit neither header nor cells state: never guessed.

use galvet_core::base::{Dimension, Keyed};
use galvet_core::hull::Measure;

/// The question in which unit a column is, where neither its header nor a cell with a
/// number in it says so.
pub(super) fn unit_not_stated<'a>(
    header: &str,
    mut cells: impl Iterator<Item = (u64, &'a str)>,
) -> Option<(u64, String)> {
    let header = header.trim();
    let measure = Measure::ALL.iter().find(|m| m.key() == header)?;
    let (units, example) = match measure.bounds().dimension {
        Dimension::Mass => (["kg", "lb"], "29 kg"),
        Dimension::Length | Dimension::ShortLength | Dimension::FineLength => {
            (["m", "cm"], "86 cm")
        }
        _ => return None,
    };
    let (line, _) = cells.find(|(_, cell)| cell.split('|').any(is_bare))?;
    let [one, two] = units;
    let problem = format!(
        "in which unit? Name it once in the header, as {header}_{one} or {header}_{two}, or in each cell, as {example}"
    );
    Some((line, problem))
}

/// Whether a figure is a number without a unit.
pub(super) fn is_bare(part: &str) -> bool {
    let number = part.split('(').next().unwrap_or_default();
    let says = |c: char| c.is_alphabetic() || "'\"′″".contains(c);
    number.contains(|c: char| c.is_ascii_digit()) && !number.contains(says)
}

#[cfg(test)]
mod tests {
    use super::super::hulls::read;
    use super::*;

    #[test]
    fn a_unit_nobody_stated_is_asked_about_once() {
        let text = "key,maker,model,construction,length_m,beam,rated_capacity\n\
            a,M,A,board,3.5,86 cm,180\nb,M,B,board,3.4,84 cm,170\n";
        let said = read("h.csv", text).unwrap_err();
        assert_eq!(said.len(), 1, "{said:?}");
        let said = said[0].to_string();
        assert!(
            said.contains("column rated_capacity: in which unit?"),
            "{said}"
        );
        assert!(
            said.contains("rated_capacity_kg or rated_capacity_lb"),
            "{said}"
        );
        let stated = text.replace("rated_capacity", "rated_capacity_lb");
        let file = read("h.csv", &stated).unwrap();
        let rated = file.hulls[0].survey.value(Measure::RatedCapacity).unwrap();
        assert!((rated - 180.0 * 0.453_592_37).abs() < 1e-9);
    }

    #[test]
    fn a_thousand_with_a_point_is_no_small_number() {
        let text = "key;maker;model;construction;length_m;beam_cm;price\n\
            a;M;A;board;3,50;86;1.290\nb;M;B;board;3,40;84;2.890 €\n";
        let file = read("h.csv", text).unwrap();
        let price = |i: usize| file.hulls[i].survey.value(Measure::Price);
        assert_eq!((price(0), price(1)), (Some(1290.0), Some(2890.0)));
        // Where nothing in the table tells, it is asked.
        let open = "key,maker,model,construction,price\na,M,A,board,1.290\n";
        let said = read("h.csv", open).unwrap_err()[0].to_string();
        assert!(said.contains("can be read two ways"), "{said}");
    }
}
