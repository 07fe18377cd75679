#include "app/document/bench_store.h"

#include <QDir>
#include <QFile>

namespace nine::app {
namespace {

QString dataFolder() {
    QString data = qEnvironmentVariable("XDG_DATA_HOME");
    if (data.isEmpty()) data = QDir::homePath() + "/.local/share";  // XDG Base Directory Specification
    return data + "/nine-leaves";
}

}  // namespace

BenchStore::BenchStore(const QString& folder, QObject* parent)
    : QObject(parent), path_((folder.isEmpty() ? dataFolder() : folder) + "/bench.json") {
    const Result<SprayBench> kept = loadBench(path_.toStdString());
    if (kept)
        bench_ = *kept;
    else
        problem_ = kept.error();
}

BenchStore::~BenchStore() {
    const bool pending = writer_->running();
    writer_.reset();  // waits for what is being written
    if (pending) (void)saveBench(bench_, path_.toStdString());
}

Status BenchStore::edit(SprayBench bench) {
    if (Status ok = checkBench(bench); !ok) return ok;
    if (bench == bench_) return Done{};
    bench_ = std::move(bench);
    QDir().mkpath(QFileInfo(path_).absolutePath());
    if (problem_) QFile::rename(path_, path_ + ".unread");
    problem_.reset();
    writer_->request(
        [bench = bench_, path = path_.toStdString()](const Task&) { return saveBench(bench, path); },
        [this](const Status& written) {
            if (!written) emit notWritten(written.error());
        });
    emit changed();
    return Done{};
}

}  // namespace nine::app
