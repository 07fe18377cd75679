#include "app/frame/help.h"

#include <QDialog>
#include <QDialogButtonBox>
#include <QObject>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "app/leaves/leaves.h"
#include "app/theme/theme.h"

namespace nine::app {

QString helpFor(int leaf) {
    const LeafPlace& place = leafPlaces()[static_cast<std::size_t>(leaf)];
    return place.help();
}

QString helpOnKeys() {
    const std::pair<const char*, QString> keys[] = {
        {"Alt+1 ... Alt+9", QObject::tr("open a leaf")},
        {"S", QObject::tr("other side")},
        {"B", QObject::tr("both sides")},
        {"F", QObject::tr("the next flag: something that is wrong")},
        {"F10", QObject::tr("menu of the job")},
        {"Enter, Shift+Enter",
         QObject::tr("type the place of the station, the length of the body, on the drawing")},
        {"Space", QObject::tr("the next handle of the mark or the gun, the next piece on the sheet")},
        {"M", QObject::tr("Spray: curve or map, where there is room for one")},
        {"H", QObject::tr("holder large or small")},
        {"wheel, + and -", QObject::tr("the page from nearer or farther; 0 shows all")},
        {"middle button, Space and drag, Ctrl+arrows",
         QObject::tr("move the page that is looked at from nearer")},
        {"arrows", QObject::tr("nudge by 0.1 mm; with Shift by 1 mm; turn the body in the holder")},
        {"Esc", QObject::tr("leave a drag or a field as it was")},
        {"Delete", QObject::tr("take out the station or the element; release a pin")},
        {"PgUp, PgDn", QObject::tr("the station, mask or sheet before or after")},
        {"Ctrl+O, Ctrl+S", QObject::tr("open, save")},
        {"Ctrl+E, Ctrl+P", QObject::tr("write the pages, print them")},
        {"Ctrl+Z, Ctrl+Shift+Z", QObject::tr("undo, redo")},
        {"Ctrl+D", QObject::tr("light or dark")},
        {"F1", QObject::tr("this help")}};
    QString table = QObject::tr("<h3>Keys</h3>") + "<table cellpadding='3'>";
    for (const auto& [key, what] : keys)
        table += QString("<tr><td><b>%1</b></td><td>%2</td></tr>").arg(key, what);
    return table + "</table>";
}

void showHelp(QWidget* parent, int leaf) {
    QDialog dialog(parent);
    dialog.setWindowTitle(QObject::tr("What is this"));
    dialog.resize(520, 480);
    auto* layout = new QVBoxLayout(&dialog);
    auto* text = new QTextBrowser(&dialog);
    text->setAccessibleName(QObject::tr("Help"));
    text->setHtml(
        QString("<div style='color:%1'>%2%3</div>").arg(tokens().ink.name(), helpFor(leaf), helpOnKeys()));
    text->setStyleSheet(
        QString("background: %1; border: none; padding: 8px; font-size: 13px;").arg(tokens().paper.name()));
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, &dialog);
    QObject::connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
    layout->addWidget(text);
    layout->addWidget(buttons);
    dialog.exec();
}

}  // namespace nine::app
