// What was exported where: to replace and take away only what is this job's own.
//
// Kept while the program runs. A file counts as ours as long as nobody has changed it since it was written.
#pragma once

#include <QDateTime>
#include <QString>
#include <map>
#include <string>
#include <vector>

namespace nine::app {

class Exports {
  public:
    /// Files that were just written into a folder for the job of this stem.
    void written(const QString& folder, const std::string& stem, const std::vector<std::string>& names);

    struct Meeting {
        std::vector<std::string> strange;   ///< there already, and not written for this job a moment ago
        std::vector<std::string> obsolete;  ///< ours from an earlier export, and not written any more
    };
    /// What stands in the way of writing these names.
    Meeting meet(const QString& folder, const std::string& stem, const std::vector<std::string>& names) const;

  private:
    struct Mark {
        qint64 size = -1;
        QDateTime changed;
        bool operator==(const Mark&) const = default;
    };
    static Mark markOf(const QString& path);
    std::map<std::pair<std::string, std::string>, std::map<std::string, Mark>>
        known_;  ///< by folder and stem
};

}  // namespace nine::app
