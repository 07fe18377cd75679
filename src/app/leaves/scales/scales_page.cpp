#include "app/leaves/scales/scales_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <cmath>

#include "app/leaves/scales/scales_edits.h"
#include "pattern/cut_scales.h"

namespace nine::app {
namespace {

constexpr double kSide_px = ScalesPage::kSideColumn_px;
constexpr double kNear_px = 9;  // how near to a clip a click takes it
constexpr double kClipNudge_mm = 0.1;
// The arrow of the pull: its length grows by the same for each doubling.
constexpr double kLeastArrow_px = 18, kMostArrow_px = 112;

}  // namespace

ScalesPage::ScalesPage(LeafContext context, ScalesDesk& desk)
    : LeafPage(context), desk_(desk), view_(new BodyView(BodyView::From::Along, this)) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Scales on the body"));
    setMinimumSize(360, 300);
    connect(&desk_, &ScalesDesk::changed, this, [this] { follow(); });
    connect(&context_.results, &Results::bodyChanged, this, [this] { follow(); });
    connect(&context_.results, &Results::masksChanged, this, [this] { follow(); });
    connect(view_, &BodyView::redrawn, this, [this] { update(); });
}

void ScalesPage::layOut() {
    const BodyResult& body = context_.results.body();
    floor_ = std::round(0.6 * height());
    bodyBox_ = QRectF(44, 44, std::max(120.0, width() - kSide_px - 96), std::max(80.0, floor_ - 44 - 62));
    if (!body.skin) return update();
    const Side side = context_.view.side();
    // Room for bill and rings beside the body, which is scaled to fit alone.
    const QRectF all(0, 30, width() - kSide_px - 8, floor_ - 56);
    view_->place(body, all, BodyView::fittingScale(*body.skin, BodyView::From::Along, bodyBox_.size()), side,
                 sharpness(), true, true);

    const ScalesStudy& study = desk_.study();
    if (study.net && study.threads) {
        NetPictureWish wish;
        wish.study = study;
        wish.ratio = sharpness();
        wish.allowed_mm = desk_.wish().allowed_mm;
        const QPointF corner = bodyBox_.topLeft() - QPointF(20, 20);
        const QSizeF size = bodyBox_.size() + QSizeF(40, 40);
        wish.size = (size * wish.ratio).toSize();
        const auto at = [&](const Vec3& p) { return (view_->at(p) - corner) * wish.ratio; };
        wish.view.origin = at(Vec3::Zero());
        wish.view.perX = at(Vec3(1, 0, 0)) - wish.view.origin;
        wish.view.perZ = at(Vec3(0, 0, 1)) - wish.view.origin;
        picture_.request([wish](const Task& task) { return netPicture(wish, task); },
                         [this, corner](QImage image) {
                             net_ = std::move(image);
                             netAt_ = corner;
                             update();
                         });
        NearWish near;
        near.net = study.net->drape->wish.net;
        near.stretch =
            stretchAt(*study.skin, *study.net->drape, desk_.aim()).value_or(Eigen::Matrix2d::Identity());
        near.gap_mm = standOffAt(desk_.aim());
        near.size_mm = std::clamp(4 * near.net.along_mm, 3.0, 24.0);
        near.from.slant_deg = desk_.wish().slant_deg;
        near.from.direction_deg = desk_.wish().from_deg;
        near.doubled = desk_.wish().doubled;
        near.second = desk_.wish().second;
        nearFor_ = near;
        near_.request([near](const Task&) { return nearPicture(near); },
                      [this](NearPicture picture) {
                          nearBy_ = std::move(picture);
                          update();
                      });
    } else {
        net_ = {};
        nearBy_ = {};
    }
    update();
}

double ScalesPage::standOffAt(const Vec2& skin) const {
    const ScalesStudy& s = desk_.study();
    if (!s.net || !s.net->clipped) return 0;
    const ClippedNet& net = *s.net->clipped;
    double best = 1e18, off = 0;
    for (std::size_t i = 0; i < net.most_mm.size(); ++i) {
        const Vec2 at(net.grid.x_mm[i / static_cast<std::size_t>(net.grid.columns)], net.grid.g_mm[i]);
        if ((at - skin).squaredNorm() < best) {
            best = (at - skin).squaredNorm();
            off = 0.5 * (net.least_mm[i] + net.most_mm[i]);
        }
    }
    return off;
}

std::vector<std::pair<double, double>> ScalesPage::standOffAlong(double x_mm) const {
    std::vector<std::pair<double, double>> all;
    const ScalesStudy& s = desk_.study();
    if (!s.net) return all;
    const HalfGrid& grid = s.net->clipped ? s.net->clipped->grid : s.net->drape->grid;
    int row = 0;
    for (int r = 1; r < grid.rows; ++r)
        if (std::abs(grid.x_mm[static_cast<std::size_t>(r)] - x_mm) <
            std::abs(grid.x_mm[static_cast<std::size_t>(row)] - x_mm))
            row = r;
    const auto offAt = [&](std::size_t i) {
        return s.net->clipped ? 0.5 * (s.net->clipped->least_mm[i] + s.net->clipped->most_mm[i]) : 0;
    };
    constexpr int kSteps = 6;  // columns stand up to 5 mm apart: chords would cut into the skin
    for (int c = 1; c < grid.columns; ++c) {
        const auto to = static_cast<std::size_t>(grid.at(row, c)), from = to - 1;
        for (int k = c == 1 ? 0 : 1; k <= kSteps; ++k) {
            const double t = static_cast<double>(k) / kSteps;
            all.emplace_back(std::lerp(grid.g_mm[from], grid.g_mm[to], t),
                             std::lerp(offAt(from), offAt(to), t));
        }
    }
    return all;
}

QPointF ScalesPage::gatheredAt(double x_mm) const {
    const Skin& skin = *context_.results.body().skin;
    const double x = std::clamp(x_mm, skin.noseX_mm(), skin.tailX_mm());
    const Section s = skin.loft().sectionAt(x);
    return view_->at(x, desk_.wish().gather == Gather::Belly ? -s.bottom_mm : s.top_mm);
}

QPointF ScalesPage::clipAt(double x_mm) const {
    const QPointF on = gatheredAt(x_mm), ahead = gatheredAt(x_mm + 0.5), behind = gatheredAt(x_mm - 0.5);
    QPointF along = ahead - behind;
    const double length = std::hypot(along.x(), along.y());
    if (length < 1e-6) return on;
    QPointF out(-along.y() / length, along.x() / length);
    const bool down = desk_.wish().gather == Gather::Belly;
    if ((out.y() > 0) != down) out = -out;
    return on + 12 * out;
}

std::optional<double> ScalesPage::clipUnder(const QPointF& at) const {
    if (!context_.results.body().skin || !desk_.wish().net) return std::nullopt;
    std::optional<double> found;
    double best = 2 * kNear_px;
    for (const Clip& clip : desk_.wish().clips) {
        const QPointF d = clipAt(clip.x_mm) - at;
        if (std::hypot(d.x(), d.y()) < best) {
            best = std::hypot(d.x(), d.y());
            found = clip.x_mm;
        }
    }
    return found;
}

void ScalesPage::moveClip(double to_mm) {
    const ScalesStudy& s = desk_.study();
    if (!desk_.clip() || !s.net) return;
    const HalfGrid& grid = s.net->drape->grid;
    std::optional<double> now;
    const double from = *desk_.clip();
    (void)desk_.change(tr("Move a clip"), [&](ScalesChapter& scales) {
        std::size_t index = scales.clips.size();
        for (std::size_t i = 0; i < scales.clips.size(); ++i)
            if (std::abs(scales.clips[i].x_mm - from) < 1e-6) index = i;
        scales = withClipMoved(std::move(scales), from, to_mm, grid.x_mm.front(), grid.x_mm.back());
        if (index < scales.clips.size()) now = scales.clips[index].x_mm;
    });
    desk_.hold(now);
}

QPointF ScalesPage::pullFrom() const {
    const double ahead = context_.view.side() == Side::Left ? 1 : -1;
    const Drape& drape = *desk_.study().net->drape;
    return view_->at(drape.grid.x_mm.back(), 0) + QPointF(16 * ahead, 22);
}

QPointF ScalesPage::pullRing() const {
    const double share =
        std::log(desk_.wish().pull_n_m / kLeastPull_n_m) / std::log(kMostPull_n_m / kLeastPull_n_m);
    return pullFrom() + QPointF(0, kLeastArrow_px + share * (kMostArrow_px - kLeastArrow_px));
}

bool ScalesPage::onPullRing(const QPointF& at) const {
    if (!desk_.study().net || !desk_.wish().net) return false;
    const QPointF d = at - pullRing();
    return std::hypot(d.x(), d.y()) < kNear_px;
}

void ScalesPage::pullTo(const QPointF& at) {
    if (!desk_.study().net) return;
    const double share =
        std::clamp((at.y() - pullFrom().y() - kLeastArrow_px) / (kMostArrow_px - kLeastArrow_px), 0.0, 1.0);
    const double pull = kLeastPull_n_m * std::pow(kMostPull_n_m / kLeastPull_n_m, share);
    (void)desk_.change(tr("Pull the net"), [&](ScalesChapter& scales) {
        scales.pull_n_m = std::clamp(std::round(pull), kLeastPull_n_m, kMostPull_n_m);
    });
}

void ScalesPage::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (event->button() != Qt::LeftButton || !context_.results.body().skin) return;
    const bool pulls = onPullRing(event->position());
    const auto clip = pulls ? std::nullopt : clipUnder(event->position());
    desk_.hold(clip);
    hand_ = pulls ? Hand::Pull : clip ? Hand::Clip : Hand::Empty;
    if (hand_ != Hand::Empty) {
        context_.document.beginGesture();
        return;
    }
    // Else the magnifier goes there.
    const Skin& skin = *context_.results.body().skin;
    if (!view_->outline().contains(event->position())) return;
    const Vec2 at = view_->bodyAt(event->position());
    const SkinPoint point = skin.onFlank(at.x(), at.y());
    desk_.lookAt({point.x_mm, point.g_mm});
}

void ScalesPage::mouseMoveEvent(QMouseEvent* event) {
    if (hand_ == Hand::Empty || !(event->buttons() & Qt::LeftButton)) {
        setCursor(onPullRing(event->position())  ? Qt::SizeVerCursor
                  : clipUnder(event->position()) ? Qt::SizeHorCursor
                                                 : Qt::ArrowCursor);
        return;
    }
    if (hand_ == Hand::Pull) return pullTo(event->position());
    moveClip(view_->bodyAt(event->position()).x());
}

void ScalesPage::mouseReleaseEvent(QMouseEvent*) {
    hand_ = Hand::Empty;
}

void ScalesPage::mouseDoubleClickEvent(QMouseEvent* event) {
    const ScalesStudy& s = desk_.study();
    if (!s.net || !desk_.wish().net || clipUnder(event->position())) return;
    const double x = view_->bodyAt(event->position()).x();
    if (x < s.net->drape->grid.x_mm.front() || x > s.net->drape->grid.x_mm.back()) return;
    const QPointF d = event->position() - gatheredAt(x);
    if (std::hypot(d.x(), d.y()) > 3 * kNear_px) return;
    context_.document.beginGesture();
    (void)desk_.change(tr("One more clip"),
                       [&](ScalesChapter& scales) { scales = withClip(std::move(scales), x); });
}

void ScalesPage::keyPressEvent(QKeyEvent* event) {
    const std::vector<Clip>& clips = desk_.wish().clips;
    const double step = event->modifiers() & Qt::ShiftModifier ? 10 * kClipNudge_mm : kClipNudge_mm;
    switch (event->key()) {
        case Qt::Key_Space: {  // the next clip
            if (clips.empty()) return;
            std::size_t next = 0;
            for (std::size_t i = 0; i < clips.size(); ++i)
                if (desk_.clip() && std::abs(clips[i].x_mm - *desk_.clip()) < 1e-6)
                    next = (i + 1) % clips.size();
            return desk_.hold(clips[next].x_mm);
        }
        case Qt::Key_Left:
        case Qt::Key_Right: {
            if (!desk_.clip()) return LeafPage::keyPressEvent(event);
            const bool mirrored = context_.view.side() == Side::Right;
            if (!event->isAutoRepeat()) context_.document.beginGesture();
            return moveClip(*desk_.clip() + ((event->key() == Qt::Key_Right) != mirrored ? step : -step));
        }
        case Qt::Key_Delete: {
            if (!desk_.clip()) return;
            const double x = *desk_.clip();
            context_.document.beginGesture();
            desk_.hold(std::nullopt);
            (void)desk_.change(tr("Take a clip off"),
                               [&](ScalesChapter& scales) { scales = withoutClip(std::move(scales), x); });
            return;
        }
        case Qt::Key_Escape:
            if (hand_ != Hand::Empty) context_.document.cancelGesture();
            hand_ = Hand::Empty;
            return desk_.hold(std::nullopt);
        default:
            return LeafPage::keyPressEvent(event);
    }
}

MaskPtr ScalesPage::stencil() const {
    for (const ElementPtr& element : context_.document.job().get<PatternChapter>().elements) {
        if (!isCutScales(*element)) continue;
        for (const MaskResult& mask : context_.results.masks().masks)
            if (mask.mask && mask.spec->side == Side::Left &&
                std::count(mask.spec->wish.elements.begin(), mask.spec->wish.elements.end(), element->id))
                return *mask.mask;
    }
    return nullptr;
}

}  // namespace nine::app
