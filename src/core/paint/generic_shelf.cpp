// The paints that ship. Their colours are invented: swatches of one and of three coats, over the white and
// the black half of a card, matt.
#include "paint/bottle.h"

namespace nine {
namespace {

struct Row {
    const char *id, *name, *family;
    std::uint32_t seen[4];  ///< 1 and 3 coats over white, 1 and 3 over black
    double glow_nm, flake_um, rest_min;
    bool noHeat, wantsLock;
};

constexpr Row kRows[] = {
    {"white", "White", "opaque", {0xeef0eb, 0xf0f3ec, 0xc1c7c9, 0xe2e6e3}, 0, 0, 0, false, false},
    {"cream", "Cream", "opaque", {0xe7c9a5, 0xdcc2a3, 0xbfb5a3, 0xd8c1a3}, 0, 0, 0, false, false},
    {"black", "Black", "opaque", {0x3d3c3c, 0x3b3b3b, 0x3b3b3b, 0x3b3b3b}, 0, 0, 0, false, false},
    {"grey", "Stone grey", "opaque", {0xacadad, 0xa5a8a9, 0xa1a4a6, 0xa5a8a9}, 0, 0, 0, false, false},
    {"red", "Brick red", "opaque", {0xb23a4b, 0x9c3e4c, 0x75454d, 0x8a424c}, 0, 0, 0, false, false},
    {"orange", "Orange", "opaque", {0xeb6042, 0xd45845, 0x915949, 0xb55b47}, 0, 0, 0, false, false},
    {"yellow", "Yellow", "opaque", {0xfec925, 0xf8c12b, 0xb5a740, 0xe1bb33}, 0, 0, 0, false, false},
    {"olive", "Olive", "opaque", {0x75825a, 0x707e5a, 0x6f7c5b, 0x707e5a}, 0, 0, 0, false, false},
    {"brown", "Dark brown", "opaque", {0x564a49, 0x524a49, 0x524a49, 0x524a49}, 0, 0, 0, false, false},
    {"pale-blue", "Pale blue", "opaque", {0xc3e1eb, 0xb4daeb, 0xaebdc5, 0xb7d4e1}, 0, 0, 0, false, false},
    {"yellow-glaze",
     "Transparent yellow",
     "transparent",
     {0xf0e772, 0xf0dc11, 0x484a41, 0x515640},
     0,
     0,
     0,
     false,
     true},
    {"red-glaze",
     "Transparent red",
     "transparent",
     {0xee709f, 0xd33e68, 0x4b4045, 0x573f48},
     0,
     0,
     0,
     false,
     true},
    {"magenta-glaze",
     "Transparent magenta",
     "transparent",
     {0xe87ed2, 0xd432af, 0x463f45, 0x4c3c49},
     0,
     0,
     0,
     false,
     true},
    {"violet-glaze",
     "Transparent violet",
     "transparent",
     {0x9b8ee3, 0x674dcc, 0x3f3f44, 0x3c3c47},
     0,
     0,
     0,
     false,
     true},
    {"blue-glaze",
     "Transparent blue",
     "transparent",
     {0x6ec1eb, 0x0097e1, 0x3d4245, 0x38424b},
     0,
     0,
     0,
     false,
     true},
    {"green-glaze",
     "Transparent green",
     "transparent",
     {0x8be7b5, 0x00d881, 0x3f4442, 0x3b4842},
     0,
     0,
     0,
     false,
     true},
    {"umber-glaze",
     "Transparent umber",
     "transparent",
     {0xdfa588, 0xba6a4a, 0x444140, 0x47403e},
     0,
     0,
     0,
     false,
     true},
    {"candy-red", "Candy red", "candy", {0xf995c0, 0xf0598c, 0x433e40, 0x443a3d}, 0, 0, 12, true, true},
    {"candy-amber", "Candy amber", "candy", {0xf3d398, 0xf7ae51, 0x43413e, 0x433f3a}, 0, 0, 12, true, true},
    {"candy-blue", "Candy blue", "candy", {0x78dcee, 0x00c7ed, 0x3d4242, 0x384043}, 0, 0, 12, true, true},
    {"pearl-white", "Pearl white", "pearl", {0xe4e4e4, 0xdbdbdb, 0x7b7b7b, 0xadadad}, 0, 60, 0, false, false},
    {"pearl-blue", "Pearl blue", "pearl", {0xb7d1e2, 0x87b7d5, 0x5b6872, 0x6c8b9f}, 0, 60, 0, false, false},
    {"silver", "Silver", "metallic", {0xd7d7d7, 0xd4d4d4, 0xb8b8b8, 0xd3d3d3}, 0, 40, 0, false, false},
    {"brass", "Brass", "metallic", {0xdab682, 0xd6ad6d, 0xba9a69, 0xd5ac6d}, 0, 40, 0, false, false},
    {"neon-yellow",
     "Neon yellow",
     "fluorescent",
     {0xe8ff4b, 0xebfa00, 0x58724b, 0x7b9247},
     528,
     0,
     0,
     false,
     false},
    {"neon-orange",
     "Neon orange",
     "fluorescent",
     {0xff9c52, 0xff7e33, 0x8c5a49, 0xb46447},
     600,
     0,
     0,
     false,
     false},
    {"neon-pink",
     "Neon pink",
     "fluorescent",
     {0xff70c1, 0xff4b95, 0x7c525b, 0x9e536f},
     602,
     0,
     0,
     false,
     false},
    {"neon-green",
     "Neon green",
     "fluorescent",
     {0x39f879, 0x00e754, 0x466d51, 0x3d8c54},
     520,
     0,
     0,
     false,
     false},
    {"sepia-ink", "Sepia ink", "ink", {0x82644f, 0x483d3a, 0x3f3c3b, 0x3c3b3a}, 0, 0, 0, false, true},
    {"primer-grey", "Grey primer", "primer", {0xbabcba, 0xb4b7b7, 0xaeb2b4, 0xb4b7b7}, 0, 0, 0, false, false},
};

}  // namespace

const std::vector<Bottle>& genericShelf() {
    static const std::vector<Bottle> shelf = [] {
        constexpr double kFull_ml = 60;
        std::vector<Bottle> all;
        for (const Row& row : kRows) {
            Bottle b{row.id, row.name, row.family};
            for (std::size_t i = 0; i < 4; ++i)
                b.swatches.push_back({i % 2 ? 3.0 : 1.0, i < 2, srgbOf(row.seen[i])});
            b.card.readTo = 1;
            b.glow_nm = row.glow_nm;
            b.flake_um = row.flake_um;
            b.rest_min = row.rest_min;
            b.noHeat = row.noHeat;
            b.wantsLock = row.wantsLock;
            b.left_ml = kFull_ml;
            all.push_back(std::move(b));
        }
        return all;
    }();
    return shelf;
}

}  // namespace nine
