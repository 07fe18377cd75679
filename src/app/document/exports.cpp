#include "app/document/exports.h"

#include <QDir>
#include <QFileInfo>
#include <algorithm>

namespace nine::app {
namespace {

std::string keyOf(const QString& folder) {
    const QString real = QFileInfo(folder).canonicalFilePath();
    return (real.isEmpty() ? QDir::cleanPath(folder) : real).toStdString();
}

QString pathOf(const QString& folder, const std::string& name) {
    return QDir(folder).filePath(QString::fromStdString(name));
}

}  // namespace

Exports::Mark Exports::markOf(const QString& path) {
    const QFileInfo info(path);
    return info.exists() ? Mark{info.size(), info.lastModified()} : Mark{};
}

void Exports::written(const QString& folder, const std::string& stem, const std::vector<std::string>& names) {
    auto& files = known_[{keyOf(folder), stem}];
    std::erase_if(files, [&](const auto& file) { return !QFileInfo::exists(pathOf(folder, file.first)); });
    for (const std::string& name : names) files[name] = markOf(pathOf(folder, name));
}

Exports::Meeting Exports::meet(const QString& folder, const std::string& stem,
                               const std::vector<std::string>& names) const {
    Meeting meeting;
    const auto known = known_.find({keyOf(folder), stem});
    const auto ours = [&](const std::string& name) {
        if (known == known_.end()) return false;
        const auto file = known->second.find(name);
        return file != known->second.end() && file->second == markOf(pathOf(folder, name));
    };
    for (const std::string& name : names)
        if (QFileInfo::exists(pathOf(folder, name)) && !ours(name)) meeting.strange.push_back(name);
    if (known == known_.end()) return meeting;
    for (const auto& [name, mark] : known->second)
        if (std::find(names.begin(), names.end(), name) == names.end() && ours(name))
            meeting.obsolete.push_back(name);
    return meeting;
}

}  // namespace nine::app
