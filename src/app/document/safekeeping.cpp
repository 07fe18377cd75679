#include "app/document/safekeeping.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <QUuid>
#include <algorithm>

#include "base/files.h"

namespace nine::app {
namespace {

constexpr int kRecentFiles = 8;

QString stateFolder() {
    QString state = qEnvironmentVariable("XDG_STATE_HOME");
    if (state.isEmpty()) state = QDir::homePath() + "/.local/state";  // XDG Base Directory Specification
    return state + "/nine-leaves";
}

Status write(const QString& base, const Job& job, const QString& original) {
    if (Status folder = makePrivateFolder(QFileInfo(base).absolutePath().toStdString()); !folder)
        return folder;
    if (Status kept = saveJob(job, (base + ".nineleaves.json").toStdString(), Readers::Owner); !kept)
        return kept;
    return writeFileAtomically((base + ".from").toStdString(), original.toStdString(), Readers::Owner);
}

void removeCopyAt(const QString& base) {
    for (const char* ending : {".nineleaves.json", ".from"}) QFile::remove(base + ending);
}

QString lockName(const QString& path) {
    const QFileInfo info(path);
    return info.absolutePath() + "/." + info.fileName() + ".lock";
}

}  // namespace

Safekeeping::Safekeeping(JobDocument& document, QString folder, QObject* parent)
    : QObject(parent), document_(document), folder_(folder.isEmpty() ? stateFolder() : std::move(folder)) {
    (void)makePrivateFolder(folder_.toStdString());  // said when the first copy cannot be written
    QFile::setPermissions(folder_, QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
    sweepTemporaries(folder_.toStdString());
    base_ = folder_ + "/" + QUuid::createUuid().toString(QUuid::WithoutBraces);
    running_ = std::make_unique<QLockFile>(base_ + ".lock");
    running_->setStaleLockTime(0);  // only the end of the process ends it
    running_->tryLock(0);
    delay_.setSingleShot(true);
    delay_.setInterval(kDelay_ms);
    connect(&delay_, &QTimer::timeout, this, &Safekeeping::keep);
    connect(&document, &JobDocument::changed, this, &Safekeeping::onChanged);
    connect(&document, &JobDocument::fileChanged, this, &Safekeeping::onFileChanged);
}

Safekeeping::~Safekeeping() {
    writer_.drain();
    removeCopyAt(base_);
}

void Safekeeping::keep() {
    writer_.write(
        [base = base_, job = document_.job(), path = document_.path()] { return write(base, job, path); },
        [this](const Status& kept) {
            if (!kept && !failing_) emit notKept(kept.error());
            failing_ = !kept;
        });
}

void Safekeeping::onChanged() {
    if (document_.empty() || !document_.dirty()) return;
    if (!delay_.isActive()) delay_.start();
}

void Safekeeping::onFileChanged() {
    // The first edit is told before the history knows of it: this is where it shows.
    if (document_.dirty()) return onChanged();
    delay_.stop();
    removeCopy();
}

void Safekeeping::keepNow() {
    delay_.stop();
    keep();
    writer_.drain();
}

void Safekeeping::removeCopy() {
    // In its turn: a copy still waiting to be written would come back.
    writer_.write([base = base_]() -> Status {
        removeCopyAt(base);
        return Done{};
    });
}

std::vector<LeftBehind> Safekeeping::leftBehind() const {
    std::vector<LeftBehind> found;
    for (const QFileInfo& info :
         QDir(folder_).entryInfoList({"*.nineleaves.json"}, QDir::Files, QDir::Time)) {
        const QString base =
            info.absoluteFilePath().chopped(static_cast<int>(QString(".nineleaves.json").size()));
        if (base == QFileInfo(base_).absoluteFilePath()) continue;
        QLockFile other(base + ".lock");
        other.setStaleLockTime(0);
        if (!other.tryLock(0)) continue;  // that window is still open
        other.unlock();
        LeftBehind left;
        left.copy = info.absoluteFilePath();
        left.copied = info.lastModified();
        if (const Result<std::string> from = readFile((base + ".from").toStdString())) {
            left.original = QString::fromStdString(*from);
        }
        if (!left.original.isEmpty()) left.saved = QFileInfo(left.original).lastModified();
        found.push_back(std::move(left));
    }
    return found;
}

void Safekeeping::forget(const LeftBehind& left) {
    const QString base = left.copy.chopped(static_cast<int>(QString(".nineleaves.json").size()));
    for (const char* ending : {".nineleaves.json", ".from", ".lock"}) QFile::remove(base + ending);
}

bool Safekeeping::lock(const QString& path) {
    if (path.isEmpty()) {
        jobLock_.reset();
        return true;
    }
    auto lock = std::make_unique<QLockFile>(lockName(path));
    lock->setStaleLockTime(0);
    if (jobLock_ && jobLock_->fileName() == lock->fileName()) return true;
    if (!lock->tryLock(0) && lock->error() == QLockFile::LockFailedError) return false;
    jobLock_ =
        std::move(lock);  // in a folder that cannot be written there is no lock to take, and no saving either
    return true;
}

QStringList Safekeeping::recentFiles() {
    QStringList files = QSettings("nine-leaves", "nine-leaves").value("recent").toStringList();
    files.erase(
        std::remove_if(files.begin(), files.end(), [](const QString& f) { return !QFileInfo::exists(f); }),
        files.end());
    return files;
}

void Safekeeping::addRecent(const QString& path) {
    QStringList files = recentFiles();
    const QString absolute = QFileInfo(path).absoluteFilePath();
    files.removeAll(absolute);
    files.prepend(absolute);
    while (files.size() > kRecentFiles) files.removeLast();
    QSettings("nine-leaves", "nine-leaves").setValue("recent", files);
}

}  // namespace nine::app
