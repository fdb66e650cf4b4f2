//! A water, and its form.

use super::Kept;
use crate::form::{Group, Table, choice, lines, name, note, number, percent, tick, tick_in, whole};
use galvet_core::base::Keyed;
use galvet_core::question::{Demand, StandingUse, Water};
use galvet_store::{Kind, Record};

/// Longest caution, and most of them.
const LONGEST: usize = 400;
const MOST: usize = 20;

whole!(Water);

impl Kept for Water {
    const KIND: Kind = Kind::Water;
    const WORD: &'static str = "water";

    fn usual() -> Self {
        Self {
            key: String::new(),
            name: String::new(),
            freeboard: 0.18,
            floor_clearance: 0.02,
            working_share: 0.7,
            least_depth: 0.5,
            standing: StandingUse::Brief,
            reserve_share: 0.3,
            must_drain: true,
            plugs_allowed: false,
            stream: None,
            anchor_depth: None,
            ..Self::lake()
        }
    }

    fn form() -> Table<Self> {
        let fields = vec![
            name("name", "called", |w: &mut Self| &mut w.name),
            note(
                "conditions",
                "typical wave and wind",
                LONGEST,
                |w: &mut Self| &mut w.conditions,
            )
            .hint("waves to 0.3 m, wind to 12 kn"),
            number(
                "density",
                "density, kg/m³",
                Self::DENSITY,
                |w: &mut Self| &mut w.density,
            )
            .hint("fresh 1000, brackish 1010, salt 1025"),
            number(
                "freeboard",
                "gunwale above the water, at least",
                Self::FREEBOARD,
                |w: &mut Self| &mut w.freeboard,
            )
            .hint("plugged, sit-inside"),
            number(
                "floor",
                "floor above it, at least",
                Self::FLOOR,
                |w: &mut Self| &mut w.floor_clearance,
            )
            .hint("open scuppers, boards"),
            percent(
                "share",
                "works to of the label, %",
                Self::SHARE,
                |w: &mut Self| &mut w.working_share,
            )
            .hint("30 to 100"),
            number("depth", "least depth", Self::DEPTH, |w: &mut Self| {
                &mut w.least_depth
            }),
            percent(
                "weight",
                "capacity counts, of 100",
                Self::WEIGHT,
                |w: &mut Self| &mut w.capacity_weight,
            ),
            percent(
                "reserve",
                "reserve counts seated, of 100",
                Self::WEIGHT,
                |w: &mut Self| &mut w.reserve_share,
            ),
            number("stream", "stream", Self::STREAM, |w: &mut Self| {
                &mut w.stream
            })
            .hint("over the ground; empty where nobody knows"),
            number(
                "anchoring",
                "depth one anchors in",
                Self::ANCHOR_DEPTH,
                |w: &mut Self| &mut w.anchor_depth,
            )
            .hint("empty where nobody knows"),
            choice("standing", "standing there", |w: &mut Self| &mut w.standing),
            tick(
                "drains",
                "a deck that does not drain rules a hull out",
                |w: &mut Self| &mut w.must_drain,
            ),
            tick("plugs", "scuppers may be plugged", |w: &mut Self| {
                &mut w.plugs_allowed
            }),
        ];
        let asks = Demand::ALL.iter().map(|&demand| {
            let (field, label) = (
                format!("asks-{}", demand.key()),
                format!("asks: {}", demand.label()),
            );
            tick_in(field, label, demand, |w: &mut Self| &mut w.demands)
        });
        let cautions = lines(
            "cautions",
            "cautions, one a line",
            (MOST, LONGEST),
            |w: &mut Self| &mut w.cautions,
        );
        Table(vec![Group {
            title: "What it is like and what it asks",
            hint: "guide values are yours to set; the local forecast and rules stand above them",
            folded: false,
            fields: fields.into_iter().chain(asks).chain([cautions]).collect(),
        }])
    }

    fn of_record(record: &Record) -> Option<Self> {
        match record {
            Record::Water(water) => Some(water.clone()),
            _ => None,
        }
    }

    fn record(water: Self) -> Record {
        Record::Water(water)
    }

    fn called(water: &mut Self) -> (&mut String, &str) {
        (&mut water.key, &water.name)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::form::Sent;
    use galvet_core::base::System;

    #[test]
    fn every_water_of_the_demo_reads_back_as_it_is_shown() {
        for water in crate::demo_data::catalogue().unwrap().waters {
            for system in [System::Metric, System::Imperial] {
                let table = Water::form();
                let shown = table.shown(&water, system);
                let mut fields = shown.fields();
                fields.entry("cautions".to_owned()).or_default();
                let back = table.make(&Water::usual(), &fields, system).unwrap();
                assert_eq!(table.shown(&back, system), shown, "{}", water.key);
                if system == System::Metric {
                    let key = water.key.clone();
                    let mut wanted = Water { key, ..back };
                    // Kilometres an hour and back: to the last digit but one.
                    let off = |(a, b): (f64, f64)| (a - b).abs() < 1e-12;
                    if wanted.stream.zip(water.stream).is_some_and(off) {
                        wanted.stream = water.stream;
                    }
                    wanted
                        .demands
                        .sort_by_key(|d| water.demands.iter().position(|w| w == d));
                    assert_eq!(wanted, water);
                }
            }
        }
    }

    #[test]
    fn what_is_wrong_is_named_at_its_field() {
        let form = [
            ("name", ""),
            ("density", "800"),
            ("freeboard", "3 m"),
            ("floor", "10 mm"),
            ("share", "10"),
            ("depth", "deep"),
            ("weight", "140"),
            ("reserve", "50"),
        ];
        let form: Sent = form.map(|(n, v)| (n.to_owned(), v.to_owned())).into();
        let made = Water::form().make(&Water::usual(), &form, System::Metric);
        let all = made.unwrap_err().0;
        let names: Vec<&str> = all.keys().map(String::as_str).collect();
        assert_eq!(
            names,
            ["density", "depth", "freeboard", "name", "share", "weight"]
        );
    }
}
