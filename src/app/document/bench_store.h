// My bench: guns and the shop's own starts, kept in a file of the user's, one for all jobs.
#pragma once

#include "app/document/writer.h"
#include "base/result.h"
#include "job/bench_file.h"

namespace nine::app {

class BenchStore : public QObject {
    Q_OBJECT
  public:
    /// `folder` is where bench.json is kept; the user's data folder if empty. A file that cannot be read is
    /// left as it is, and the bench as it ships is used until something is changed.
    BenchStore(const QString& folder, QObject* parent);
    /// What was changed last is in its file by then.
    ~BenchStore() override;

    const Workplace& bench() const { return bench_; }
    QString path() const { return path_; }
    /// What was wrong with the file.
    const std::optional<Error>& problem() const { return problem_; }

    /// Errors: those of checkBench; nothing is changed then. Written in the background; a file that could not
    /// be read is kept beside as bench.json.unread, with a number when there is one already.
    Status edit(Workplace bench);

  signals:
    void changed();
    void notWritten(nine::Error error);

  private:
    QString path_;
    Workplace bench_;
    std::optional<Error> problem_;
    Writer writer_;
};

}  // namespace nine::app
