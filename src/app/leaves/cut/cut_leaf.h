// Leaf 6, Cut: how the masks get out of the sheet.
#pragma once

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
    ~CutLeaf() override { exporter_.drain(); }

    /// Writes the files into a folder in the background, under names that begin with the stem, and takes the
    /// obsolete ones away; `done` gets how it went, on the GUI thread.
    void exportTo(const QString& folder, PageFormats formats, std::function<void(Status)> done,
                  const std::string& stem = {}, const std::vector<std::string>& obsolete = {});
    bool exporting() const { return exporter_.busy(); }

  signals:
    void exportWanted(nine::PageFormats formats);
    void printWanted();

  private:
    void rebuildCard() override;
    void useSheet(SheetSize sheet);

    CutPage* page_;
    CardHolder* card_;
    Writer exporter_;
};

}  // namespace nine::app
