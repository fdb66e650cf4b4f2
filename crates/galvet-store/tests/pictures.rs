//! Pictures as people and others send them: what is one is kept upright and bare, what is
//! none is refused before it takes room.
#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use galvet_store::files::bundle;
use galvet_store::files::photo::{LARGEST_FILE, LONGEST_SIDE, NoPicture, Photo, Picture, Shows};
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Kind, Record};
use image::codecs::jpeg::JpegEncoder;
use image::codecs::png::PngEncoder;
use image::codecs::webp::WebPEncoder;
use image::{ExtendedColorType, ImageEncoder, Rgb, RgbImage, Rgba, RgbaImage};

/// Red to the left, blue to the right; twice as wide as high.
fn two_colours(width: u32) -> RgbImage {
    RgbImage::from_fn(width, width / 2, |x, _| {
        Rgb(if x < width / 2 {
            [220, 30, 30]
        } else {
            [30, 30, 220]
        })
    })
}

fn jpeg(image: &RgbImage) -> Vec<u8> {
    let mut out = Vec::new();
    let how = JpegEncoder::new_with_quality(&mut out, 92);
    image.write_with_encoder(how).unwrap();
    out
}

fn png(image: &RgbImage) -> Vec<u8> {
    let mut out = Vec::new();
    image.write_with_encoder(PngEncoder::new(&mut out)).unwrap();
    out
}

/// A JPEG with a segment put in right behind its beginning.
fn with_segment(jpeg: &[u8], marker: u8, content: &[u8]) -> Vec<u8> {
    let length = u16::try_from(content.len() + 2).unwrap();
    let mut out = vec![0xff, 0xd8, 0xff, marker];
    out.extend(length.to_be_bytes());
    out.extend(content);
    out.extend(&jpeg[2..]);
    out
}

/// What a phone puts beside the pixels: turned a quarter to the right, and where it was.
fn exif() -> Vec<u8> {
    let mut out = b"Exif\0\0MM\0\x2a\0\0\0\x08\0\x02".to_vec();
    // Orientation 6; a description that gives the place away.
    out.extend(b"\x01\x12\0\x03\0\0\0\x01\0\x06\0\0");
    out.extend(b"\x01\x0e\0\x02\0\0\0\x13\0\0\0\x26\0\0\0\0");
    out.extend(b"52.1234 N 4.5678 E\0");
    out
}

fn holds(bytes: &[u8], part: &[u8]) -> bool {
    bytes.windows(part.len()).any(|w| w == part)
}

fn colour(picture: &Picture, x: u32, y: u32) -> Rgb<u8> {
    let image = image::load_from_memory(&picture.jpeg).unwrap();
    *image.to_rgb8().get_pixel(x, y)
}

#[test]
fn a_phones_picture_is_turned_upright_and_says_nothing_of_where_it_was() {
    let sent = with_segment(&jpeg(&two_colours(200)), 0xe1, &exif());
    let kept = Picture::read(&sent).unwrap();
    // A quarter turn to the right: what was left is above.
    assert_eq!((kept.width, kept.height), (100, 200));
    let (above, below) = (colour(&kept, 50, 20), colour(&kept, 50, 180));
    assert!(above[0] > 180 && above[2] < 80, "{above:?}");
    assert!(below[2] > 180 && below[0] < 80, "{below:?}");
    assert!(holds(&sent, b"52.1234") && holds(&sent, b"Exif"));
    assert!(!holds(&kept.jpeg, b"52.1234") && !holds(&kept.jpeg, b"Exif"));
}

#[test]
fn a_large_picture_is_kept_no_larger_than_it_is_looked_at() {
    let kept = Picture::read(&jpeg(&two_colours(4_000))).unwrap();
    assert_eq!((kept.width, kept.height), (LONGEST_SIDE, LONGEST_SIDE / 2));
    // One that is small stays as large as it is.
    let kept = Picture::read(&png(&two_colours(300))).unwrap();
    assert_eq!((kept.width, kept.height), (300, 150));
}

#[test]
fn what_is_clear_is_white_and_other_kinds_are_read() {
    let mut out = Vec::new();
    let clear = RgbaImage::from_pixel(40, 40, Rgba([0, 0, 0, 0]));
    let how = PngEncoder::new(&mut out);
    clear.write_with_encoder(how).unwrap();
    let kept = Picture::read(&out).unwrap();
    assert_eq!(colour(&kept, 20, 20), Rgb([255, 255, 255]));
    let mut out = Vec::new();
    let image = two_colours(80);
    let how = WebPEncoder::new_lossless(&mut out);
    how.write_image(&image, 80, 40, ExtendedColorType::Rgb8)
        .unwrap();
    let kept = Picture::read(&out).unwrap();
    assert!(colour(&kept, 10, 20)[0] > 180);
}

#[test]
fn what_was_kept_comes_back_the_very_same_and_anything_else_is_written_anew() {
    let kept = Picture::read(&jpeg(&two_colours(500))).unwrap();
    assert_eq!(Picture::returned(&kept.jpeg).unwrap(), kept);
    let smuggled = [
        with_segment(&kept.jpeg, 0xe1, &exif()),
        with_segment(&kept.jpeg, 0xfe, b"<script>alert(1)</script>"),
        [kept.jpeg.as_slice(), b"PK\x03\x04<html>\xff\xd9"].concat(),
    ];
    for bytes in smuggled {
        let again = Picture::returned(&bytes).unwrap();
        assert_ne!(again.jpeg, bytes);
        for part in [b"<html>".as_slice(), b"<script>", b"52.1234"] {
            assert!(!holds(&again.jpeg, part));
        }
    }
}

/// A PNG's head with a size nobody has room for, and nothing behind it.
fn bomb(width: u32, height: u32) -> Vec<u8> {
    let real = png(&two_colours(32));
    let mut out = real[..16].to_vec();
    out.extend(width.to_be_bytes());
    out.extend(height.to_be_bytes());
    out.extend(&real[24..29]);
    let crc = crc(&out[12..29]);
    out.extend(crc.to_be_bytes());
    out.extend(&real[33..]);
    out
}

/// The check sum of a PNG's chunk (ISO 3309).
fn crc(bytes: &[u8]) -> u32 {
    !bytes.iter().fold(!0_u32, |crc, byte| {
        (0..8).fold(crc ^ u32::from(*byte), |c, _| {
            if c & 1 == 1 {
                0xedb8_8320 ^ (c >> 1)
            } else {
                c >> 1
            }
        })
    })
}

#[test]
fn twenty_that_are_none_are_refused_with_the_reason() {
    let real = jpeg(&two_colours(200));
    let flat = png(&RgbImage::from_pixel(7_000, 6_000, Rgb([9, 9, 9])));
    assert!(flat.len() < 1 << 20, "42 million pixels in less than 1 MiB");
    let cut = |bytes: &[u8]| bytes[..bytes.len() / 3].to_vec();
    let svg = b"<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>";
    let hostile: Vec<(&str, Vec<u8>)> = vec![
        ("nothing", vec![]),
        ("one byte", vec![0xff]),
        ("SVG", svg.to_vec()),
        (
            "SVG with a head",
            [b"<?xml version='1.0'?>".as_slice(), svg].concat(),
        ),
        (
            "HTML",
            b"<!doctype html><img src=x onerror=alert(1)>".to_vec(),
        ),
        (
            "GIF that is script",
            b"GIF89a/*\0\0*/=1;alert(1)//;".to_vec(),
        ),
        ("BMP", [b"BM".as_slice(), &[0; 60]].concat()),
        ("TIFF", b"II*\0\x08\0\0\0\0\0\0\0".to_vec()),
        ("ICO", [b"\0\0\x01\0\x01\0".as_slice(), &[0; 40]].concat()),
        (
            "PDF with a picture in it",
            [b"%PDF-1.4\n".as_slice(), &real].concat(),
        ),
        (
            "archive with a picture in it",
            [b"PK\x03\x04".as_slice(), &real].concat(),
        ),
        ("HEIC", b"\0\0\0\x18ftypheic\0\0\0\0mif1heic".to_vec()),
        ("film", b"\0\0\0\x18ftypmp42\0\0\0\0mp42isom".to_vec()),
        ("JPEG's first bytes", vec![0xff, 0xd8, 0xff, 0xe0]),
        ("JPEG cut in its head", real[..60].to_vec()),
        ("PNG cut short", cut(&png(&two_colours(400)))),
        ("PNG of 100,000 × 100,000", bomb(100_000, 100_000)),
        ("PNG of no width", bomb(0, 10)),
        ("42 million pixels of one colour", flat),
        ("WebP's first bytes", b"RIFF\x24\0\0\0WEBPVP8 ".to_vec()),
        ("four pixels", png(&two_colours(4))),
        ("long and a pixel high", bomb(40_000, 16)),
        ("too heavy", vec![0xff; LARGEST_FILE + 1]),
        ("text", b"length,beam\n3.7,0.9\n".to_vec()),
    ];
    assert!(hostile.len() >= 20);
    for (what, bytes) in hostile {
        let said = Picture::read(&bytes);
        let none = said.err().unwrap_or_else(|| panic!("{what} was kept"));
        assert!(!none.to_string().is_empty(), "{what}");
        assert!(
            Picture::returned(&bytes).is_err(),
            "{what}, out of an archive"
        );
    }
    assert_eq!(Picture::read(svg), Err(NoPicture::Kind));
    assert_eq!(
        Picture::read(&bomb(7_000, 6_000)),
        Err(NoPicture::Large(7_000, 6_000))
    );
}

fn photo(key: &str, picture: &Picture) -> Photo {
    Photo {
        outing: String::new(),
        key: key.to_owned(),
        name: "Tank well".to_owned(),
        hull: "made-up".to_owned(),
        shows: Shows::Place("tank well".to_owned()),
        date: "2026-11-30".to_owned(),
        who: String::new(),
        note: String::new(),
        picture: picture.name(),
        width: picture.width,
        height: picture.height,
    }
}

#[test]
fn pixels_are_kept_once_come_back_and_are_swept_out_when_nothing_names_them() {
    let dir = tempfile::tempdir().unwrap();
    let store = galvet_store::Store::open(dir.path()).unwrap();
    let (used, unused) = (two_colours(120), two_colours(140));
    let [used, unused] = [used, unused].map(|i| Picture::read(&jpeg(&i)).unwrap());
    for picture in [&used, &used, &unused] {
        assert_eq!(store.keep_picture(picture).unwrap(), picture.name());
    }
    let record = Record::Sheet(Document::of(&photo("well", &used)));
    store
        .write("me", "photo added", |door| door.put(&record, None))
        .unwrap();
    let get = |store: &galvet_store::Store, p: &Picture| store.picture(&p.name()).unwrap();
    assert_eq!(get(&store, &used), Some(used.jpeg.clone()));
    assert_eq!(get(&store, &unused), Some(unused.jpeg.clone()));
    assert_eq!(store.picture("../galvet.db").unwrap(), None);
    // Deleted, the journal still names it: it can come back.
    let kind = Kind::of::<Photo>();
    store.throw_away("me", (kind, "well"), None).unwrap();
    drop(store);
    let store = galvet_store::Store::open(dir.path()).unwrap();
    assert_eq!(get(&store, &used), Some(used.jpeg.clone()));
    assert_eq!(get(&store, &unused), None);
}

#[test]
fn an_archive_hands_on_its_pictures_and_counts_what_is_none() {
    let picture = Picture::read(&jpeg(&two_colours(120))).unwrap();
    let other = Picture::read(&jpeg(&two_colours(160))).unwrap();
    let file = |name: &str, bytes: &[u8]| (name.to_owned(), bytes.to_vec());
    let files = [
        file(bundle::EVERYTHING, b"{\"galvet\": 1}"),
        file(&bundle::picture_path(&picture.name()), &picture.jpeg),
        // A name that is not its own; a script; a way out of the folder.
        file(
            &bundle::picture_path(&picture.name().replace('a', "b")),
            &other.jpeg,
        ),
        file("photos/x.jpg", b"<script>"),
        file("photos/../../x.jpg", &other.jpeg),
    ];
    let mut kept = Vec::new();
    let keep = |p: &Picture| -> Result<(), ()> {
        kept.push(p.clone());
        Ok(())
    };
    let odd = bundle::pictures(&bundle::pack(&files).unwrap(), keep).unwrap();
    assert_eq!((kept, odd), (vec![picture], 3));
    // Any other archive has none of ours.
    let none = bundle::pictures(&bundle::pack(&files[1..]).unwrap(), |_| Err(()));
    assert_eq!(none, Ok(0));
}

#[test]
fn a_photo_that_could_not_be_one_is_refused() {
    let picture = Picture::read(&jpeg(&two_colours(120))).unwrap();
    let good = photo("well", &picture);
    assert_eq!(good.check(), Ok(()));
    let changes: [fn(&mut Photo); 5] = [
        |p| p.picture = "../../etc/passwd".to_owned(),
        |p| p.picture = p.picture.to_uppercase(),
        |p| p.width = 0,
        |p| p.date = "2026-02-30".to_owned(),
        |p| p.hull = "no such slug!".to_owned(),
    ];
    for (k, change) in changes.iter().enumerate() {
        let mut odd = good.clone();
        change(&mut odd);
        assert!(odd.check().is_err(), "{k}");
    }
}
