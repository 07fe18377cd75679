#include "app/frame/help.h"

#include <QDialog>
#include <QDialogButtonBox>
#include <QObject>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "app/theme/theme.h"

namespace nine::app {

QString helpFor(int leaf) {
    switch (leaf) {
        case 0:
            return QObject::tr(
                "<h3>Blank</h3><p>What shape this body is. <b>Trace it</b>: print the sheet at 100 %, lay "
                "the body in the upper box, "
                "nose to the left, and draw round it with a soft pencil held upright; from above in the "
                "second box, or lay a string "
                "round the body. Scan the sheet, or photograph it at any slant with all rings in the "
                "picture. "
                "<b>Photograph it</b>: on plain paper, from far away and straight above; give its length, or "
                "drag two points to a "
                "ruler. Drag nose and tail until the line runs along the body, paint out what is not body. "
                "<b>Kind and readings</b>: "
                "one of seven shapes, pulled to what you measured; hollow points are assumed.</p>"
                "<p>Drag a point to change a reading, a line to move a station, a diamond to move a "
                "landmark; or type the numbers "
                "on the card. Underlined numbers on dimension lines are typed where they stand. A string "
                "laid round a station tells "
                "how full its section is, all round or above or below the axis alone. Click a landmark to "
                "see what it means; eyes "
                "say which stock eye goes in, bills stand as glass. Bare areas take no paint and no opening; "
                "carved ones hold every "
                "sheet off.</p>"
                "<p><b>How hard to wrap</b> says how wide a strip of the chosen sheet, 20 mm long, may be to "
                "lie flat "
                "there, at most half round the body; the map says where a "
                "sheet of your size does. <b>Along the skin</b> measures between two points, and the girth "
                "at the first.</p>"
                "<p>Keys: Page up and down go through the stations, or through nose, tail, points and brush "
                "of a photo; arrows move what "
                "is in hand (Shift: more), Space sets a point or draws, Enter types or closes, Delete takes "
                "out, Ctrl+L opens your "
                "blanks. A tracing is helped like a photo: drag its nose and tail, paint out and in; painted "
                "along an open line, a stroke closes it. A pencil leaves its line outside the body: type one "
                "size by ruler and the outline is drawn in by what is over, all round alike, or say how the "
                "pencil was held.</p><p>On a photo, what was taken off is hatched and says why; a click puts "
                "it "
                "back. Dotted lines are guessed. [ and ] change the brush. A coin or a card on the table "
                "gives "
                "the scale, but lies lower than the outline: stand a metre away, or type the length "
                "too. <b>Lay a photo over it</b> shows where a new photo and the body of the job differ, in "
                "mm, and changes nothing until a body is made of it.</p><p>Blades and hooks: take the hooks "
                "off before "
                "you lay a body down to trace "
                "it.</p>");
        case 1:
            return QObject::tr(
                "<h3>Pattern</h3><p>What is wanted on the body. Rows of dots and bars are anchored to "
                "landmarks, so they move "
                "with them and fit the next size. Drag a mark along the skin, its ends to spread the row, "
                "its middle to bow it, or change its numbers in the "
                "sentence. Beside the body stands the mask the mark needs; it follows what you drag. Linked "
                "marks "
                "stand on both sides, mirrored. A mark that reaches off the body is shown hollow where it "
                "could "
                "lie: drag it, or put it back by the button.</p>");
        case 4:
            return QObject::tr(
                "<h3>Masks</h3><p>Whether a sheet lies flat there and lands where the mark was drawn. The "
                "colours show how far "
                "the sheet must stretch, up to what it takes. The crosses are where the windows were drawn, "
                "the dots where they "
                "land when the sheet is laid back on the body, twenty times enlarged. A mask that cannot lie "
                "stands off, and paint "
                "creeps under it: take a softer sheet or make the mask smaller.</p>");
        case 5:
            return QObject::tr(
                "<h3>Cut</h3><p>The pieces of both sides on the sheet, true to size. Drag a piece where you "
                "want it. Print at "
                "100 % and measure the 100 mm line and the 50 mm square before you cut; or write SVG for a "
                "cutter.</p><p>Blades: "
                "cut away from the holding hand. Vinyl or PVC is never cut hot or with a laser: follow the "
                "sheet's data sheet.</p>");
        case 6:
            return QObject::tr(
                "<h3>Spray</h3><p>How to spray through the stencil so that its edge comes out as wanted. "
                "Pressure, distance, "
                "mix and coats start where painters start; the model says what changes round that: how wide "
                "the edge gets, "
                "how far paint creeps, and what the next step in each direction would spoil.</p><p>Drag the "
                "circle on the "
                "gun's distance line, the one on the arc for the angle, the one on the skin for the place; "
                "the columns set "
                "pressure, trigger and speed; the circle beside the sheet holds it off on pads. What you set "
                "is pinned: the "
                "plan keeps it and says when pins contradict each other. Needles are those of <i>My "
                "bench</i>. Below stand "
                "the film across the edge in the circle, dashed where the sheet stands off most, and every "
                "opening on "
                "the body in the colour of its edge.</p><p>Mist: extraction on, and a respirator matched to "
                "the "
                "paint's data sheet, for every stroke. The figures are computed, not measured: try on paper "
                "first.</p>");
        default:
            return QObject::tr("<p>This leaf comes in a later version.</p>");
    }
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
        {"Space", QObject::tr("the next piece on the sheet, the next handle of the gun")},
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
