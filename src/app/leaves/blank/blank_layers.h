// What can lie under, on or over the drawing of a body: the picture it was read from, the map of how hard it
// is to wrap, the shortest way between two measured points. Worked out in the background; asked for by key,
// so the same question costs nothing.
#pragma once

#include <QImage>
#include <QObject>
#include <QTransform>

#include "app/document/results.h"
#include "blank/wrap.h"

namespace nine::app {

class BlankLayers : public QObject {
    Q_OBJECT
  public:
    /// Place on the ramp of a sheet that is stretched to its limit; beyond it the ramp's darkest.
    static constexpr double kLimitOfRamp = 0.62;

    explicit BlankLayers(QObject* parent) : QObject(parent) {}

    /// The picture so that its body's ends fall on `nose` and `tail` in an image of `size` (pixels of the
    /// widget).
    void askPicture(const BackPicturePtr& picture, const QPointF& nose, const QPointF& tail,
                    const QSize& size);
    const QImage& picture() const { return picture_.image; }

    struct WrapAnswer {
        SkinPtr skin;
        std::string material;
        double along = 0, across = 0;
        std::vector<WrapWidth> widths;         ///< the strip
        WrapMap map;                           ///< only when it was asked for
        std::shared_ptr<const Image> colours;  ///< of the map, as a texture of the body
    };
    void askWrap(const SkinPtr& skin, const std::string& material, bool map, double along_mm,
                 double across_mm);
    const WrapAnswer& wrap() const { return wrap_; }

    struct Way {
        SkinPtr skin;
        SkinPoint from, to;
        std::optional<Result<Geodesic>> found;
    };
    void askWay(const SkinPtr& skin, const SkinPoint& from, const SkinPoint& to);
    void forgetWay();
    const Way& way() const { return way_; }

  signals:
    void changed();

  private:
    struct PictureAnswer {
        BackPicturePtr picture;
        QTransform place;
        QSize size;
        QImage image;
    };
    PictureAnswer picture_;
    WrapAnswer wrap_;
    struct WrapQuestion {
        SkinPtr skin;
        std::string material;
        bool map = false;
        double along = 0, across = 0;
        bool operator==(const WrapQuestion&) const = default;
    };
    WrapQuestion asked_;  ///< last: it is not asked again while it is answered
    Way way_;
    LatestOnly<PictureAnswer> pictureSlot_{this, Urgency::Patient};
    LatestOnly<WrapAnswer> wrapSlot_{this, Urgency::Patient};
    LatestOnly<Way> waySlot_{this, Urgency::Soon, Overtaken::Shown};
};

}  // namespace nine::app
