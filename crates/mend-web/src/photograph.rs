//! A photograph as it is kept: upright, no larger than a screen can show, without what the camera wrote into it.

use std::io::Cursor;

use image::codecs::jpeg::JpegEncoder;
use image::imageops::FilterType;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};
use mend_core::finding::Finding;
use mend_store::NewPhoto;
use tokio::sync::Semaphore;

use crate::refusal::Refusal;
use crate::upload::SizeLimit;

/// What a photograph's file may have.
pub(crate) const FILE: SizeLimit = SizeLimit { bytes: 25 * 1024 * 1024, what: "a photograph (JPEG, PNG or WebP)" };
/// Longest side that is decoded, pixels: beyond it no camera of a phone goes.
const LONGEST_PX: u32 = 12_000;
/// Pixels that are decoded; the size is read before anything is.
const MOST_PIXELS: u64 = 40_000_000;
/// Memory that decoding one may take, bytes.
const MOST_BYTES: u64 = 200 * 1000 * 1000;
/// One is decoded at a time: ten at once would take ten times the memory.
static ONE: Semaphore = Semaphore::const_new(1);
/// Longest side that is kept, pixels: 0.05 mm on a board of 150 mm.
const KEPT_PX: u32 = 3000;
const QUALITY: u8 = 86;

fn object(message: impl Into<String>) -> Vec<Finding> {
    vec![
        Finding::written("photograph", "photograph", message)
            .hint("choose a JPEG, PNG or WebP file up to 40 megapixels"),
    ]
}

/// [`keep`] off the async threads, one picture at a time.
pub(crate) async fn decode(bytes: Vec<u8>) -> Result<Result<NewPhoto, Vec<Finding>>, Refusal> {
    let broken = |error: &dyn std::fmt::Display| Refusal::Broken(error.to_string());
    let _turn = ONE.acquire().await.map_err(|error| broken(&error))?;
    tokio::task::spawn_blocking(move || keep(&bytes)).await.map_err(|error| broken(&error))
}

/// Does a JPEG file have its end? A decoder fills what is missing with grey and says nothing.
fn has_end(jpeg: &[u8]) -> bool {
    const SCAN: u8 = 0xda;
    let mut at = 2;
    // Segments up to the first scan have their length; a thumbnail's own end lies within one of them.
    while let Some([0xff, kind, high, low]) = jpeg.get(at..at + 4).and_then(|four| <[u8; 4]>::try_from(four).ok()) {
        if kind == SCAN {
            return jpeg[at..].windows(2).any(|two| two == [0xff, 0xd9]);
        }
        at += 2 + usize::from(u16::from_be_bytes([high, low]));
    }
    false
}

/// Decodes, turns upright, makes smaller and encodes anew. Takes a second for a large one: run it off the async threads.
pub(crate) fn keep(bytes: &[u8]) -> Result<NewPhoto, Vec<Finding>> {
    if bytes.is_empty() {
        return Err(object("no file was chosen"));
    }
    let mut reader = ImageReader::new(Cursor::new(bytes)).with_guessed_format().map_err(|e| object(e.to_string()))?;
    if !matches!(reader.format(), Some(ImageFormat::Jpeg | ImageFormat::Png | ImageFormat::WebP)) {
        return Err(object("the file is none of JPEG, PNG and WebP"));
    }
    if reader.format() == Some(ImageFormat::Jpeg) && !has_end(bytes) {
        return Err(object("the file is cut off: its end is missing"));
    }
    let mut limits = Limits::default();
    (limits.max_image_width, limits.max_image_height) = (Some(LONGEST_PX), Some(LONGEST_PX));
    limits.max_alloc = Some(MOST_BYTES);
    reader.limits(limits);
    let broken = |error: image::ImageError| object(format!("can't be read: {error}"));
    let mut decoder = reader.into_decoder().map_err(broken)?;
    let (width, height) = decoder.dimensions();
    if u64::from(width) * u64::from(height) > MOST_PIXELS {
        return Err(object(format!("{width} x {height} pixels are too many")));
    }
    if width.min(height) < 32 {
        return Err(object(format!("{width} x {height} pixels show nothing")));
    }
    let upright = decoder.orientation().map_err(broken)?;
    let mut picture = DynamicImage::from_decoder(decoder).map_err(broken)?;
    picture.apply_orientation(upright);
    encode(picture).map_err(broken)
}

fn encode(picture: DynamicImage) -> Result<NewPhoto, image::ImageError> {
    let large = picture.width().max(picture.height()) > KEPT_PX;
    let picture = if large { picture.resize(KEPT_PX, KEPT_PX, FilterType::CatmullRom) } else { picture };
    let mut jpeg = Vec::new();
    // JPEG knows no transparency: what was clear becomes white, as on paper.
    let flat = flatten(&picture);
    JpegEncoder::new_with_quality(&mut jpeg, QUALITY).encode_image(&flat)?;
    Ok(NewPhoto { jpeg, size: (flat.width(), flat.height()) })
}

fn flatten(picture: &DynamicImage) -> image::RgbImage {
    if !picture.color().has_alpha() {
        return picture.to_rgb8();
    }
    let rgba = picture.to_rgba8();
    image::RgbImage::from_fn(rgba.width(), rgba.height(), |x, y| {
        let [r, g, b, a] = rgba.get_pixel(x, y).0.map(u32::from);
        let over = |c: u32| u8::try_from((c * a + 255 * (255 - a)) / 255).unwrap_or(u8::MAX);
        image::Rgb([over(r), over(g), over(b)])
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Left half dark, right half bright, 64 x 40.
    fn picture() -> DynamicImage {
        let dark_left = |x, _| if x < 32 { image::Rgba([10, 10, 10, 255]) } else { image::Rgba([240, 240, 240, 0]) };
        DynamicImage::ImageRgba8(image::RgbaImage::from_fn(64, 40, dark_left))
    }

    fn encoded(format: ImageFormat) -> Vec<u8> {
        let mut bytes = Cursor::new(Vec::new());
        let picture =
            if format == ImageFormat::Jpeg { DynamicImage::ImageRgb8(picture().to_rgb8()) } else { picture() };
        picture.write_to(&mut bytes, format).expect("can be written");
        bytes.into_inner()
    }

    /// A JPEG with the camera's block: turned by a quarter, and a maker's name.
    fn with_exif() -> Vec<u8> {
        let jpeg = encoded(ImageFormat::Jpeg);
        let tiff = [
            &b"Exif\0\0II*\0\x08\0\0\0"[..],
            &[2, 0],
            &[0x12, 0x01, 3, 0, 1, 0, 0, 0, 6, 0, 0, 0],
            &[0x0f, 0x01, 2, 0, 4, 0, 0, 0, b'S', b'P', b'Y', 0],
            &[0, 0, 0, 0],
        ]
        .concat();
        let length = u16::try_from(tiff.len() + 2).expect("short").to_be_bytes();
        [&jpeg[..2], &[0xff, 0xe1], &length, &tiff, &jpeg[2..]].concat()
    }

    #[test]
    fn the_three_formats_come_in_and_leave_as_jpeg() {
        for format in [ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP] {
            let kept = keep(&encoded(format)).expect("a photograph");
            assert_eq!(kept.size, (64, 40));
            assert_eq!(image::guess_format(&kept.jpeg).ok(), Some(ImageFormat::Jpeg));
        }
    }

    #[test]
    fn a_turned_photograph_is_kept_upright_without_what_the_camera_wrote() {
        let kept = keep(&with_exif()).expect("a photograph");
        assert_eq!(kept.size, (40, 64), "orientation 6: turned by a quarter");
        let shown = image::load_from_memory(&kept.jpeg).expect("a picture").to_luma8();
        assert!(shown.get_pixel(20, 8).0[0] < 60, "what was left is above now");
        assert!(!kept.jpeg.windows(4).any(|four| four == b"Exif" || four == b"SPY\0"));
    }

    #[test]
    fn what_is_no_photograph_is_refused_in_words() {
        let tiny = DynamicImage::new_rgb8(8, 8);
        let mut small = Cursor::new(Vec::new());
        tiny.write_to(&mut small, ImageFormat::Png).expect("can be written");
        let cut = |format: ImageFormat| {
            let whole = encoded(format);
            whole[..whole.len() * 2 / 3].to_vec()
        };
        let cut_off = [ImageFormat::Png, ImageFormat::Jpeg, ImageFormat::WebP].map(cut);
        let others = [vec![], b"GIF89a".to_vec(), b"hello".to_vec(), small.into_inner()];
        for bytes in cut_off.into_iter().chain(others) {
            let found = keep(&bytes).expect_err("no photograph");
            assert!(!crate::words::Words::default().finding(&found[0]).hint.is_empty());
        }
    }

    #[test]
    fn a_picture_of_too_many_pixels_is_refused_before_it_is_decoded() {
        let mut png = encoded(ImageFormat::Png);
        // The header's width and height, with its check sum left wrong: limits come first.
        png[16..24].copy_from_slice(&[0, 0, 0x2e, 0xe0, 0, 0, 0x2e, 0xe0]);
        assert!(keep(&png).is_err());
    }
}
