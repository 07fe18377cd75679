// What leaves the Cut leaf: pages of all masks, into a folder or onto paper.
#include <QDesktopServices>
#include <QDir>
#include <QFileInfo>
#include <QUrl>

#include "app/leaves/cut/cut_leaf.h"
#include "app/leaves/cut/folder_dialog.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {

bool CutLeaf::mayTakePages() {
    const MasksResult& masks = context_.results.masks();
    if (!masks.whole && !maskSpecs(context_.document.job()).empty()) {
        context_.frame.complain(
            {"masks_coming",
             Words::verbatim(
                 (context_.results.masksRunning()
                      ? tr("The masks are still being fitted to your last change. Take the pages when "
                           "the line "
                           "at the foot of the window says that they are checked.")
                      : tr("The masks are not fitted to your last change: fitting was stopped. Change "
                           "something, or undo and redo, and let it run to its end."))
                     .toStdString()),
             ""});
        return false;
    }
    if (!masks.pages) {
        context_.frame.complain(
            {"nothing_to_cut", Words::verbatim(tr("There are no pieces to cut yet.").toStdString()), ""});
        return false;
    }
    return mayCutFlagged();
}

bool CutLeaf::mayCutFlagged() {
    QStringList flagged;
    for (const MaskResult& m : context_.results.masks().masks) {
        const auto hasIsland = [](const Sheet& sheet) {
            return std::any_of(sheet.windows.begin(), sheet.windows.end(),
                               [](const Window& w) { return !w.islands.empty(); });
        };
        const bool island =
            m.mask && std::any_of((*m.mask)->sheets.begin(), (*m.mask)->sheets.end(), hasIsland);
        if (m.mask && (*m.mask)->report().liesFlat && !island) continue;
        flagged << QString("%1 %2: %3")
                       .arg(QString::fromStdString(m.spec->shownName()), QChar(sideLetter(m.spec->side)),
                            !m.mask  ? said(m.mask.error())
                            : island ? tr("a piece inside a window falls out")
                                     : tr("cannot lie flat, stands off by up to %1")
                                           .arg(lengthText((*m.mask)->report().lift_mm)));
    }
    constexpr qsizetype kMostLines = 6;
    if (flagged.isEmpty()) return true;
    if (flagged.size() > kMostLines)
        flagged = flagged.mid(0, kMostLines) << tr("and %1 more").arg(flagged.size() - kMostLines);
    return context_.frame.ask(tr("Some masks are flagged: what is cut from them will not give clean edges."),
                              flagged.join('\n'), tr("Export all the same"));
}

std::string CutLeaf::exportStem() const {
    QString words = QFileInfo(context_.document.path()).fileName();
    for (const char* ending : {".json", ".nineleaves"})
        if (words.endsWith(ending)) words.chop(static_cast<int>(qstrlen(ending)));
    if (words.isEmpty())
        words = QString::fromStdString(context_.document.job().get<BlankChapter>().name + " " +
                                       context_.document.job().get<PatternChapter>().name);
    return fileStem(words.toStdString());
}

void CutLeaf::exportWithDialog(PageFormats formats) {
    context_.frame.takeTyped();
    if (!mayTakePages()) return;
    FolderDialog dialog(context_.frame.dialogParent(), tr("Folder for the pages"), exportFolder_);
    if (dialog.exec() != QDialog::Accepted) return;
    exportInto(dialog.folder(), formats);
}

void CutLeaf::exportInto(const QString& folder, PageFormats formats) {
    const std::string stem = exportStem();
    const std::size_t pages = context_.results.masks().pages->pages;
    const std::vector<std::string> names = pageFileNames(pages, formats, stem);
    Exports::Meeting meeting = exports_.meet(folder, stem, names);
    // Sheets of an earlier, longer export of this job that nobody remembers: asked for together.
    std::vector<std::string> there;
    for (const QString& name : QDir(folder).entryList(QDir::Files)) there.push_back(name.toStdString());
    std::vector<std::string> leftovers = sheetsBeyond(there, pages, formats, stem);
    std::erase_if(leftovers, [&](const std::string& name) {
        return std::find(meeting.obsolete.begin(), meeting.obsolete.end(), name) != meeting.obsolete.end();
    });
    if (!meeting.strange.empty() || !leftovers.empty()) {
        QStringList lines;
        const auto list = [&](const QString& words, const std::vector<std::string>& files) {
            if (files.empty()) return;
            QStringList some;
            for (const std::string& name : files)
                if (some.size() < 4) some << QString::fromStdString(name);
            const int more = static_cast<int>(files.size()) - static_cast<int>(some.size());
            lines << words.arg(some.join(", ") + (more > 0 ? tr(" and %1 more").arg(more) : QString()));
        };
        list(tr("To be replaced: %1."), meeting.strange);
        list(tr("To be taken away, for the job has fewer sheets now: %1."), leftovers);
        if (!context_.frame.ask(tr("The folder holds files that were not written for this job a moment ago."),
                                lines.join('\n'), tr("Replace them")))
            return;
    }
    std::vector<std::string> obsolete = meeting.obsolete;
    obsolete.insert(obsolete.end(), leftovers.begin(), leftovers.end());
    exportFolder_ = folder;
    exportTo(
        folder, formats,
        [this, folder, stem, names](const Status& written) {
            if (written) {
                exports_.written(folder, stem, names);
                context_.frame.tell(tr("Written to %1.").arg(folder), tr("open the folder"),
                                    [folder] { QDesktopServices::openUrl(QUrl::fromLocalFile(folder)); });
            } else {
                context_.frame.complain(written.error());
            }
            emit restless();
        },
        stem, obsolete);
    emit restless();
}

void CutLeaf::print() {
    const MasksResult& masks = context_.results.masks();
    if (!mayTakePages()) return;
    context_.frame.printPages(drawPages(masks.job, masks.masks, *masks.pages));
}

std::vector<MenuEntry> CutLeaf::menu() {
    return {{tr("Export the pages ..."), QKeySequence("Ctrl+E"),
             [this] {
                 exportWithDialog({true, true, false});
             }},
            {tr("Print the pages ..."), QKeySequence::Print, [this] { print(); }}};
}

}  // namespace nine::app
