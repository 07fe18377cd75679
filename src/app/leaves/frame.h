// What a leaf may ask of the window round it.
#pragma once

#include <QString>
#include <functional>
#include <vector>

#include "base/result.h"
#include "cut/drawing.h"
#include "job/job.h"

class QWidget;

namespace nine::app {

class Frame {
  public:
    virtual ~Frame() = default;
    /// By its place on the stem.
    virtual void showLeaf(int number) = 0;
    /// Tells what is wrong, in a dialog.
    virtual void complain(const Error& error) = 0;
    /// A question with a way back.
    virtual bool ask(const QString& question, const QString& more, const QString& yes) = 0;
    /// A line at the foot of the window, with an offer.
    virtual void tell(const QString& sentence, const QString& offer, std::function<void()> taken) = 0;
    /// Pages of lines, true to size, onto paper.
    virtual void printPages(const std::vector<Drawing>& pages) = 0;
    /// One page onto paper, or into a PDF that is asked for.
    virtual void putOut(const Drawing& page, const QString& name, bool print) = 0;
    /// A number that is being typed counts from now on.
    virtual void takeTyped() = 0;
    virtual void openWithDialog() = 0;
    virtual void openDemo() = 0;
    /// Asks first when the open job has changes.
    virtual void openInstead(const QString& path) = 0;
    /// A job that has no file yet takes the place of the open one; asks first when that has changes.
    virtual void openAsNew(Job job) = 0;
    /// For dialogs.
    virtual QWidget* dialogParent() = 0;
};

}  // namespace nine::app
