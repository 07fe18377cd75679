// What went wrong where nobody was waiting for an answer that could say so.
#pragma once

#include <QObject>

#include "base/result.h"

namespace nine::app {

/// One for the program; told and heard on the GUI thread.
class Troubles : public QObject {
    Q_OBJECT
  public:
    static Troubles& instance();

  signals:
    void happened(nine::Error error);
};

}  // namespace nine::app
