#include "app/quiet.h"

#include <sys/stat.h>
#include <unistd.h>

#include <QByteArray>
#include <QDir>
#include <cstdio>

namespace nine::app {

void provideRuntimeFolder() {
    if (!qEnvironmentVariableIsEmpty("XDG_RUNTIME_DIR")) return;
    const QByteArray folder = QFile::encodeName(QDir::tempPath() + "/runtime-" + QString::number(::getuid()));
    ::mkdir(folder.constData(), 0700);
    struct stat is {};
    // Somebody else's folder, or a link to one, is not used.
    const bool ours = ::lstat(folder.constData(), &is) == 0 && S_ISDIR(is.st_mode) &&
                      is.st_uid == ::getuid() && (is.st_mode & 0777) == 0700;
    if (ours) qputenv("XDG_RUNTIME_DIR", folder);
}

void keepToolkitQuiet() {
    if (!qEnvironmentVariableIsEmpty("NINE_LEAVES_VERBOSE")) return;
    qInstallMessageHandler([](QtMsgType type, const QMessageLogContext&, const QString& text) {
        if (type == QtCriticalMsg || type == QtFatalMsg) std::fprintf(stderr, "%s\n", qPrintable(text));
    });
}

}  // namespace nine::app
