// Where the program keeps what belongs to its user and to no job: My bench, the workshop file.
#pragma once

#include <QDir>
#include <QStandardPaths>

namespace nine::app {

/// A file in the user's data folder (XDG Base Directory Specification), or in `other` if one is given, as
/// tests do.
inline QString inDataFolder(const QString& other, const QString& file) {
    const QString folder =
        other.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) : other;
    return QDir(folder).filePath(file);
}

}  // namespace nine::app
