//! A picture from a phone or a file: read by its first bytes, never by its name, bounded
//! before it is unpacked, turned upright, made no larger than it is looked at, and written
//! anew, so that nothing of what came with it (place, camera, whatever hangs behind it)
//! is kept.

use image::codecs::jpeg::JpegEncoder;
use image::metadata::Orientation;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits, RgbImage};
use sha2::{Digest, Sha256};
use std::io::Cursor;
use thiserror::Error;

/// Longest side of a picture that is kept, px.
pub const LONGEST_SIDE: u32 = 1_600;
/// Largest file, bytes.
pub const LARGEST_FILE: usize = 24 << 20;
/// Most pixels of a picture that comes in, millions.
pub const MOST_MEGAPIXELS: u64 = 40;
/// Longest side of a picture that comes in, px.
const LONGEST_COMING: u32 = 16_000;
/// Shortest side of one, px: less shows nothing.
const SHORTEST_COMING: u32 = 16;
/// Most that its pixels may take in memory, bytes.
const MOST_UNPACKED: u64 = MOST_MEGAPIXELS * 4_000_000;
/// Quality it is written with, of 100.
const QUALITY: u8 = 85;

/// Why something is not kept as a picture.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[non_exhaustive]
pub enum NoPicture {
    /// There is nothing in it.
    #[error("the file is empty")]
    Empty,
    /// Larger than a picture may be.
    #[error("{0} MiB: a picture may have up to {most} MiB", most = LARGEST_FILE >> 20)]
    Heavy(usize),
    /// It does not begin as a picture does.
    #[error("it is no JPEG, PNG or WebP picture, whatever its name says")]
    Kind,
    /// More pixels than are unpacked.
    #[error("{0} × {1} pixels: a picture may have up to {MOST_MEGAPIXELS} million")]
    Large(u32, u32),
    /// Fewer pixels than show anything.
    #[error("{0} × {1} pixels show nothing")]
    Small(u32, u32),
    /// It begins as a picture and does not go on as one.
    #[error("it is damaged: it begins as a picture and does not go on as one")]
    Damaged,
}

/// A picture as it is kept: a JPEG without anything beside its pixels.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Picture {
    /// The file.
    pub jpeg: Vec<u8>,
    /// Width, px.
    pub width: u32,
    /// Height, px.
    pub height: u32,
}

/// The SHA-256 of bytes in small hexadecimal digits: the name a picture is kept under.
fn name_of(bytes: &[u8]) -> String {
    let digest = Sha256::digest(bytes);
    digest.iter().map(|byte| format!("{byte:02x}")).collect()
}

impl Picture {
    /// The picture of a file somebody sent.
    ///
    /// # Errors
    /// [`NoPicture`].
    pub fn read(bytes: &[u8]) -> Result<Self, NoPicture> {
        let mut image = unpacked(bytes)?;
        if image.width().max(image.height()) > LONGEST_SIDE {
            image = image.thumbnail(LONGEST_SIDE, LONGEST_SIDE);
        }
        let flat = on_white(&image);
        let mut jpeg = Vec::new();
        let encoder = JpegEncoder::new_with_quality(&mut jpeg, QUALITY);
        let written = flat.write_with_encoder(encoder);
        written.map_err(|_| NoPicture::Damaged)?;
        Ok(Self {
            width: flat.width(),
            height: flat.height(),
            jpeg,
        })
    }

    /// One that was kept before, out of an archive: taken as it is where it is as this
    /// module writes them, so that what leaves comes back the very same; written anew
    /// where anything else is in it.
    ///
    /// # Errors
    /// [`NoPicture`].
    pub fn returned(bytes: &[u8]) -> Result<Self, NoPicture> {
        if !is_bare(bytes) {
            return Self::read(bytes);
        }
        let image = unpacked(bytes)?;
        let (width, height) = (image.width(), image.height());
        if width.max(height) > LONGEST_SIDE {
            return Self::read(bytes);
        }
        Ok(Self {
            jpeg: bytes.to_vec(),
            width,
            height,
        })
    }

    /// The name it is kept under.
    #[must_use]
    pub fn name(&self) -> String {
        name_of(&self.jpeg)
    }
}

/// Whether a word can be the name of a picture.
#[must_use]
pub fn is_name(word: &str) -> bool {
    word.len() == 64 && word.bytes().all(|b| matches!(b, b'0'..=b'9' | b'a'..=b'f'))
}

/// The pixels of a file, upright.
fn unpacked(bytes: &[u8]) -> Result<DynamicImage, NoPicture> {
    if bytes.is_empty() {
        return Err(NoPicture::Empty);
    }
    if bytes.len() > LARGEST_FILE {
        return Err(NoPicture::Heavy(bytes.len() >> 20));
    }
    let reader = ImageReader::new(Cursor::new(bytes)).with_guessed_format();
    let mut reader = reader.map_err(|_| NoPicture::Damaged)?;
    match reader.format() {
        Some(ImageFormat::Jpeg | ImageFormat::Png | ImageFormat::WebP) => {}
        _ => return Err(NoPicture::Kind),
    }
    // Its size is asked before room is made for it.
    let mut limits = Limits::no_limits();
    limits.max_alloc = Some(MOST_UNPACKED * 2);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(|_| NoPicture::Damaged)?;
    let (width, height) = decoder.dimensions();
    let pixels = u64::from(width) * u64::from(height);
    let large = width.max(height) > LONGEST_COMING || pixels > MOST_MEGAPIXELS * 1_000_000;
    if large || decoder.total_bytes() > MOST_UNPACKED {
        return Err(NoPicture::Large(width, height));
    }
    if width.min(height) < SHORTEST_COMING {
        return Err(NoPicture::Small(width, height));
    }
    let turned = decoder.orientation().unwrap_or(Orientation::NoTransforms);
    let image = DynamicImage::from_decoder(decoder);
    let mut image = image.map_err(|_| NoPicture::Damaged)?;
    image.apply_orientation(turned);
    Ok(image)
}

/// A picture without holes: what is clear is white.
fn on_white(image: &DynamicImage) -> RgbImage {
    if !image.color().has_alpha() {
        return image.to_rgb8();
    }
    let clear = image.to_rgba8();
    RgbImage::from_fn(clear.width(), clear.height(), |x, y| {
        let [r, g, b, a] = clear.get_pixel(x, y).0;
        let over = |c: u8| {
            let (c, a) = (u32::from(c), u32::from(a));
            u8::try_from((c * a + 255 * (255 - a)) / 255).unwrap_or(255)
        };
        image::Rgb([over(r), over(g), over(b)])
    })
}

/// Whether a JPEG holds what its pixels need and nothing else: no note, no place, no
/// picture within it, nothing behind its end.
fn is_bare(bytes: &[u8]) -> bool {
    if !bytes.starts_with(&[0xff, 0xd8]) || !bytes.ends_with(&[0xff, 0xd9]) {
        return false;
    }
    let mut at = 2;
    // Segment after segment up to the one after which pixels follow.
    loop {
        let Some(&[0xff, marker, high, low]) = bytes.get(at..at + 4) else {
            return false;
        };
        let length = u16::from_be_bytes([high, low]);
        match marker {
            // The usual head without a picture in it, tables, the frame.
            0xe0 if length == 16 => {}
            0xdb | 0xc0..=0xc4 | 0xdd => {}
            // The scan: within it 0xff stands before 0 or a restart only.
            0xda => break,
            _ => return false,
        }
        at += 2 + usize::from(length);
    }
    let scan = &bytes[at + 2..bytes.len() - 2];
    scan.windows(2)
        .all(|pair| pair[0] != 0xff || matches!(pair[1], 0x00 | 0xd0..=0xd7))
}
