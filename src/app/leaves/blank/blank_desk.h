// What the Blank leaf works on while a body is made from pictures or from a kind: not part of the job until
// the body is made, which is one step of its history.
//
// Pictures are read and looked at in the background; each answer is dropped when overtaken. What was painted
// or dragged stays until the desk is left.
#pragma once

#include <QImage>
#include <QObject>
#include <QString>

#include "app/document/job_document.h"
#include "app/document/latest_only.h"
#include "blank/families.h"
#include "image/coin.h"
#include "job/blank_from_picture.h"
#include "job/photo_check.h"

namespace nine::app {

class BlankDesk : public QObject {
    Q_OBJECT
  public:
    enum class Way { None, Tracing, Photo, Kind };
    enum class Tool { Axis, Scale, Coin, TakeOut, PutIn };

    explicit BlankDesk(JobDocument& document, QObject* parent);

    /// One opened picture and what was made of it.
    struct Look {
        QString name;
        std::string hash;
        std::shared_ptr<const PictureFile> file;  ///< null until read
        QImage shown;                             ///< a copy of display size
        double factor = 1;                        ///< pixels of the picture for one of the copy
        std::shared_ptr<const Silhouette> silhouette;
        std::optional<PhotoOutline> outline;
        std::shared_ptr<const TracingReading> reading;
        std::optional<Error> error;
        std::optional<PhotoCheck> check;  ///< laid over the body of the job, if there is one
        BackPicturePtr kept;              ///< what the job keeps of it, once a body can be made
    };

    Way way() const { return way_; }
    void start(Way way);
    void leave() { start(Way::None); }

    /// Reads a picture; `above` for the photo from above.
    void openPicture(const QString& path, bool above = false);
    const Look& side() const { return side_; }
    const Look& above() const { return above_; }
    bool running() const { return slot_.running(); }
    double progress() const { return progress_; }
    /// What was found before stays to be seen, but no body is made of it.
    void cancel();
    bool stopped() const { return stopped_; }

    // What is told by hand. Each asks for a new look.
    const TracingWish& tracing() const { return tracing_; }
    const PhotoWish& photo() const { return photo_; }
    /// Axis and strokes are those of the picture that is shown: from the side, or from above.
    bool showsAbove() const { return showsAbove_; }
    void showAbove(bool above);
    const Look& shown() const { return showsAbove_ ? above_ : side_; }
    const PhotoWish& shownWish() const { return showsAbove_ ? aboveWish_ : photo_; }
    const BodyWish& body() const { return body_; }
    Tool tool() const { return tool_; }
    void setTool(Tool tool);
    void setRuler(double mm);
    void setLength(double mm);
    void setTracedWith(TracedWith with);
    /// One size of the body by ruler, for a tracing; 0 forgets it.
    void setKnownSize(bool height, double mm);
    /// Looks for a coin that holds this pixel; its rim becomes the two points of the scale.
    void pickCoin(const Vec2& pixel);
    const std::optional<Error>& coinError() const { return coinError_; }
    /// What was taken off at this pixel of the photo goes back on, or off again; false when nothing was.
    bool putBackAt(const Vec2& pixel);
    /// Radius of the brush on the screen, pixels.
    double brush() const { return brush_; }
    void setBrush(double radius);
    void setKnown(PhotoWish::Known known);
    /// `above`: of the tracing from above, on a tracing; on photos it is that of the picture that is shown.
    void setAxis(const Vec2& nose_px, const Vec2& tail_px, bool above = false);
    /// The ends that were asked for by hand, if they were.
    const std::optional<std::pair<Vec2, Vec2>>& wishedAxis(bool above) const {
        return way_ != Way::Tracing ? shownWish().axis_px
               : above              ? tracing_.topAxis_px
                                    : tracing_.sideAxis_px;
    }
    /// What was painted on the picture that is shown.
    const std::vector<Stroke2>& strokes() const {
        return way_ == Way::Tracing ? tracing_.strokes : shownWish().silhouette.strokes;
    }
    void setNoseLeft(bool left);
    bool noseLeft() const { return way_ == Way::Tracing ? tracing_.noseLeft : photo_.noseLeft; }
    void addStroke(Stroke2 stroke);
    void takeStrokeBack();
    void setGirth(std::size_t index, StringReading reading);
    void addGirth();
    void removeGirth(std::size_t index);
    void setFamily(const std::string& id);
    void setName(const QString& name);

    /// The body as it would be made now; an error says what is missing.
    const std::optional<Result<MadeBlank>>& made() const { return made_; }
    /// Makes it the job's body. Errors: those of made().
    Status make();

    // Kind and readings.
    const FamilyReadings& readings() const { return readings_; }
    void setReadings(FamilyReadings readings);
    const std::string& family() const { return body_.family; }
    Result<FamilyBody> familyBody() const;
    Status makeFamily();

  signals:
    void changed();

  private:
    struct Answer {
        Look side, above;
        std::optional<Result<MadeBlank>> made;
        std::optional<Result<SeenCoin>> coin;
    };
    /// What a worker looks with.
    struct Asked {
        Answer before;                      ///< what is kept of the look before
        std::optional<StationTable> there;  ///< the body of the job, which a photo is laid over
        Way way;
        std::optional<Vec2> coin;
        QString sidePath, abovePath;
        TracingWish tracing;
        PhotoWish photo, above;
        BodyWish body;
    };
    void lookAgain(bool strokesChanged);
    static Answer lookedAt(const Asked& asked, const Task& task);
    static void lookAtTracing(Answer& answer, const Asked& asked, const Task& task);
    static PhotoWish lookAtPhotos(Answer& answer, const Asked& asked, const Task& task);
    std::vector<Stroke2>& strokesOfShown() {
        return way_ == Way::Tracing ? tracing_.strokes : wishOfShown().silhouette.strokes;
    }
    PhotoWish& wishOfShown() { return showsAbove_ ? aboveWish_ : photo_; }
    void take(BlankChapter blank, const QString& label);

    JobDocument& document_;
    Way way_ = Way::None;
    Tool tool_ = Tool::Axis;
    Look side_, above_;
    QString sidePath_, abovePath_;
    TracingWish tracing_;
    PhotoWish photo_, aboveWish_;  ///< the one from above has the side's length
    bool showsAbove_ = false, stopped_ = false;
    std::optional<Vec2> coin_;  ///< a pixel of it, while it is looked for
    std::optional<Error> coinError_;
    double brush_ = 9;
    BodyWish body_;
    FamilyReadings readings_;
    std::optional<Result<MadeBlank>> made_;
    double progress_ = 1;
    LatestOnly<Answer> slot_{this, Urgency::Soon};
};

}  // namespace nine::app
