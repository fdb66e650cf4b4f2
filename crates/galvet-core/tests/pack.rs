//! Packing a floor against brute force: every place on a grid tried.

use crate::stow_hull;

use galvet_core::stow::{Packed, Piece, Rect, Room, pack};
use stow_hull::{Dice, by_force};

#[test]
fn packing_finds_what_brute_force_finds() {
    let mut dice = Dice(20_261_125);
    let (mut packed, mut not) = (0, 0);
    for case in 0..1_500 {
        let room = (4 + dice.roll(3) as i32, 3 + dice.roll(3) as i32);
        let count = 2 + dice.roll(4) as usize;
        let pieces: Vec<Piece> = (0..count)
            .map(|_| Piece {
                length: 1 + dice.roll(3) as i32,
                width: 1 + dice.roll(3) as i32,
                turns: dice.roll(4) > 0,
                within: if dice.roll(4) == 0 { 3 } else { i32::MAX },
            })
            .collect();
        let kept: Vec<Rect> = (0..dice.roll(3))
            .map(|_| Rect {
                x: dice.roll(5) as i32,
                y: dice.roll(4) as i32,
                length: 1 + dice.roll(2) as i32,
                width: 1 + dice.roll(2) as i32,
            })
            .collect();
        let exact = pack(
            Room {
                length: room.0,
                width: room.1,
                kept: &kept,
            },
            &pieces,
            10_000_000,
        );
        let found = by_force(room, &kept, &pieces, &mut Vec::new());
        match exact {
            Packed::At(rects) => {
                packed += 1;
                assert!(found, "case {case}");
                for (i, a) in rects.iter().enumerate() {
                    assert!(a.x >= 0 && a.y >= 0 && a.side() <= room.1);
                    assert!(a.end() <= room.0.min(pieces[i].within));
                    assert!(kept.iter().all(|k| !k.overlaps(*a)), "case {case}");
                    assert!(rects[..i].iter().all(|b| !b.overlaps(*a)), "case {case}");
                }
            }
            Packed::Never => {
                not += 1;
                assert!(!found, "case {case}: {room:?} {kept:?} {pieces:?}");
            }
            Packed::GaveUp => panic!("case {case} gave up"),
        }
    }
    assert!(packed > 300 && not > 300, "{packed} {not}");
}

#[test]
fn four_about_a_hole_are_packed() {
    // A pinwheel: no cut goes through it from side to side.
    let piece = |length, width| Piece {
        length,
        width,
        turns: false,
        within: i32::MAX,
    };
    let pieces = [piece(2, 1), piece(1, 2), piece(2, 1), piece(1, 2)];
    let kept = [Rect {
        x: 1,
        y: 1,
        length: 1,
        width: 1,
    }];
    let room = Room {
        length: 3,
        width: 3,
        kept: &kept,
    };
    assert!(matches!(pack(room, &pieces, 100_000), Packed::At(_)));
    // With effort for nothing it says that it gave up, not that it never goes.
    assert_eq!(pack(room, &pieces, 3), Packed::GaveUp);
}
