// My bench: the guns that hang there and where work starts in this shop.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QTableWidget>

#include "app/document/bench_store.h"

namespace nine::app {

class MyBench : public QDialog {
    Q_OBJECT
  public:
    MyBench(BenchStore& store, QWidget* parent);

    /// What stands in the tables. Errors: bad_value naming the cell, those of checkBench.
    Result<Workplace> typed() const;
    QTableWidget& guns() { return *guns_; }
    QTableWidget& practices() { return *practices_; }
    const QLabel& problem() const { return *problem_; }

  public slots:
    /// Takes over what was typed and closes, or says what is wrong and stays.
    void accept() override;
    void addGun();
    void removeGun();
    void putBack();

  private:
    void fill(const Workplace& bench);

    BenchStore& store_;
    QTableWidget *guns_, *practices_;
    QLabel* problem_;
};

}  // namespace nine::app
