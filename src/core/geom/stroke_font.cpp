#include "geom/stroke_font.h"

#include <string>

#include "geom/stroke_font_data.h"

namespace nine {
namespace {

constexpr double kCapitalUnits = 21;  // from 'F' to '[' in the font's own units
constexpr int kBaseline = '[' - 'R';

/// Base letters of U+00C0..U+00FF.
constexpr std::string_view kLatinBase = "AAAAAAACEEEEIIIIDNOOOOOxOUUUUYTsaaaaaaaceeeeiiiidnooooo/ouuuuyty";

/// Characters the font has, from UTF-8.
std::string drawable(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto c = static_cast<unsigned char>(text[i]);
        if (c < 0x80) {
            out += c >= 32 && c < 127 ? static_cast<char>(c) : ' ';
        } else if (c >= 0xC0) {
            const auto next = i + 1 < text.size() ? static_cast<unsigned char>(text[i + 1]) : 0u;
            const unsigned code = (c & 0x1Fu) << 6 | (next & 0x3Fu);
            out += c == 0xC3 && code >= 0xC0 && code <= 0xFF ? kLatinBase[code - 0xC0] : '?';
        }  // the other bytes of a longer character
    }
    return out;
}

std::string_view glyphOf(char c) {
    return detail::kHersheySimplex[static_cast<std::size_t>(c - 32)].substr(3);
}

}  // namespace

std::vector<Polyline2> strokeText(std::string_view text, double height_mm) {
    const double unit = height_mm / kCapitalUnits;
    std::vector<Polyline2> strokes;
    double x = 0;
    for (const char c : drawable(text)) {
        const std::string_view glyph = glyphOf(c);
        const int left = glyph[0] - 'R', right = glyph[1] - 'R';
        Polyline2 stroke;
        const auto lift = [&] {
            if (stroke.size() > 1) strokes.push_back(stroke);
            stroke.clear();
        };
        for (std::size_t i = 2; i + 1 < glyph.size(); i += 2) {
            if (glyph[i] == ' ' && glyph[i + 1] == 'R') {
                lift();
            } else {
                stroke.emplace_back(x + unit * (glyph[i] - 'R' - left),
                                    unit * (kBaseline - (glyph[i + 1] - 'R')));
            }
        }
        lift();
        x += unit * (right - left);
    }
    return strokes;
}

std::string lettersWithoutStrokes(std::string_view text) {
    std::string odd;
    for (std::size_t i = 0; i < text.size();) {
        std::size_t end = i + 1;
        while (end < text.size() && (static_cast<unsigned char>(text[end]) & 0xC0u) == 0x80u) ++end;
        const std::string_view letter = text.substr(i, end - i);
        if (letter != "?" && drawable(letter) == "?" && odd.find(letter) == odd.npos) odd += letter;
        i = end;
    }
    return odd;
}

double strokeTextWidth_mm(std::string_view text, double height_mm) {
    double width = 0;
    for (const char c : drawable(text)) width += glyphOf(c)[1] - glyphOf(c)[0];
    return width * height_mm / kCapitalUnits;
}

}  // namespace nine
