#include "app/leaves/pattern/pattern_page.h"

#include <algorithm>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/pattern/unrolled.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/param_sentence.h"
#include "app/sheet/units_text.h"
#include "blank/walk.h"

namespace nine::app {
bool isPathKey(std::string_view key) {
    return !key.empty() && std::all_of(key.begin(), key.end(), [](char c) { return c >= '0' && c <= '9'; });
}

PatternPage::PatternPage(LeafContext context, RefitDesk& desk) : LeafPage(context), desk_(desk) {
    setMouseTracking(true);
    setAccessibleName(tr("The pattern on the body"));
    connect(&views_, &SkinViews::redrawn, this, [this] { update(); });
    connect(&pictures_, &MarkPictures::drawn, this, [this] { update(); });
    connect(&desk_, &RefitDesk::changed, this, [this] { update(); });
    connect(&context_.results, &Results::sketchChanged, this, [this] { update(); });
    connect(&context_.results, &Results::masksChanged, this, [this] { update(); });
    connect(&context_.library, &LibraryStore::changed, this, [this] { follow(); });
}

std::vector<Shown> PatternPage::shown() const {
    switch (context_.view.sides()) {
        case Sides::Both:
            return {Shown::Left, Shown::Right, Shown::Nose};
        case Sides::Right:
            return {Shown::Right, Shown::Back, Shown::Belly, Shown::Nose};
        default:
            return {Shown::Left, Shown::Back, Shown::Belly, Shown::Nose};
    }
}

std::vector<bool> PatternPage::copiesOn(Shown where, const Element& e) const {
    if (e.isCentral()) return {false};  // one piece, drawn where it shows
    const bool left = e.standsOn(Side::Left), right = e.standsOn(Side::Right);
    if (where == Shown::Left) return left ? std::vector<bool>{false} : std::vector<bool>{};
    if (where == Shown::Right) return right ? std::vector<bool>{true} : std::vector<bool>{};
    std::vector<bool> copies;
    if (left) copies.push_back(false);
    if (right) copies.push_back(true);
    return copies;
}

Shown PatternPage::leading() const {
    const ElementPtr e = selected();
    const std::vector<Shown> all = shown();
    if (!e) return all.front();
    const ElementArt* art = selectedArt();
    for (const Shown where : all)
        for (const bool twin : copiesOn(where, *e)) {
            if (!art || art->outlines().empty()) return where;
            for (const Outline& outline : art->outlines())
                if (views_.pixelOf(where, outline.skin.front(), outline.points.front(), twin)) return where;
        }
    return all.front();
}

ElementPtr PatternPage::selected() const {
    return elementOf(context_.document.job(), context_.view.element());
}

Ids PatternPage::selectedIds() const {
    Ids ids = context_.view.alsoSelected();
    if (selected()) ids.insert(selected()->id);
    return ids;
}

const ElementArt* PatternPage::artOf(std::size_t index, bool twin) const {
    const BodyResult& body = context_.results.body();
    if (twin && index < body.rightArt.size() && body.rightArt[index]) return body.rightArt[index].get();
    const ArtPtr art = body.artOrStray(index);
    return art.get();
}

const ElementArt* PatternPage::selectedArt() const {
    const int index = indexOfElement(context_.document.job(), context_.view.element());
    const BodyResult& body = context_.results.body();
    if (index < 0 || static_cast<std::size_t>(index) >= body.art.size()) return nullptr;
    const ElementArt* art = artOf(static_cast<std::size_t>(index), false);
    return art && art->element == context_.view.element() ? art : nullptr;
}

bool PatternPage::isStray(const std::string& element) const {
    return context_.results.body().strays.count(element) > 0;
}

Element PatternPage::inHand() const {
    const BodyResult& body = context_.results.body();
    const auto stray = body.strays.find(selected()->id);
    // What is shown may be older than what the hand has done since.
    const bool now =
        stray != body.strays.end() && body.pattern == context_.document.job().part<PatternChapter>();
    return now ? stray->second.brought : *selected();
}

void PatternPage::layOut() {
    // In one piece: the page from top to foot.
    BodyResult body = context_.results.body();
    if (!body.skin) return update();
    if (context_.view.paintedSkin()) body.picture = context_.view.paintedSkin();
    const double w = width(), h = height();
    drawn_.clear();
    views_.setBody(body.drawn, body.skin);
    strip_.place(QRectF(18, 12, w - 36, 0));
    const double top = 12 + strip_.high();
    const double listWidth = std::min(206.0, 0.26 * w);
    const bool both = context_.view.sides() == Sides::Both;
    const double previewsTall = h >= 640 ? 112 : 84;
    previews_ = QRectF(18, h - previewsTall - 8, w - 36, previewsTall);
    const double stripTall = both ? 0 : std::max(40.0, 0.075 * h);
    const double foot = previews_.top() - 16;
    const double bodiesTall = foot - top - (both ? 46 : 2 * stripTall + 100);
    const int bodies = both ? 2 : 1;
    const double roomTall = bodiesTall / bodies - (both ? 34 : 30);
    const QSizeF room(w - listWidth - 120, roomTall - 10);
    const double perMm = 0.97 * BodyView::fittingScale(*body.skin, BodyView::From::Along, room);
    const double len = body.skin->length_mm() * perMm, left = 74 + 0.5 * (room.width() - len);
    // Room round the body for bill and hooks, the same on both sides so that its middle stays the middle.
    const double bleedX = std::min({left - 8, w - listWidth - 24 - left - len, 0.34 * len}), bleedY = 26;
    double y = top + 30;
    for (const Shown where : {Shown::Left, Shown::Right}) {
        const bool on = both || (where == Shown::Right) == (context_.view.sides() == Sides::Right);
        if (!on) continue;
        views_.view(where).place(body,
                                 QRectF(left - bleedX, y - bleedY, len + 2 * bleedX, roomTall + 2 * bleedY),
                                 perMm, where == Shown::Right ? Side::Right : Side::Left, sharpness());
        y += roomTall + (both ? 52 : 0);
    }
    QRectF back, belly;
    if (!both) {
        belly = QRectF(left, foot - stripTall - 6, len, stripTall);
        back = QRectF(left, belly.top() - stripTall - 24, len, stripTall);
    }
    views_.placeStrip(Shown::Back, back, perMm);
    views_.placeStrip(Shown::Belly, belly, perMm);
    if (!both) requestStrips();
    const double columnTop = top + 22, columnLeft = w - listWidth - 14;
    const double listTall = std::min(0.36 * (foot - columnTop) + 30,
                                     20 + kPatternRow_px * static_cast<double>(elements().size()));
    list_ = QRectF(columnLeft, columnTop, listWidth, std::max(60.0, listTall));
    noseBox_ = QRectF(columnLeft + 30, list_.bottom() + 26, listWidth - 60, std::min(104.0, 0.15 * h));
    views_.view(Shown::Nose).place(body, noseBox_, 0, Side::Left, sharpness());
    if (listFor_ != context_.view.element()) {  // what is selected comes into sight
        inHandKey_ = kWholeMark;
        closeEditor();
        listFor_ = context_.view.element();
        const int row = indexOfElement(context_.document.job(), listFor_);
        if (row >= 0 && row < firstRow_) firstRow_ = row;
        if (row >= firstRow_ + rowsShown()) firstRow_ = row - rowsShown() + 1;
    }
    scrollList(0);
    const double below = noseBox_.bottom() + 34;
    mask_ = QRectF(columnLeft, below, listWidth, std::max(0.0, std::min(250.0, foot - below)));
    double sum = 0;
    for (const RefitPreview& preview : desk_.previews())
        if (!preview.blank.table.stations.empty())
            sum += preview.blank.table.stations.back().x_mm - preview.blank.table.stations.front().x_mm + 24;
    desk_.want(std::clamp((previews_.width() - 40) / std::max(640.0, sum), 0.5, 3.0), devicePixelRatioF());
    update();
}

const QPainterPath& PatternPage::drawn(Shown where, const ElementArt& art, bool twin) const {
    // A field has thousands of places: they are looked up once for each place of the views, not each paint.
    const auto [known, fresh] = drawn_.try_emplace({&art, where, twin});
    if (fresh) known->second = pathOf(where, art.outlines(), twin);
    return known->second;
}

QPainterPath PatternPage::pathOf(Shown where, const std::vector<Outline>& outlines, bool twin) const {
    QPainterPath path;
    for (const Outline& outline : outlines) {
        bool pen = false, whole = true;
        const std::size_t n = outline.skin.size();
        for (std::size_t i = 0; i <= n; ++i) {
            const std::size_t k = i % n;
            const auto at = views_.pixelOf(where, outline.skin[k], outline.points[k], twin);
            if (!at) {
                pen = whole = false;
                continue;
            }
            if (pen)
                path.lineTo(*at);
            else
                path.moveTo(*at);
            pen = true;
        }
        if (whole) path.closeSubpath();
    }
    return path;
}

QPointF PatternPage::openingAt(int element, int index) const {
    const ArtPtr art =
        element < 0 ? nullptr : context_.results.body().artOrStray(static_cast<std::size_t>(element));
    if (!art || art->outlines().empty() || static_cast<std::size_t>(element) >= elements().size()) return {};
    const auto& outlines = art->outlines();
    const auto last = static_cast<int>(outlines.size()) - 1;
    const Outline& outline = outlines[static_cast<std::size_t>(std::min(index, last))];
    for (const Shown where : shown())
        for (const bool twin : copiesOn(where, *elements()[static_cast<std::size_t>(element)]))
            if (const auto at = views_.pixelOf(where, outline.centre, twin)) return *at;
    return {};
}

std::span<const Handle> PatternPage::handles() const {
    const ElementPtr e = selected();
    const Kind* kind = e ? findKind(e->kind) : nullptr;
    return kind ? kind->handles() : std::span<const Handle>();
}

std::vector<std::string> PatternPage::handleKeys() const {
    std::vector<std::string> keys;
    for (const Handle& handle : handles()) keys.emplace_back(handle.key);
    if (const ElementArt* art = selectedArt())
        for (const auto& [key, ignored] : art->places)
            if (isPathKey(key)) keys.emplace_back(key);
    return keys;
}

std::optional<Vec2> PatternPage::placeOfHandle(std::string_view key) const {
    const ElementArt* art = selectedArt();
    return art ? art->place(key) : std::nullopt;
}

QPointF PatternPage::handleAt(std::string_view key) const {
    const ElementPtr e = selected();
    const std::optional<Vec2> at = placeOfHandle(key);
    if (!e || !at) return {};
    const Shown first = leading();
    for (const bool twin : copiesOn(first, *e))
        if (const auto pixel = views_.pixelOf(first, *at, twin)) return *pixel;
    for (const Shown where : shown())
        for (const bool twin : copiesOn(where, *e))
            if (const auto pixel = views_.pixelOf(where, *at, twin)) return *pixel;
    return {};
}

QPointF PatternPage::anchorAt() const {
    const ElementPtr e = selected();
    if (!e) return {};
    const auto& landmarks = context_.document.job().get<BlankChapter>().landmarks;
    const auto landmark = landmarks.find(e->anchor);
    const ElementArt* art = selectedArt();
    if (landmark == landmarks.end() || !art) return {};
    const Vec2 from = referencePoint(landmark->second, art->origin.y());
    for (const bool twin : copiesOn(leading(), *e))
        if (const auto at = views_.pixelOf(leading(), from, twin)) return *at;
    return {};
}

QRectF PatternPage::listRow(int index) const {
    const int row = index - firstRow_;
    if (row < 0 || row >= rowsShown()) return {};
    return QRectF(list_.left(), list_.top() + 12 + row * kPatternRow_px, list_.width() - 8,
                  kPatternRow_px - 3);
}

QRectF PatternPage::eyeOfRow(int index) const {
    const QRectF row = listRow(index);
    return row.isNull() ? row : QRectF(row.right() - 42, row.top() + 3, 20, row.height() - 6);
}

QRectF PatternPage::lockOfRow(int index) const {
    const QRectF row = listRow(index);
    return row.isNull() ? row : QRectF(row.right() - 21, row.top() + 3, 18, row.height() - 6);
}

QRectF PatternPage::previewBox(int index) const {
    const auto count = static_cast<int>(desk_.previews().size());
    if (index < 0 || index >= count) return {};
    double sum = 0;
    std::vector<double> widths;
    for (const RefitPreview& preview : desk_.previews()) {
        widths.push_back(std::max(84.0, preview.picture.width() / preview.picture.devicePixelRatio() + 6));
        sum += widths.back();
    }
    const double squeeze = std::min(1.0, previews_.width() / sum);
    double x = previews_.left();
    for (int i = 0; i < index; ++i) x += squeeze * widths[static_cast<std::size_t>(i)];
    return {x, previews_.top() + 14, squeeze * widths[static_cast<std::size_t>(index)],
            previews_.height() - 14};
}

int PatternPage::rowsShown() const {
    return std::max(1, static_cast<int>((list_.height() - 12) / kPatternRow_px));
}

void PatternPage::scrollList(int rows) {
    const int most = std::max(0, static_cast<int>(elements().size()) - rowsShown());
    firstRow_ = std::clamp(firstRow_ + rows, 0, most);
    update();
}

bool PatternPage::scrolls(const QPointF& page, int steps) {
    if (!list_.adjusted(0, -20, 8, 8).contains(page)) return false;
    scrollList(steps);
    return true;
}

void PatternPage::requestStrips() {
    const BodyResult& body = context_.results.body();
    const QRectF& back = views_.strip(Shown::Back);
    const auto& painted = context_.view.paintedSkin();
    const Strips wanted{painted ? painted : body.picture,
                        (back.size() * sharpness()).toSize(),
                        views_.view(leading()).perMm() * sharpness(),
                        {},
                        {}};
    if (!body.picture ||
        (wanted.picture == strips_.picture && wanted.size == strips_.size && wanted.perMm == strips_.perMm))
        return;
    stripSlot_.request(
        [wanted, drawn = body.drawn](const Task&) {
            Strips strips = wanted;
            strips.back = unrolled(*drawn, *wanted.picture, wanted.size, wanted.perMm, true);
            strips.belly = unrolled(*drawn, *wanted.picture, wanted.size, wanted.perMm, false);
            return strips;
        },
        [this](Strips strips) {
            strips_ = std::move(strips);
            update();
        });
}

}  // namespace nine::app
