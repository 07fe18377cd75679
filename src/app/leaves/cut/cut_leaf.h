// Leaf 6, Cut: how the masks get out of the sheet.
#pragma once

#include "app/document/exports.h"
#include "app/document/writer.h"
#include "app/leaves/leaf.h"
#include "app/sheet/card.h"

namespace nine::app {

class CutPage;

class CutLeaf : public Leaf {
    Q_OBJECT
  public:
    CutLeaf(LeafContext context, QObject* parent);
    QWidget* page() override;
    QWidget* card() override { return card_; }
    LeafEntry entry() const override;
    std::vector<MenuEntry> menu() override;
    QString busyWith() const override { return exporting() ? tr("Writing the pages") : QString(); }
    ~CutLeaf() override { exporter_.drain(); }

    /// Writes the files into a folder in the background, under names that begin with the stem, and takes the
    /// obsolete ones away; `done` gets how it went, on the GUI thread.
    void exportTo(const QString& folder, PageFormats formats, std::function<void(Status)> done,
                  const std::string& stem = {}, const std::vector<std::string>& obsolete = {});
    bool exporting() const { return exporter_.busy(); }

    /// Asks for a folder, and before anything strange is replaced or a flagged mask is cut.
    void exportWithDialog(PageFormats formats);
    void exportInto(const QString& folder, PageFormats formats);
    void print();

  private:
    /// Whether the pages may be printed or written now; says why not.
    bool mayTakePages();
    /// False when masks are flagged and the user thinks better of it.
    bool mayCutFlagged();
    /// What the names of exported files begin with.
    std::string exportStem() const;
    void rebuildCard() override;
    void useSheet(SheetSize sheet);
    void useTool(const std::string& id);

    CutPage* page_;
    CardHolder* card_;
    Writer exporter_;
    Exports exports_;
    QString exportFolder_;
};

/// What the leaf is for, as rich text.
QString helpOnCut();

}  // namespace nine::app
