// Small pictures of the kinds of marks, drawn once in the background.
#pragma once

#include <QImage>
#include <QObject>
#include <map>

#include "app/document/latest_only.h"
#include "pattern/art.h"

namespace nine::app {

class MarkPictures : public QObject {
    Q_OBJECT
  public:
    static constexpr QSize kSize{52, 32};  ///< pixels of the page

    using Pictures = std::map<const Kind*, QImage>;

    explicit MarkPictures(QObject* parent);
    /// White on transparent, twice as dense; null until it is drawn.
    QImage of(const Kind& kind) const;
    /// The same in a colour.
    QImage of(const Kind& kind, const QColor& colour) const;

  signals:
    void drawn();

  private:
    Pictures pictures_;
    LatestOnly<Pictures> slot_{this, Urgency::Patient};
};

}  // namespace nine::app
