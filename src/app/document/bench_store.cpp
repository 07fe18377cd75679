#include "app/document/bench_store.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>

#include "app/document/data_folder.h"
#include "base/files.h"

namespace nine::app {
BenchStore::BenchStore(const QString& folder, QObject* parent)
    : QObject(parent), path_(inDataFolder(folder, "bench.json")) {
    const Result<Workplace> kept = loadBench(path_.toStdString());
    if (kept)
        bench_ = *kept;
    else
        problem_ = kept.error();
}

BenchStore::~BenchStore() {
    writer_.drain();
}

Status BenchStore::edit(Workplace bench) {
    if (Status ok = checkBench(bench); !ok) return ok;
    if (bench == bench_) return Done{};
    (void)makePrivateFolder(QFileInfo(path_).absolutePath().toStdString());
    if (problem_ && QFile::exists(path_)) {
        QString aside = path_ + ".unread";
        for (int n = 2; QFile::exists(aside); ++n) aside = QString("%1.unread-%2").arg(path_).arg(n);
        if (!QFile::rename(path_, aside))
            return Error{"cannot_write",
                         NINE_WORDS("core",
                                    "My bench could not be read, and what stands in its file cannot be put "
                                    "aside; nothing was "
                                    "changed. See whether its folder can be written."),
                         path_.toStdString()};
    }
    problem_.reset();
    bench_ = std::move(bench);
    writer_.write([bench = bench_, path = path_.toStdString()] { return saveBench(bench, path); },
                  [this](const Status& written) {
                      if (!written) emit notWritten(written.error());
                  });
    emit changed();
    return Done{};
}

}  // namespace nine::app
