//! The circuits of a rig: which pack feeds what, for how long.
//!
//! Batteries that are alike make one pack; unlike ones are never wired together. Each
//! pack is a circuit of its own, and neither lends the other hours (handbook, chapter
//! 3). A load hangs on the one circuit whose voltage it takes; where several would do,
//! motors are taken to hang on the largest and everything else on the smallest that is
//! left, and it is asked about.

use crate::gear::{Category, Electric};
use crate::guide::{Guide, Guides};
use crate::power::{Bank, Cell, Wiring};
use crate::rig::Rig;

/// Something that draws.
#[derive(Debug, Clone, PartialEq)]
pub struct Load {
    /// What it is.
    pub name: String,
    /// While on, W.
    pub watts: f64,
    /// Share of the time.
    pub duty: f64,
    /// What it must be fed with, V, where that is known.
    pub volts: Option<f64>,
    /// Whether it is a motor.
    pub motor: bool,
}

/// One pack and what hangs on it.
#[derive(Debug, Clone, PartialEq)]
pub struct Circuit {
    /// What its batteries are called.
    pub battery: String,
    /// How many they are.
    pub count: usize,
    /// How they are wired; of a single one nothing to be said.
    pub wiring: Option<Wiring>,
    /// What they give so.
    pub bank: Bank,
    /// What hangs on it.
    pub loads: Vec<Load>,
    /// Whether any of that could as well hang on another circuit.
    pub asked: bool,
}

impl Circuit {
    /// Watts and shares of the time of all on it that is no motor.
    fn small(&self) -> Vec<(f64, f64)> {
        let small = self.loads.iter().filter(|l| !l.motor);
        small.map(|l| (l.watts, l.duty)).collect()
    }

    /// Hours all on it that is no motor runs, a share kept back; `None` where nothing
    /// is.
    #[must_use]
    pub fn hours(&self, guides: &Guides) -> Option<f64> {
        self.bank.hours(&self.small(), guides)
    }

    /// Energy left of what can be used after `hours` of all that is no motor, Wh.
    #[must_use]
    pub fn left(&self, hours: f64) -> f64 {
        let taken: f64 = self
            .small()
            .iter()
            .map(|(watts, duty)| watts * duty * hours)
            .sum();
        (self.bank.usable - taken).max(0.0)
    }

    /// Full draw of the motors on it, W.
    #[must_use]
    pub fn motors(&self) -> f64 {
        self.loads.iter().filter(|l| l.motor).map(|l| l.watts).sum()
    }

    /// The current it carries with all on it on, A: its fuse and cables are for that.
    #[must_use]
    pub fn amperes(&self) -> f64 {
        let watts: f64 = self.loads.iter().map(|l| l.watts).sum();
        watts / self.bank.volts
    }
}

/// All circuits of a rig.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Circuits {
    /// Packs with what hangs on them, in the rig's order.
    pub packs: Vec<Circuit>,
    /// What no pack feeds, however it is wired.
    pub unfed: Vec<Load>,
}

/// A pack before it is known what hangs on it.
struct Pack {
    cells: Vec<Cell>,
    loads: Vec<Load>,
    wiring: Wiring,
    asked: bool,
}

impl Pack {
    fn bank(&self, wiring: Wiring, guides: &Guides) -> Option<Bank> {
        Bank::wire(&self.cells, wiring, guides).ok()
    }

    /// How it would have to be wired for a load, beside what hangs on it already.
    fn feeds(&self, load: &Load, guides: &Guides) -> Option<Wiring> {
        let ways = if self.loads.is_empty() {
            vec![Wiring::Parallel, Wiring::Series]
        } else {
            vec![self.wiring]
        };
        let fits = |w: &Wiring| {
            let bank = self.bank(*w, guides);
            bank.is_some_and(|b| load.volts.is_none_or(|v| b.feeds(v)))
        };
        ways.into_iter().find(fits)
    }

    fn energy(&self) -> f64 {
        self.cells.iter().map(|c| c.volts * c.amp_hours).sum()
    }
}

impl Circuits {
    /// The circuits of a rig.
    #[must_use]
    pub fn of(rig: &Rig, guides: &Guides) -> Self {
        let (mut packs, mut loads) = (Vec::<Pack>::new(), Vec::<Load>::new());
        for line in &rig.lines {
            let Some(thing) = &line.thing else { continue };
            for _ in 0..line.count {
                match thing.electric {
                    Electric::Battery {
                        volts,
                        amp_hours,
                        chemistry,
                    } => {
                        let cell = Cell {
                            name: thing.name.clone(),
                            volts,
                            amp_hours,
                            chemistry,
                        };
                        let alike = packs.iter_mut().find(|p| p.cells[0] == cell);
                        match alike {
                            Some(pack) => pack.cells.push(cell),
                            None => packs.push(Pack {
                                cells: vec![cell],
                                loads: Vec::new(),
                                wiring: Wiring::Parallel,
                                asked: false,
                            }),
                        }
                    }
                    Electric::Draw { watts, duty, volts } => loads.push(Load {
                        name: thing.name.clone(),
                        watts,
                        duty,
                        volts,
                        motor: thing.category == Category::Propulsion,
                    }),
                    Electric::None => {}
                }
            }
        }
        let mut unfed = Vec::new();
        // Motors choose first: what they take is no good for a day's electronics.
        loads.sort_by_key(|l| !l.motor);
        for load in loads {
            match hang(&packs, &load, guides) {
                Some((at, wiring, asked)) => {
                    packs[at].wiring = wiring;
                    packs[at].asked |= asked;
                    packs[at].loads.push(load);
                }
                None => unfed.push(load),
            }
        }
        let wired = |p: Pack| {
            Some(Circuit {
                battery: p.cells[0].name.clone(),
                count: p.cells.len(),
                wiring: (p.cells.len() > 1).then_some(p.wiring),
                bank: p.bank(p.wiring, guides)?,
                loads: p.loads,
                asked: p.asked,
            })
        };
        Self {
            packs: packs.into_iter().filter_map(wired).collect(),
            unfed,
        }
    }

    /// What can be used for driving, J, after `hours` of everything else on the same
    /// circuits: of the packs a motor hangs on; where the rig has no motor, of those on
    /// which nothing hangs, else of all.
    #[must_use]
    pub fn for_driving(&self, hours: f64) -> f64 {
        let sum = |of: &dyn Fn(&Circuit) -> bool| -> f64 {
            let chosen = self.packs.iter().filter(|c| of(c));
            3600.0 * chosen.map(|c| c.left(hours)).sum::<f64>()
        };
        if self.packs.iter().any(|c| c.motors() > 0.0) {
            return sum(&|c| c.motors() > 0.0);
        }
        if self.packs.iter().any(|c| c.loads.is_empty()) {
            return sum(&|c| c.loads.is_empty());
        }
        sum(&|_| true)
    }

    /// Hours of a day on the water where nobody said.
    #[must_use]
    pub fn usual_day(guides: &Guides) -> f64 {
        guides[Guide::DayHours]
    }
}

/// The pack a load hangs on, how that is wired then, and whether another would do.
fn hang(packs: &[Pack], load: &Load, guides: &Guides) -> Option<(usize, Wiring, bool)> {
    let fits = packs.iter().enumerate();
    let fits = fits.filter_map(|(i, p)| Some((i, p.feeds(load, guides)?)));
    let mut fits: Vec<(usize, Wiring)> = fits.collect();
    let asked = fits.len() > 1;
    if !load.motor && asked {
        // The motor's pack keeps its hours for the motor, where there is another.
        let motor = |i: usize| packs[i].loads.iter().any(|l| l.motor);
        let free: Vec<_> = fits.iter().copied().filter(|&(i, _)| !motor(i)).collect();
        if !free.is_empty() {
            fits = free;
        }
    }
    let by_size = |a: &&(usize, Wiring), b: &&(usize, Wiring)| {
        packs[a.0]
            .energy()
            .total_cmp(&packs[b.0].energy())
            .then(b.0.cmp(&a.0))
    };
    let chosen = if load.motor {
        fits.iter().max_by(by_size)
    } else {
        fits.iter().min_by(by_size)
    };
    chosen.map(|&(at, wiring)| (at, wiring, asked))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::gear::{Chemistry, Gear};
    use crate::rig::RigLine;

    fn battery(key: &str, volts: f64, amp_hours: f64, chemistry: Chemistry) -> Gear {
        Gear {
            electric: Electric::Battery {
                volts,
                amp_hours,
                chemistry,
            },
            ..Gear::plain(key, key, Category::Power, 5.0, None)
        }
    }

    fn draw(key: &str, watts: f64, volts: Option<f64>, category: Category) -> Gear {
        Gear {
            electric: Electric::Draw {
                watts,
                duty: 1.0,
                volts,
            },
            ..Gear::plain(key, key, category, 1.0, None)
        }
    }

    fn rig(things: &[(&Gear, u32)]) -> Rig {
        let line = |&(gear, count): &(&Gear, u32)| {
            RigLine {
                count,
                ..RigLine::plain("", 0.0)
            }
            .is(gear)
        };
        Rig {
            key: "r".into(),
            name: "R".into(),
            lines: things.iter().map(line).collect(),
        }
    }

    #[test]
    fn a_motor_and_its_pack_and_a_sounder_and_its_pack_are_two_circuits() {
        let guides = Guides::default();
        let (large, small) = (
            battery("24 V pack", 25.6, 60.0, Chemistry::Lifepo4),
            battery("sounder's", 12.8, 10.0, Chemistry::Lifepo4),
        );
        let motor = draw("motor", 400.0, Some(24.0), Category::Propulsion);
        let sounder = draw("sounder", 8.0, Some(12.0), Category::Electronics);
        let all = Circuits::of(
            &rig(&[(&sounder, 1), (&large, 1), (&motor, 1), (&small, 1)]),
            &guides,
        );
        assert!(all.unfed.is_empty());
        let of = |name: &str| all.packs.iter().find(|c| c.battery == name).unwrap();
        assert_eq!(of("24 V pack").loads[0].name, "motor");
        assert_eq!(of("sounder's").loads[0].name, "sounder");
        assert!(all.packs.iter().all(|c| !c.asked && c.wiring.is_none()));
        // 12.8 V × 10 Ah, nine tenths usable, seven of that given, over 8 W: 10 hours,
        // not the motor's.
        let hours = of("sounder's").hours(&guides).unwrap();
        assert!((hours - 128.0 * 0.9 * 0.7 / 8.0).abs() < 1e-9, "{hours}");
        assert_eq!(of("24 V pack").hours(&guides), None);
        // What drives is the motor's alone, whatever the sounder takes of its own.
        let driving = all.for_driving(6.0);
        assert!(
            (driving - 3600.0 * 0.9 * 25.6 * 60.0).abs() < 1e-6,
            "{driving}"
        );
        assert!((of("24 V pack").amperes() - 400.0 / 25.6).abs() < 1e-9);
    }

    #[test]
    fn alike_batteries_make_a_pack_wired_as_its_load_asks_and_unlike_ones_none() {
        let guides = Guides::default();
        let one = battery("12 V", 12.8, 50.0, Chemistry::Lifepo4);
        let lead = battery("lead", 12.0, 50.0, Chemistry::Lead);
        let motor = draw("motor", 500.0, Some(24.0), Category::Propulsion);
        let pair = Circuits::of(&rig(&[(&one, 2), (&motor, 1)]), &guides);
        assert_eq!(pair.packs[0].wiring, Some(Wiring::Series));
        assert_eq!(pair.packs[0].bank.amp_hours, 50.0);
        // Two that are not alike are not wired together for it.
        let mixed = Circuits::of(&rig(&[(&one, 1), (&lead, 1), (&motor, 1)]), &guides);
        assert_eq!(mixed.unfed.len(), 1);
        assert!(mixed.packs.iter().all(|c| c.count == 1));
    }

    #[test]
    fn where_several_packs_would_do_it_is_asked_and_taken_with_care() {
        let guides = Guides::default();
        let large = battery("large", 12.8, 100.0, Chemistry::Lifepo4);
        let small = battery("small", 12.8, 7.0, Chemistry::Lifepo4);
        let motor = draw("motor", 300.0, Some(12.0), Category::Propulsion);
        let light = draw("light", 5.0, None, Category::Safety);
        let all = Circuits::of(
            &rig(&[(&small, 1), (&large, 1), (&light, 1), (&motor, 1)]),
            &guides,
        );
        let of = |name: &str| all.packs.iter().find(|c| c.battery == name).unwrap();
        assert_eq!(of("large").loads[0].name, "motor");
        assert_eq!(of("small").loads[0].name, "light");
        assert!(of("large").asked && of("small").asked);
        // One battery for everything: what is taken by day is not left to drive on.
        let alone = Circuits::of(&rig(&[(&large, 1), (&light, 1), (&motor, 1)]), &guides);
        let usable = 0.9 * 12.8 * 100.0;
        assert!((alone.for_driving(6.0) - 3600.0 * (usable - 30.0)).abs() < 1e-6);
    }
}
