#include "app/leaves/masks/slit_edits.h"

#include <QObject>
#include <algorithm>
#include <cmath>

#include "mask/relief.h"

namespace nine::app {

QString slitCount(int count) {
    return count == 1 ? QObject::tr("one slit") : QObject::tr("%n slits", nullptr, count);
}

bool isAcross(const Slit& slit) {
    const Vec2 way = slit.line.back() - slit.line.front();
    return std::abs(way.y()) >= std::abs(way.x());
}

double lengthOf_mm(const Slit& slit) {
    double length = 0;
    for (std::size_t i = 1; i < slit.line.size(); ++i) length += (slit.line[i] - slit.line[i - 1]).norm();
    return length;
}

Slit movedTo(const Slit& slit, double x_mm, const Skin& skin) {
    constexpr double kFromTips_mm = 0.5;
    Slit moved = slit;
    const double by = x_mm - slit.line.front().x();
    for (Vec2& p : moved.line) {
        const double x =
            std::clamp(p.x() + by, skin.noseX_mm() + kFromTips_mm, skin.tailX_mm() - kFromTips_mm);
        p = Vec2(x, p.y() * skin.arcAt(x).girth_mm() / skin.arcAt(p.x()).girth_mm());
    }
    return moved;
}

Slit endedAt(const Slit& slit, const Vec2& place) {
    const Vec2 mouth = slit.line.front();
    const Vec2 way = (slit.line.back() - mouth).normalized();
    return ofLength(slit, (place - mouth).dot(way));
}

Slit ofLength(const Slit& slit, double length_mm) {
    constexpr double kShortest_mm = 1;
    double left = std::max(kShortest_mm, length_mm);
    Slit result = slit;
    result.line = {slit.line.front()};
    for (std::size_t i = 1; i < slit.line.size(); ++i) {
        const Vec2 way = slit.line[i] - slit.line[i - 1];
        const bool last = i + 1 == slit.line.size();
        if (last || way.norm() >= left) {  // the last piece goes on as far as is asked for
            result.line.push_back(slit.line[i - 1] + left * way.normalized());
            break;
        }
        result.line.push_back(slit.line[i]);
        left -= way.norm();
    }
    return result;
}

std::optional<Slit> oneMore(const Sheet& sheet, const std::vector<Slit>& slits) {
    Polygon2 border;
    for (const int v : sheet.flat->patch.loops.front())
        border.push_back(sheet.flat->patch.skin[static_cast<std::size_t>(v)]);
    const Box2 box = boxAround({border});
    std::vector<double> ends{box.low.x()};
    for (const Slit& slit : slits)
        if (isAcross(slit) && slit.line.back().y() < slit.line.front().y())
            ends.push_back(slit.line.front().x());
    ends.push_back(box.high.x());
    std::sort(ends.begin(), ends.end());
    double x = 0, room = 0;
    for (std::size_t i = 0; i + 1 < ends.size(); ++i)
        if (ends[i + 1] - ends[i] > room) {
            room = ends[i + 1] - ends[i];
            x = 0.5 * (ends[i] + ends[i + 1]);
        }
    if (room < 2 * kSlitsApart_mm) return std::nullopt;
    double low = 1e300, high = -1e300;
    for (std::size_t i = 0; i < border.size(); ++i) {
        const Vec2 &a = border[i], &b = border[(i + 1) % border.size()];
        if ((a.x() > x) == (b.x() > x)) continue;
        const double g = a.y() + (x - a.x()) / (b.x() - a.x()) * (b.y() - a.y());
        low = std::min(low, g);
        high = std::max(high, g);
    }
    if (high <= low) return std::nullopt;
    return Slit{{Vec2(x, high), Vec2(x, high - 0.25 * (high - low))}, false};
}

}  // namespace nine::app
