#include "image/picture_file.h"

#include <jpeglib.h>
#include <libexif/exif-data.h>
#include <png.h>

#include <algorithm>
#include <csetjmp>
#include <cstdlib>
#include <cstring>
#include <memory>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr double kMmPerInch = 25.4;

Error damaged(const std::string& where) {
    return {"damaged_picture",
            NINE_WORDS("core",
                       "The picture is damaged or cut off part way; copy it from the camera or "
                       "scanner again."),
            where};
}

Status checkSize(double width, double height, const std::string& where) {
    if (width * height <= kMostMegapixels * 1e6) return Done{};
    return Error{"too_many_pixels",
                 Words(NINE_WORDS("core",
                                  "The picture has {size} megapixels; up to {most} are read. Save "
                                  "it smaller, a scan at 300 dpi is enough."))
                     .number("size", width * height / 1e6, 0)
                     .number("most", kMostMegapixels, 0),
                 where};
}

/// The orientation and the lens of an Exif block that begins with "Exif\0\0", where it tells them.
void readExif(const unsigned char* data, std::size_t size, PictureFile& file) {
    const std::unique_ptr<ExifData, void (*)(ExifData*)> exif(
        exif_data_new_from_data(data, static_cast<unsigned>(size)), exif_data_unref);
    if (!exif) return;
    const auto shortOf = [&](ExifIfd part, ExifTag tag) -> int {
        ExifEntry* entry = exif_content_get_entry(exif->ifd[part], tag);
        if (!entry || entry->format != EXIF_FORMAT_SHORT || entry->size < 2) return 0;
        return exif_get_short(entry->data, exif_data_get_byte_order(exif.get()));
    };
    const int tag = shortOf(EXIF_IFD_0, EXIF_TAG_ORIENTATION);
    if (tag >= 1 && tag <= 8) file.orientation = tag;
    file.focal35_mm = shortOf(EXIF_IFD_EXIF, EXIF_TAG_FOCAL_LENGTH_IN_35MM_FILM);
}

struct JpegTrouble {
    jpeg_error_mgr manager;
    std::jmp_buf escape;
};

/// The C library jumps out of its errors; nothing with a destructor lives in here.
enum class JpegEnd { Done, Broken, Cancelled };
JpegEnd readRows(jpeg_decompress_struct& jpeg, JpegTrouble& trouble, std::uint8_t* rgb, const Task& task) {
    if (setjmp(trouble.escape) != 0) return JpegEnd::Broken;
    jpeg_start_decompress(&jpeg);
    const std::size_t stride = 3 * static_cast<std::size_t>(jpeg.output_width);
    while (jpeg.output_scanline < jpeg.output_height) {
        JSAMPROW row = rgb + stride * jpeg.output_scanline;
        jpeg_read_scanlines(&jpeg, &row, 1);
        if (jpeg.output_scanline % 64 == 0 && task.cancelled()) return JpegEnd::Cancelled;
    }
    // A file that ends early is filled up with grey by the library, which only warns.
    return trouble.manager.num_warnings > 0 ? JpegEnd::Broken : JpegEnd::Done;
}

bool readHeader(jpeg_decompress_struct& jpeg, JpegTrouble& trouble, std::string_view bytes) {
    if (setjmp(trouble.escape) != 0) return false;
    jpeg_mem_src(&jpeg, reinterpret_cast<const unsigned char*>(bytes.data()), bytes.size());
    jpeg_save_markers(&jpeg, JPEG_APP0 + 1, 0xFFFF);
    return jpeg_read_header(&jpeg, TRUE) == JPEG_HEADER_OK;
}

Result<PictureFile> decodeJpeg(std::string_view bytes, const std::string& where, const Task& task) {
    jpeg_decompress_struct jpeg{};
    JpegTrouble trouble{};
    jpeg.err = jpeg_std_error(&trouble.manager);
    trouble.manager.error_exit = [](j_common_ptr info) {
        std::longjmp(reinterpret_cast<JpegTrouble*>(info->err)->escape, 1);
    };
    trouble.manager.output_message = [](j_common_ptr) {};
    jpeg_create_decompress(&jpeg);
    const std::unique_ptr<jpeg_decompress_struct, void (*)(jpeg_decompress_struct*)> owner(
        &jpeg, [](jpeg_decompress_struct* j) { jpeg_destroy_decompress(j); });
    if (!readHeader(jpeg, trouble, bytes)) return damaged(where);
    if (Status ok = checkSize(jpeg.image_width, jpeg.image_height, where); !ok) return ok.error();
    if (jpeg.num_components == 4)
        return Error{"unsupported_picture",
                     NINE_WORDS("core",
                                "The picture is stored in printing colours (CMYK); save it as an "
                                "ordinary JPEG or PNG."),
                     where};
    PictureFile file;
    for (const jpeg_marker_struct* m = jpeg.marker_list; m; m = m->next) {
        if (m->data_length > 6 && std::memcmp(m->data, "Exif\0\0", 6) == 0)
            readExif(m->data, m->data_length, file);
    }
    if (jpeg.saw_JFIF_marker && jpeg.density_unit != 0)
        file.perMm = jpeg.X_density / (jpeg.density_unit == 1 ? kMmPerInch : 10);
    jpeg.out_color_space = JCS_RGB;
    file.picture = Picture(static_cast<int>(jpeg.image_width), static_cast<int>(jpeg.image_height));
    const JpegEnd end = readRows(jpeg, trouble, file.picture.rgb.data(), task);
    if (end == JpegEnd::Cancelled) return Task::cancelledError();
    if (end == JpegEnd::Broken) return damaged(where);
    return file;
}

std::uint32_t bigEndian(const char* p) {
    const auto* u = reinterpret_cast<const unsigned char*>(p);
    return static_cast<std::uint32_t>(u[0]) << 24 | static_cast<std::uint32_t>(u[1]) << 16 |
           static_cast<std::uint32_t>(u[2]) << 8 | u[3];
}

/// What the simplified reader does not hand out: density (pHYs) and Exif (eXIf), PNG specification 11.3.
void readChunks(std::string_view bytes, PictureFile& file) {
    constexpr std::size_t kFrame = 12;  // length, name, checksum
    for (std::size_t at = 8; at + kFrame <= bytes.size();) {
        const std::size_t length = bigEndian(bytes.data() + at);
        if (length > bytes.size() - at - kFrame) return;
        const std::string_view name = bytes.substr(at + 4, 4), data = bytes.substr(at + 8, length);
        if (name == "pHYs" && length == 9 && data[8] == 1) file.perMm = bigEndian(data.data()) / 1000.0;
        if (name == "eXIf") {
            const std::string block = std::string("Exif\0\0", 6) + std::string(data);
            readExif(reinterpret_cast<const unsigned char*>(block.data()), block.size(), file);
        }
        at += length + kFrame;
    }
}

Result<PictureFile> decodePng(std::string_view bytes, const std::string& where, const Task& task) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    const std::unique_ptr<png_image, void (*)(png_image*)> owner(&image, png_image_free);
    if (png_image_begin_read_from_memory(&image, bytes.data(), bytes.size()) == 0) return damaged(where);
    if (Status ok = checkSize(image.width, image.height, where); !ok) return ok.error();
    if (task.cancelled()) return Task::cancelledError();
    image.format = PNG_FORMAT_RGB;
    PictureFile file;
    file.picture = Picture(static_cast<int>(image.width), static_cast<int>(image.height));
    const png_color white{255, 255, 255};
    if (png_image_finish_read(&image, &white, file.picture.rgb.data(), 0, nullptr) == 0 ||
        PNG_IMAGE_FAILED(image))
        return damaged(where);
    readChunks(bytes, file);
    return file;
}

}  // namespace

Picture oriented(Picture picture, int orientation) {
    if (orientation <= 1 || orientation > 8) return picture;
    const bool turned = orientation >= 5;
    const int w = picture.width, h = picture.height;
    Picture out(turned ? h : w, turned ? w : h);
    for (int y = 0; y < h; ++y) {
        for (int x = 0; x < w; ++x) {
            int u = x, v = y;
            switch (orientation) {
                case 2:
                    u = w - 1 - x;
                    break;
                case 3:
                    u = w - 1 - x;
                    v = h - 1 - y;
                    break;
                case 4:
                    v = h - 1 - y;
                    break;
                case 5:
                    u = y;
                    v = x;
                    break;
                case 6:
                    u = h - 1 - y;
                    v = x;
                    break;
                case 7:
                    u = h - 1 - y;
                    v = w - 1 - x;
                    break;
                default:
                    u = y;
                    v = w - 1 - x;
                    break;
            }
            std::memcpy(out.at(u, v), picture.at(x, y), 3);
        }
    }
    return out;
}

Result<PictureFile> decodePicture(std::string_view bytes, const std::string& where, const Task& task) {
    const bool jpeg = bytes.substr(0, 3) == "\xFF\xD8\xFF";
    const bool png = bytes.substr(0, 8) == "\x89PNG\r\n\x1a\n";
    if (!jpeg && !png)
        return Error{"not_a_picture",
                     NINE_WORDS("core", "This is not a JPEG or PNG picture; save it as one of these."),
                     where};
    Result<PictureFile> file = jpeg ? decodeJpeg(bytes, where, task) : decodePng(bytes, where, task);
    if (!file) return file;
    file->picture = oriented(std::move(file->picture), file->orientation);
    return file;
}

std::string jpegOf(const Picture& picture, int quality) {
    jpeg_compress_struct jpeg{};
    jpeg_error_mgr manager{};
    jpeg.err = jpeg_std_error(&manager);  // writing to memory has no errors but a full memory
    jpeg_create_compress(&jpeg);
    unsigned char* data = nullptr;
    unsigned long size = 0;
    jpeg_mem_dest(&jpeg, &data, &size);
    jpeg.image_width = static_cast<JDIMENSION>(picture.width);
    jpeg.image_height = static_cast<JDIMENSION>(picture.height);
    jpeg.input_components = 3;
    jpeg.in_color_space = JCS_RGB;
    jpeg_set_defaults(&jpeg);
    jpeg_set_quality(&jpeg, quality, TRUE);
    jpeg_start_compress(&jpeg, TRUE);
    while (jpeg.next_scanline < jpeg.image_height) {
        auto* row = const_cast<JSAMPROW>(picture.at(0, static_cast<int>(jpeg.next_scanline)));
        jpeg_write_scanlines(&jpeg, &row, 1);
    }
    jpeg_finish_compress(&jpeg);
    std::string out(reinterpret_cast<const char*>(data), size);
    jpeg_destroy_compress(&jpeg);
    std::free(data);
    return out;
}

namespace {

std::string pngBytes(int width, int height, png_uint_32 format, const std::uint8_t* data) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    image.width = static_cast<png_uint_32>(width);
    image.height = static_cast<png_uint_32>(height);
    image.format = format;
    png_alloc_size_t size = 0;
    png_image_write_to_memory(&image, nullptr, &size, 0, data, 0, nullptr);
    std::string out(size, '\0');
    png_image_write_to_memory(&image, out.data(), &size, 0, data, 0, nullptr);
    out.resize(size);
    return out;
}

}  // namespace

std::string pngOf(const Picture& picture) {
    return pngBytes(picture.width, picture.height, PNG_FORMAT_RGB, picture.rgb.data());
}

std::string pngOf(int width, int height, const std::vector<std::uint32_t>& pixels) {
    std::vector<std::uint8_t> rgba;
    rgba.reserve(4 * pixels.size());
    for (const std::uint32_t p : pixels) {
        const std::uint32_t alpha = p >> 24;
        for (const int shift : {16, 8, 0}) {
            const std::uint32_t v = p >> shift & 255u;
            rgba.push_back(
                static_cast<std::uint8_t>(alpha == 0 ? 0 : std::min(255u, (255u * v + alpha / 2) / alpha)));
        }
        rgba.push_back(static_cast<std::uint8_t>(alpha));
    }
    return pngBytes(width, height, PNG_FORMAT_RGBA, rgba.data());
}

}  // namespace nine
