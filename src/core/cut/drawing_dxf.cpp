// DXF R2000 (AC1015) by the published reference: header, tables, two blocks, polylines, the root dictionary.
// Only what lines in layers need.
#include <array>

#include "base/number_text.h"
#include "cut/drawing.h"

namespace nine {
namespace {

constexpr int kDxfDecimals = 6;
constexpr int kMillimetres = 4;  // $INSUNITS

/// Colour index of a layer, so that it can be told apart on the screen of whoever opens the file.
int colourIndex(const std::string& layer) {
    if (layer == "CUT") return 1;
    if (layer == "SCORE") return 3;
    if (layer == "PEN") return 5;
    return 8;
}

/// Group codes and values, a line each; handles are given out in order.
class DxfWriter {
  public:
    void put(int code, const std::string& value) { text_ += std::to_string(code) + "\n" + value + "\n"; }
    void put(int code, int value) { put(code, std::to_string(value)); }
    void put(int code, double value) { put(code, fixedText(value, kDxfDecimals)); }
    void point(int code, const Vec2& p) {
        put(code, p.x());
        put(code + 10, p.y());
    }
    void section(const char* name) {
        put(0, "SECTION");
        put(2, name);
    }
    void endSection() { put(0, "ENDSEC"); }

    std::string handle() {
        static const char* digits = "0123456789ABCDEF";
        std::string hex;
        for (unsigned v = next_++; v > 0; v /= 16) hex.insert(hex.begin(), digits[v % 16]);
        return hex;
    }
    std::string text() && { return std::move(text_); }

  private:
    std::string text_;
    unsigned next_ = 0x20;
};

/// A table with `count` entries; returns its handle.
std::string startTable(DxfWriter& dxf, const char* name, int count) {
    const std::string handle = dxf.handle();
    dxf.put(0, "TABLE");
    dxf.put(2, name);
    dxf.put(5, handle);
    dxf.put(330, "0");
    dxf.put(100, "AcDbSymbolTable");
    dxf.put(70, count);
    return handle;
}

std::string startEntry(DxfWriter& dxf, const char* type, const std::string& table, const char* kind,
                       const std::string& name, int handleCode = 5) {
    const std::string handle = dxf.handle();
    dxf.put(0, type);
    dxf.put(handleCode, handle);
    dxf.put(330, table);
    dxf.put(100, "AcDbSymbolTableRecord");
    dxf.put(100, kind);
    dxf.put(2, name);
    dxf.put(70, 0);
    return handle;
}

/// Returns the handles of the records of model and paper space.
std::array<std::string, 2> writeTables(DxfWriter& dxf, const std::vector<std::string>& layers) {
    dxf.section("TABLES");
    startTable(dxf, "VPORT", 0);
    dxf.put(0, "ENDTAB");
    const std::string types = startTable(dxf, "LTYPE", 3);
    for (const char* name : {"ByBlock", "ByLayer", "Continuous"}) {
        startEntry(dxf, "LTYPE", types, "AcDbLinetypeTableRecord", name);
        dxf.put(3, "");
        dxf.put(72, 65);
        dxf.put(73, 0);
        dxf.put(40, 0.0);
    }
    dxf.put(0, "ENDTAB");
    const std::string layerTable = startTable(dxf, "LAYER", static_cast<int>(layers.size()) + 1);
    std::vector<std::string> names{"0"};
    names.insert(names.end(), layers.begin(), layers.end());
    for (const std::string& name : names) {
        startEntry(dxf, "LAYER", layerTable, "AcDbLayerTableRecord", name);
        dxf.put(62, name == "0" ? 7 : colourIndex(name));
        dxf.put(6, "Continuous");
    }
    dxf.put(0, "ENDTAB");
    const std::string styles = startTable(dxf, "STYLE", 1);
    startEntry(dxf, "STYLE", styles, "AcDbTextStyleTableRecord", "Standard");
    dxf.put(40, 0.0);
    dxf.put(41, 1.0);
    dxf.put(50, 0.0);
    dxf.put(71, 0);
    dxf.put(42, 2.5);
    dxf.put(3, "txt");
    dxf.put(4, "");
    dxf.put(0, "ENDTAB");
    for (const char* name : {"VIEW", "UCS"}) {
        startTable(dxf, name, 0);
        dxf.put(0, "ENDTAB");
    }
    const std::string applications = startTable(dxf, "APPID", 1);
    startEntry(dxf, "APPID", applications, "AcDbRegAppTableRecord", "ACAD");
    dxf.put(0, "ENDTAB");
    const std::string dimensions = startTable(dxf, "DIMSTYLE", 1);
    dxf.put(100, "AcDbDimStyleTable");
    startEntry(dxf, "DIMSTYLE", dimensions, "AcDbDimStyleTableRecord", "Standard", 105);
    dxf.put(0, "ENDTAB");
    const std::string records = startTable(dxf, "BLOCK_RECORD", 2);
    std::array<std::string, 2> spaces;
    for (const std::size_t i : {0u, 1u}) {
        const std::string handle = dxf.handle();
        spaces[i] = handle;
        dxf.put(0, "BLOCK_RECORD");
        dxf.put(5, handle);
        dxf.put(330, records);
        dxf.put(100, "AcDbSymbolTableRecord");
        dxf.put(100, "AcDbBlockTableRecord");
        dxf.put(2, i == 0 ? "*Model_Space" : "*Paper_Space");
    }
    dxf.put(0, "ENDTAB");
    dxf.endSection();
    return spaces;
}

void writeBlocks(DxfWriter& dxf, const std::array<std::string, 2>& spaces) {
    dxf.section("BLOCKS");
    for (const std::size_t i : {0u, 1u}) {
        const char* name = i == 0 ? "*Model_Space" : "*Paper_Space";
        dxf.put(0, "BLOCK");
        dxf.put(5, dxf.handle());
        dxf.put(330, spaces[i]);
        dxf.put(100, "AcDbEntity");
        if (i == 1) dxf.put(67, 1);
        dxf.put(8, "0");
        dxf.put(100, "AcDbBlockBegin");
        dxf.put(2, name);
        dxf.put(70, 0);
        dxf.point(10, Vec2(0, 0));
        dxf.put(30, 0.0);
        dxf.put(3, name);
        dxf.put(1, "");
        dxf.put(0, "ENDBLK");
        dxf.put(5, dxf.handle());
        dxf.put(330, spaces[i]);
        dxf.put(100, "AcDbEntity");
        if (i == 1) dxf.put(67, 1);
        dxf.put(8, "0");
        dxf.put(100, "AcDbBlockEnd");
    }
    dxf.endSection();
}

void writePolyline(DxfWriter& dxf, const DrawnLine& line, const std::string& layer,
                   const std::string& space) {
    if (line.points.size() < 2) return;
    dxf.put(0, "LWPOLYLINE");
    dxf.put(5, dxf.handle());
    dxf.put(330, space);
    dxf.put(100, "AcDbEntity");
    dxf.put(8, layer);
    dxf.put(100, "AcDbPolyline");
    dxf.put(90, static_cast<int>(line.points.size()));
    dxf.put(70, line.closed ? 1 : 0);
    for (const Vec2& p : line.points) dxf.point(10, p);
}

}  // namespace

std::string dxfText(const Drawing& drawing) {
    DxfWriter body;
    std::vector<std::string> layers{"CUT", "SCORE", "PEN", "TEXT"};
    const auto spaces = writeTables(body, layers);
    writeBlocks(body, spaces);
    body.section("ENTITIES");
    for (const Layer& layer : drawing.layers) {
        for (const DrawnLine& line : layer.lines) writePolyline(body, line, layer.name, spaces[0]);
    }
    body.endSection();
    body.section("OBJECTS");
    const std::string root = body.handle(), groups = body.handle();
    body.put(0, "DICTIONARY");
    body.put(5, root);
    body.put(330, "0");
    body.put(100, "AcDbDictionary");
    body.put(281, 1);
    body.put(3, "ACAD_GROUP");
    body.put(350, groups);
    body.put(0, "DICTIONARY");
    body.put(5, groups);
    body.put(330, root);
    body.put(100, "AcDbDictionary");
    body.put(281, 1);
    body.endSection();
    body.put(0, "EOF");

    DxfWriter dxf;
    dxf.section("HEADER");
    const auto variable = [&](const char* name) { dxf.put(9, name); };
    variable("$ACADVER");
    dxf.put(1, "AC1015");
    variable("$DWGCODEPAGE");
    dxf.put(3, "ANSI_1252");
    variable("$INSUNITS");
    dxf.put(70, kMillimetres);
    variable("$MEASUREMENT");
    dxf.put(70, 1);  // metric
    variable("$EXTMIN");
    dxf.point(10, Vec2(0, 0));
    dxf.put(30, 0.0);
    variable("$EXTMAX");
    dxf.point(10, drawing.size_mm);
    dxf.put(30, 0.0);
    variable("$HANDSEED");
    dxf.put(5, body.handle());
    dxf.endSection();
    dxf.section("CLASSES");
    dxf.endSection();
    return std::move(dxf).text() + std::move(body).text();
}

}  // namespace nine
