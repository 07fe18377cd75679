// JPEG and PNG files in and out of memory.
//
// The size is read from the header before anything is unpacked, so that a picture too large is refused at
// once. The orientation tag (Exif 2.32, 4.6.4 A) is obeyed: the picture comes out as it was seen. Where a
// file says how densely it was scanned, that is handed on. Transparent pixels come out on white.
#pragma once

#include <algorithm>
#include <string>
#include <string_view>

#include "base/result.h"
#include "base/task.h"
#include "base/units.h"
#include "image/picture.h"

namespace nine {

constexpr Ratio kMostMegapixels = 50;
constexpr std::size_t kMaxPictureFileBytes = 120u << 20;

struct PictureFile {
    Picture picture;
    double perMm = 0;       ///< pixels per mm that the file claims; 0 when it does not say
    int orientation = 1;    ///< the tag that was obeyed
    double focal35_mm = 0;  ///< of the lens as if the picture were 36 mm wide, as the file claims; 0 if not
    /// The same in pixels of this picture; 0 when the file does not say.
    double focal_px() const { return focal35_mm / 36 * std::max(picture.width, picture.height); }
};

/// Errors: not_a_picture, too_many_pixels, damaged_picture (cut off or broken), unsupported_picture
/// (CMYK), cancelled. `where` names the file. About 20 ms a megapixel.
Result<PictureFile> decodePicture(std::string_view bytes, const std::string& where, const Task& task = {});

/// `quality` 1..100.
std::string jpegOf(const Picture& picture, int quality);
std::string pngOf(const Picture& picture);
/// Of premultiplied 0xAARRGGBB pixels, transparency kept.
std::string pngOf(int width, int height, const std::vector<std::uint32_t>& pixels);

/// The picture turned and mirrored as an orientation tag 1..8 asks.
Picture oriented(Picture picture, int orientation);

}  // namespace nine
