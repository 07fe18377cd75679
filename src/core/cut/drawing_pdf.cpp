#include <algorithm>

#include "base/number_text.h"
#include "base/units.h"
#include "cut/drawing.h"

namespace nine {
namespace {

/// A PDF file under construction: numbered objects and the table of where they start (ISO 32000-1, 7.5).
class Objects {
  public:
    int reserve() {
        bodies_.emplace_back();
        return static_cast<int>(bodies_.size());
    }
    void set(int number, std::string body) {
        bodies_[static_cast<std::size_t>(number) - 1] = std::move(body);
    }
    int add(std::string body) {
        const int number = reserve();
        set(number, std::move(body));
        return number;
    }

    std::string file(int catalog, int info) const {
        std::string out = "%PDF-1.5\n%\xE2\xE3\xCF\xD3\n";
        std::string table = "0000000000 65535 f \n";
        for (std::size_t i = 0; i < bodies_.size(); ++i) {
            std::string place = std::to_string(out.size());
            place.insert(0, 10 - place.size(), '0');
            table += place + " 00000 n \n";
            out += std::to_string(i + 1) + " 0 obj\n" + bodies_[i] + "\nendobj\n";
        }
        const std::string start = std::to_string(out.size());
        const std::string count = std::to_string(bodies_.size() + 1);
        out += "xref\n0 " + count + "\n" + table;
        out += "trailer\n<< /Size " + count + " /Root " + std::to_string(catalog) + " 0 R /Info " +
               std::to_string(info) + " 0 R >>\nstartxref\n" + start + "\n%%EOF\n";
        return out;
    }

  private:
    std::vector<std::string> bodies_;
};

std::string ref(int number) {
    return std::to_string(number) + " 0 R";
}

/// UTF-16 with byte order mark as a hexadecimal string (ISO 32000-1, 7.9.2.2), from UTF-8 of the basic plane.
std::string textString(const std::string& utf8) {
    static const char* digits = "0123456789ABCDEF";
    std::string out = "<FEFF";
    const auto put = [&](unsigned unit) {
        for (int shift = 12; shift >= 0; shift -= 4) out += digits[unit >> shift & 15u];
    };
    for (std::size_t i = 0; i < utf8.size();) {
        const auto c = static_cast<unsigned char>(utf8[i]);
        const std::size_t length = c < 0x80 ? 1 : c < 0xE0 ? 2 : c < 0xF0 ? 3 : 4;
        unsigned code = length == 1 ? c : c & (0xFFu >> (length + 1));
        for (std::size_t k = 1; k < length && i + k < utf8.size(); ++k) {
            code = code << 6 | (static_cast<unsigned char>(utf8[i + k]) & 0x3Fu);
        }
        put(code <= 0xFFFF ? code : 0xFFFDu);
        i += length;
    }
    return out + ">";
}

const char* pdfStyle(const std::string& layer) {
    if (layer == "CUT") return "0 G 0 g 0.15 w";
    if (layer == "PEN") return "0.38 G 0.38 g 0.18 w";
    return "0.14 G 0.14 g 0.2 w";
}

std::string contentOf(const Drawing& drawing) {
    const auto number = [](double v) { return fixedText(v, 4); };
    // User space becomes mm (8.3.4), so that the numbers in the file are those of the piece.
    std::string out =
        fixedText(kPointsPerMm, 10) + " 0 0 " + fixedText(kPointsPerMm, 10) + " 0 0 cm 1 J 1 j\n";
    for (std::size_t k = 0; k < drawing.layers.size(); ++k) {
        const Layer& layer = drawing.layers[k];
        out += "/OC /L" + std::to_string(k) + " BDC\n" + pdfStyle(layer.name) + "\n";
        for (const DrawnLine& line : layer.lines) {
            if (line.grey >= 0) out += "q " + number(line.grey) + " G " + number(line.grey) + " g\n";
            for (std::size_t i = 0; i < line.points.size(); ++i) {
                out += number(line.points[i].x()) + " " + number(line.points[i].y()) +
                       (i == 0 ? " m\n" : " l\n");
            }
            out += line.filled ? "f\n" : line.closed ? "s\n" : "S\n";
            if (line.grey >= 0) out += "Q\n";
        }
        out += "EMC\n";
    }
    return out;
}

}  // namespace

std::string pdfText(const std::vector<Drawing>& pages) {
    Objects objects;
    const int catalog = objects.reserve(), tree = objects.reserve();

    // One optional content group a layer name, shared by all pages (8.11.2).
    std::vector<std::pair<std::string, int>> groups;
    const auto groupOf = [&](const std::string& name) {
        const auto found =
            std::find_if(groups.begin(), groups.end(), [&](const auto& g) { return g.first == name; });
        if (found != groups.end()) return found->second;
        groups.emplace_back(name, objects.add("<< /Type /OCG /Name " + textString(name) + " >>"));
        return groups.back().second;
    };

    std::string kids;
    for (const Drawing& page : pages) {
        const std::string content = contentOf(page);
        const int stream = objects.add("<< /Length " + std::to_string(content.size()) + " >>\nstream\n" +
                                       content + "endstream");
        std::string properties;
        for (std::size_t k = 0; k < page.layers.size(); ++k) {
            properties += " /L" + std::to_string(k) + " " + ref(groupOf(page.layers[k].name));
        }
        const int leaf =
            objects.add("<< /Type /Page /Parent " + ref(tree) + " /MediaBox [0 0 " +
                        fixedText(page.size_mm.x() * kPointsPerMm, 6) + " " +
                        fixedText(page.size_mm.y() * kPointsPerMm, 6) + "] /Resources << /Properties <<" +
                        properties + " >> >> /Contents " + ref(stream) + " >>");
        kids += ref(leaf) + " ";
    }
    objects.set(tree, "<< /Type /Pages /Count " + std::to_string(pages.size()) + " /Kids [" + kids + "] >>");
    std::string all;
    for (const auto& [name, number] : groups) all += ref(number) + " ";
    // PrintScaling None asks viewers to print true to size (12.2).
    objects.set(catalog, "<< /Type /Catalog /Pages " + ref(tree) + " /OCProperties << /OCGs [" + all +
                             "] /D << /Order [" + all + "] /ON [" + all +
                             "] >> >> /ViewerPreferences << /PrintScaling /None >> >>");
    const int info = objects.add("<< /Title " + textString(pages.empty() ? "" : pages.front().title) +
                                 " /Producer (Nine Leaves) >>");
    return objects.file(catalog, info);
}

}  // namespace nine
