#include "app/leaves/blank/blank_desk.h"

#include <QFile>
#include <QFileInfo>
#include <algorithm>
#include <cmath>

#include "base/base64.h"
#include "base/files.h"
#include "blank/string_girth.h"
#include "geom/polygon_set.h"

namespace nine::app {
namespace {

constexpr int kShown_px = 1500;

QImage shownCopy(const Picture& picture, double& factor) {
    const int by = factorFor(picture, kShown_px);
    factor = by;
    const Picture small = reduced(picture, by);
    QImage image(small.width, small.height, QImage::Format_RGB32);
    for (int y = 0; y < small.height; ++y) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
        for (int x = 0; x < small.width; ++x) {
            const std::uint8_t* p = small.at(x, y);
            line[x] = qRgb(p[0], p[1], p[2]);
        }
    }
    return image;
}

/// A file's bytes; the demo's pictures (":/...") are shipped inside the program.
Result<std::string> bytesOf(const QString& path) {
    if (!path.startsWith(":/")) return readFile(path.toStdString(), kMaxPictureFileBytes);
    QFile shipped(path);
    shipped.open(QIODevice::ReadOnly);
    return shipped.readAll().toStdString();
}

/// Reads the file if that was not done yet; false when there is nothing to look at.
bool readPicture(BlankDesk::Look& look, const QString& path, const Task& task) {
    if (look.file) return true;
    if (path.isEmpty()) return false;
    const Result<std::string> bytes = bytesOf(path);
    if (!bytes) {
        look.error = bytes.error();
        return false;
    }
    Result<PictureFile> file = decodePicture(*bytes, QFileInfo(path).fileName().toStdString(), task);
    if (!file) {
        look.error = file.error();
        return false;
    }
    look.hash = fingerprintOf(*bytes);
    look.shown = shownCopy(file->picture, look.factor);
    look.file = std::make_shared<const PictureFile>(std::move(*file));
    return true;
}

void lookAtPhoto(BlankDesk::Look& look, const PhotoWish& wish, const Task& task) {
    if (!look.silhouette) {
        Result<Silhouette> found = silhouetteOf(look.file->picture, wish.silhouette, task);
        if (!found) {
            look.error = found.error();
            return;
        }
        look.silhouette = std::make_shared<const Silhouette>(std::move(*found));
    }
    PhotoWish scaled = wish;
    const bool noScale = !wish.length_mm && !wish.known;
    if (noScale) scaled.length_mm = 100;  // the axis is shown before its size is known
    Result<PhotoOutline> outline = photoOutline(*look.silhouette, scaled);
    if (outline) {
        look.outline = std::move(*outline);
    } else {
        look.error = outline.error();
    }
}

/// The points of the scale across a coin, with the distance that was typed so far.
PhotoWish::Known knownFrom(const SeenCoin& coin, const std::optional<PhotoWish::Known>& before) {
    return {coin.middle - coin.half_px, coin.middle + coin.half_px, before ? before->mm : 0};
}

}  // namespace

BlankDesk::BlankDesk(JobDocument& document, QObject* parent) : QObject(parent), document_(document) {
    // A photo is laid over the body as it is now, not as it was when the photo was opened.
    connect(&document_, &JobDocument::changed, this, [this](Parts parts) {
        if ((parts & partsOf<BlankChapter>()).any() && way_ == Way::Photo && side_.file) lookAgain(false);
    });
}

void BlankDesk::start(Way way) {
    slot_.cancel();
    way_ = way;
    side_ = Look();
    above_ = Look();
    sidePath_.clear();
    abovePath_.clear();
    tracing_ = {};
    photo_ = {};
    aboveWish_ = {};
    showsAbove_ = stopped_ = false;
    coin_.reset();
    coinError_.reset();
    body_ = {};
    readings_ = {};
    if (way == Way::Kind) body_.family = "round";
    made_.reset();
    tool_ = Tool::Axis;
    progress_ = 1;
    emit changed();
}

void BlankDesk::openPicture(const QString& path, bool above) {
    Look& look = above ? above_ : side_;
    look = Look();  // not "= {}" on the conditional: GCC 12 makes broken strings of that
    look.name = QFileInfo(path).fileName();
    (above ? abovePath_ : sidePath_) = path;
    showsAbove_ = above;
    wishOfShown().silhouette.strokes.clear();
    wishOfShown().axis_px.reset();
    wishOfShown().silhouette.putBack.clear();
    if (!above) {
        tracing_ = TracingWish();
        photo_.known.reset();  // pixels of the picture before
        coin_.reset();
        coinError_.reset();
        if (body_.name.empty()) body_.name = QFileInfo(path).completeBaseName().toStdString();
    }
    lookAgain(false);
}

void BlankDesk::cancel() {
    slot_.cancel();
    progress_ = 1;
    made_.reset();
    stopped_ = true;
    emit changed();
}

void BlankDesk::showAbove(bool above) {
    if (above == showsAbove_ || (above && above_.name.isEmpty())) return;
    showsAbove_ = above;
    if (tool_ == Tool::Scale || tool_ == Tool::Coin)
        tool_ = Tool::Axis;  // the side alone has a scale of its own
    emit changed();
}

void BlankDesk::lookAtTracing(Answer& answer, const Asked& asked, const Task& task) {
    TracingWish wish = asked.tracing;
    wish.scanPerMm = answer.side.file->perMm;
    Result<TracingReading> reading = readTracing(answer.side.file->picture, wish, task);
    if (!reading) {
        answer.side.error = reading.error();
        return;
    }
    answer.side.reading = std::make_shared<const TracingReading>(std::move(*reading));
    answer.made = blankOfTracing(*answer.side.reading, asked.body);
    if (*answer.made)
        answer.side.kept = backPicture(answer.side.file->picture, *answer.side.reading,
                                       answer.side.name.toStdString(), answer.side.hash);
}

/// The scale of the side, and of the view from above by the length the side shows.
PhotoWish BlankDesk::lookAtPhotos(Answer& answer, const Asked& asked, const Task& task) {
    PhotoWish photo = asked.photo;
    photo.focal_px = answer.side.file->focal_px();
    if (asked.coin) {
        answer.coin = coinAt(answer.side.file->picture, *asked.coin);
        if (*answer.coin) photo.known = knownFrom(**answer.coin, photo.known);
    }
    // Points without a distance say nothing yet.
    if (photo.known && !(photo.known->mm > 0) && photo.length_mm) photo.known.reset();
    lookAtPhoto(answer.side, photo, task);
    if (readPicture(answer.above, asked.abovePath, task) && answer.side.outline) {
        PhotoWish top = asked.above;
        top.noseLeft = photo.noseLeft;
        top.length_mm = answer.side.outline->mmPerPx * answer.side.outline->axis_px.length();
        lookAtPhoto(answer.above, top, task);
        if (photo.known && answer.above.silhouette) {  // a scale on the table lies half the width lower
            if (const Result<double> width = widthOverLength(*answer.above.silhouette)) {
                photo.widthOverLength = *width;
                lookAtPhoto(answer.side, photo, task);
                if (answer.side.outline) {
                    top.length_mm = answer.side.outline->mmPerPx * answer.side.outline->axis_px.length();
                    lookAtPhoto(answer.above, top, task);
                }
            }
        }
    }
    return photo;
}

BlankDesk::Answer BlankDesk::lookedAt(const Asked& asked, const Task& task) {
    Answer answer = asked.before;
    if (!readPicture(answer.side, asked.sidePath, task)) return answer;
    if (asked.way == Way::Tracing) {
        lookAtTracing(answer, asked, task);
        return answer;
    }
    const PhotoWish photo = lookAtPhotos(answer, asked, task);
    if (!answer.side.outline) return answer;
    if (const Result<Skin> skin = asked.there ? Skin::of(*asked.there) : Result<Skin>(Error{})) {
        const bool ownScale = photo.length_mm || photo.known;
        for (Look* look : {&answer.side, &answer.above})
            if (look->outline)
                look->check = checkPhoto(*skin, *look->outline, ownScale, look == &answer.above);
    }
    if (!photo.length_mm && !photo.known) {
        answer.made = photoOutline(*answer.side.silhouette, photo).error();
    } else {
        answer.made = blankOfPhotos(*answer.side.outline, answer.above.outline, asked.body);
    }
    if (!*answer.made) return answer;
    for (Look* look : {&answer.side, &answer.above}) {
        if (!look->outline) continue;
        const BodyAxis& axis = look->outline->axis_px;
        look->kept = backPicture(look->file->picture, axis.nose, axis.tail, look->name.toStdString(),
                                 look->hash, look == &answer.above);
    }
    return answer;
}

void BlankDesk::lookAgain(bool strokesChanged) {
    if (way_ != Way::Tracing && way_ != Way::Photo) return;
    Answer before{side_, above_, {}, {}};
    if (strokesChanged) (showsAbove_ ? before.above : before.side).silhouette.reset();
    stopped_ = false;
    for (Look* look : {&before.side, &before.above}) {
        look->error.reset();
        look->outline.reset();
        look->check.reset();
        look->reading.reset();
        look->kept.reset();
    }
    std::optional<StationTable> there;  // the body of the job, which a photo is laid over
    if (!document_.empty()) there = document_.job().get<BlankChapter>().table;
    progress_ = 0;
    slot_.request([asked = Asked{before, there, way_, coin_, sidePath_, abovePath_, tracing_, photo_,
                                 aboveWish_, body_}](const Task& task) { return lookedAt(asked, task); },
                  [this](Answer answer) {
                      side_ = std::move(answer.side);
                      above_ = std::move(answer.above);
                      made_ = std::move(answer.made);
                      if (answer.coin) {
                          coin_.reset();
                          if (*answer.coin) {
                              photo_.known = knownFrom(**answer.coin, photo_.known);
                              tool_ = Tool::Scale;
                          } else {
                              coinError_ = answer.coin->error();
                          }
                      }
                      progress_ = 1;
                      emit changed();
                  },
                  [this](double share) {
                      progress_ = share;
                      emit changed();
                  });
    emit changed();
}

void BlankDesk::setTool(Tool tool) {
    tool_ = tool;
    if (tool == Tool::Scale && !photo_.known && side_.file) {
        // Near the lower edge, to be dragged to where a ruler lies; their distance is typed.
        const Picture& p = side_.file->picture;
        return setKnown({{0.1 * p.width, 0.9 * p.height}, {0.5 * p.width, 0.9 * p.height}, 0});
    }
    emit changed();
}

void BlankDesk::setRuler(double mm) {
    tracing_.ruler_mm = mm;
    lookAgain(false);
}

void BlankDesk::setLength(double mm) {
    photo_.length_mm = mm > 0 ? std::optional(mm) : std::nullopt;
    lookAgain(false);
}

void BlankDesk::setKnown(PhotoWish::Known known) {
    photo_.known = known;
    lookAgain(false);
}

void BlankDesk::setTracedWith(TracedWith with) {
    tracing_.tracedWith = with;
    lookAgain(false);
}

void BlankDesk::setKnownSize(bool height, double mm) {
    (height ? tracing_.knownHeight_mm : tracing_.knownLength_mm) = mm > 0 ? std::optional(mm) : std::nullopt;
    lookAgain(false);
}

void BlankDesk::pickCoin(const Vec2& pixel) {
    coin_ = pixel;
    coinError_.reset();
    lookAgain(false);
}

bool BlankDesk::putBackAt(const Vec2& pixel) {
    const auto& silhouette = shown().silhouette;
    if (!silhouette) return false;
    for (const TakenOff& thing : silhouette->takenOff) {
        if (!contains(thing.outline, pixel)) continue;
        std::vector<Vec2>& back = wishOfShown().silhouette.putBack;
        // What was asked for last counts, not what is shown yet: clicks may be faster than the looking.
        if (std::erase_if(back, [&](const Vec2& p) { return contains(thing.outline, p); }) == 0)
            back.push_back(pixel);
        lookAgain(true);
        return true;
    }
    return false;
}

void BlankDesk::setBrush(double radius) {
    constexpr double kFinest = 3, kBroadest = 60;
    brush_ = std::clamp(radius, kFinest, kBroadest);
    emit changed();
}

void BlankDesk::setAxis(const Vec2& nose_px, const Vec2& tail_px, bool above) {
    auto& axis = way_ != Way::Tracing ? wishOfShown().axis_px
                 : above              ? tracing_.topAxis_px
                                      : tracing_.sideAxis_px;
    axis = std::pair(nose_px, tail_px);
    lookAgain(false);
}

void BlankDesk::setNoseLeft(bool left) {
    if (way_ == Way::Tracing) {
        tracing_.noseLeft = left;
        tracing_.sideAxis_px.reset();
        tracing_.topAxis_px.reset();
        return lookAgain(false);
    }
    photo_.noseLeft = left;
    photo_.axis_px.reset();
    aboveWish_.axis_px.reset();
    lookAgain(false);
}

void BlankDesk::addStroke(Stroke2 stroke) {
    strokesOfShown().push_back(std::move(stroke));
    lookAgain(true);
}

void BlankDesk::takeStrokeBack() {
    if (strokesOfShown().empty()) return;
    strokesOfShown().pop_back();
    lookAgain(true);
}

void BlankDesk::setGirth(std::size_t index, StringReading reading) {
    if (index >= body_.girths.size()) return;
    body_.girths[index] = reading;
    lookAgain(false);
}

void BlankDesk::addGirth() {
    // At the fullest place, with the girth it has now: nothing changes until the string's own is typed.
    StringReading reading{10, 40};
    if (made_ && *made_) {
        const Station* fullest = nullptr;
        for (const Station& s : (*made_)->blank.table.stations) {
            const bool taken =
                std::any_of(body_.girths.begin(), body_.girths.end(),
                            [&](const StringReading& g) { return std::abs(g.x_mm - s.x_mm) < 2; });
            if (!taken && (!fullest || s.top_mm + s.bottom_mm > fullest->top_mm + fullest->bottom_mm))
                fullest = &s;
        }
        if (fullest) reading = {fullest->x_mm, std::round(10 * girthOf_mm(*fullest)) / 10};
    }
    body_.girths.push_back(reading);
    lookAgain(false);
}

void BlankDesk::removeGirth(std::size_t index) {
    if (index >= body_.girths.size()) return;
    body_.girths.erase(body_.girths.begin() + static_cast<long>(index));
    lookAgain(false);
}

void BlankDesk::setFamily(const std::string& id) {
    body_.family = id;
    if (way_ == Way::Kind) {
        emit changed();
    } else {
        lookAgain(false);
    }
}

void BlankDesk::setName(const QString& name) {
    body_.name = name.toStdString();
}

void BlankDesk::take(BlankChapter blank, const QString& label) {
    Job job = (document_.empty() ? Job{} : document_.job()).with(std::move(blank));
    if (document_.empty()) {
        document_.open(std::move(job), {});
    } else {
        document_.beginGesture();
        document_.edit(std::move(job), label);
    }
    leave();
}

Status BlankDesk::make() {
    if (!made_ || running())
        return Error{
            "not_ready",
            Words::verbatim(tr("The picture is still being looked at, or there is none.").toStdString()), ""};
    if (!*made_) return made_->error();
    BlankChapter blank = (*made_)->blank;
    if (!body_.name.empty()) blank.name = body_.name;
    for (const Look* look : {&side_, &above_})
        if (look->kept) blank.pictures.push_back(look->kept);
    take(std::move(blank), tr("Body from a picture"));
    return Done{};
}

void BlankDesk::setReadings(FamilyReadings readings) {
    readings_ = std::move(readings);
    emit changed();
}

Result<FamilyBody> BlankDesk::familyBody() const {
    return bodyOfFamily(body_.family, readings_);
}

Status BlankDesk::makeFamily() {
    Result<FamilyBody> body = familyBody();
    if (!body) return body.error();
    BlankChapter blank;
    blank.name = body_.name.empty() ? std::string(findFamily(body_.family)->name.text()) : body_.name;
    blank.family = body_.family;
    blank.source = "family";
    blank.table = std::move(body->table);
    blank.landmarks = std::move(body->landmarks);
    take(std::move(blank), tr("Body of a kind"));
    return Done{};
}

}  // namespace nine::app
