//! Columns of a hull table whose unit neither header nor cells state: never guessed.

use galvet_core::base::{Dimension, Keyed};
use galvet_core::hull::Measure;

/// Headers that would say in which unit a column of a dimension is, for one that says
/// none: each with its unit.
pub(super) fn named(header: &str, dimension: Option<Dimension>) -> Vec<(String, &'static str)> {
    let header = header.trim();
    let units: &[&str] = match dimension {
        Some(Dimension::Mass) => &["kg", "lb"],
        Some(Dimension::Length | Dimension::ShortLength | Dimension::FineLength) => {
            &["m", "cm", "mm", "in", "ft"]
        }
        _ => &[],
    };
    let named = units.iter().map(|unit| (format!("{header}_{unit}"), *unit));
    named.collect()
}

/// The dimension of a column of hulls whose header is a figure's bare word.
pub(super) fn of_hulls(header: &str) -> Option<Dimension> {
    let header = header.trim();
    let measure = Measure::ALL.iter().find(|m| m.key() == header)?;
    Some(measure.bounds().dimension)
}

/// The question in which unit a column is, where neither its header nor a cell with a
/// number in it says so. It is put to the header: one answer holds for the column.
pub(super) fn unit_not_stated<'a>(
    (header, dimension): (&str, Option<Dimension>),
    mut cells: impl Iterator<Item = &'a str>,
) -> Option<String> {
    let names = named(header, dimension);
    let [(first, one), (second, _), ..] = names.as_slice() else {
        return None;
    };
    cells.find(|cell| cell.split('|').any(is_bare))?;
    Some(format!(
        "in which unit? Name it in the header, as {first} or {second}, or in each cell, as 29 {one}"
    ))
}

/// Whether a figure is a number without a unit.
pub(super) fn is_bare(part: &str) -> bool {
    let number = part.split('(').next().unwrap_or_default();
    let says = |c: char| c.is_alphabetic() || "'\"′″".contains(c);
    number.contains(|c: char| c.is_ascii_digit()) && !number.contains(says)
}

#[cfg(test)]
mod tests {
    use super::super::gear_table;
    use super::super::hulls::read;
    use super::super::mend;
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
        // One answer, put to the header, holds for the whole column.
        let question = &read("h.csv", text).unwrap_err()[0];
        let at = (question.line.unwrap(), question.column.clone().unwrap());
        assert_eq!(mend::cell(text, &at).as_deref(), Some("rated_capacity"));
        let answers: Vec<String> = super::super::units_of(&at.1)
            .into_iter()
            .map(|a| a.0)
            .collect();
        assert_eq!(answers, ["rated_capacity_kg", "rated_capacity_lb"]);
        let fixes = [(at, answers[1].clone())].into();
        let file = mend::read("h.csv", text, &fixes).unwrap();
        let rated = file.hulls[0].survey.value(Measure::RatedCapacity).unwrap();
        assert!((rated - 180.0 * 0.453_592_37).abs() < 1e-9);
    }

    #[test]
    fn the_shelf_is_asked_likewise() {
        let text = "key,name,dry_weight,length_cm,width_cm,height_cm\nbag,bag,2,30,20,10\n";
        let said = gear_table::read("s.csv", text).unwrap_err();
        assert_eq!(said.len(), 1, "{said:?}");
        assert!(
            said[0]
                .to_string()
                .contains("column dry_weight: in which unit?")
        );
        let fixes = [((1, "dry_weight".to_owned()), "dry_weight_lb".to_owned())].into();
        let stated = mend::mended(text, &fixes).unwrap();
        let (things, _) = gear_table::read("s.csv", &stated).unwrap();
        assert!((things[0].dry_mass - 2.0 * 0.453_592_37).abs() < 1e-9);
        // In the cells it is stated as well.
        let cells = text.replace(",2,30", ",2 lb,30");
        assert!(gear_table::read("s.csv", &cells).is_ok());
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
