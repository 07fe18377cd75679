#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "cut/drawing.h"

namespace nine {
namespace {

constexpr int kDecimals = 4;

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        switch (c) {
            case '&':
                out += "&amp;";
                break;
            case '<':
                out += "&lt;";
                break;
            case '>':
                out += "&gt;";
                break;
            case '"':
                out += "&quot;";
                break;
            default:
                if (static_cast<unsigned char>(c) >= 32) out += c;
        }
    }
    return out;
}

const char* svgStyle(const std::string& layer) {
    if (layer == "CUT") return "stroke=\"#000000\" stroke-width=\"0.15\"";
    if (layer == "PEN") return "stroke=\"#5a665e\" stroke-width=\"0.18\"";
    return "stroke=\"#1d2a25\" stroke-width=\"0.2\"";
}

/// "rgb(n,n,n)" of 0 black to 1 white.
std::string greyText(double grey) {
    const std::string n = std::to_string(static_cast<int>(std::lround(255 * grey)));
    return "rgb(" + n + "," + n + "," + n + ")";
}

}  // namespace

Vec2 svgPoint(const Drawing& drawing, const Vec2& p) {
    return {p.x(), drawing.size_mm.y() - p.y()};
}

std::string svgText(const Drawing& drawing) {
    const auto number = [](double v) { return fixedText(v, kDecimals); };
    const std::string width = numberText(drawing.size_mm.x()), height = numberText(drawing.size_mm.y());
    std::string svg =
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" +
        width + "mm\" height=\"" + height + "mm\" viewBox=\"0 0 " + width + " " + height + "\">\n<title>" +
        escaped(drawing.title) + "</title>\n";
    for (const Layer& layer : drawing.layers) {
        svg += "<g id=\"" + layer.name +
               "\" fill=\"none\" stroke-linejoin=\"round\" stroke-linecap=\"round\" " + svgStyle(layer.name) +
               ">\n";
        for (const DrawnLine& line : layer.lines) {
            svg += "<path d=\"";
            for (std::size_t i = 0; i < line.points.size(); ++i) {
                const Vec2 p = svgPoint(drawing, line.points[i]);
                svg += (i == 0 ? "M" : " L") + number(p.x()) + " " + number(p.y());
            }
            svg += line.closed || line.filled ? " Z\"" : "\"";
            if (line.filled || line.grey >= 0) {
                const std::string shade = greyText(std::max(0.0, line.grey));
                svg += line.filled ? " fill=\"" + shade + "\" stroke=\"none\"" : " stroke=\"" + shade + "\"";
            }
            svg += "/>\n";
        }
        svg += "</g>\n";
    }
    return svg + "</svg>\n";
}

}  // namespace nine
