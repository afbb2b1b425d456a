#pragma once
#include "stream/logged_time.h"
#include "stream/modbus_register.h"
#include "stream/stream_address.h"
#include "stream/stream_row.h"

#include <QByteArray>
#include <QObject>
#include <QString>
#include <memory>
#include <vector>

namespace butte::ports {

/// A logger that is listened to, however it is reached. Once opened it comes back by itself until close().
class StreamSource : public QObject {
  Q_OBJECT

public:
  enum class State { Closed, Trying, Open };
  using QObject::QObject;

  virtual void open() = 0;
  virtual void close() = 0;
  State state() const { return m_state; }
  /// What the system said when it was last tried in vain; empty while it is there.
  const QString& trouble() const { return m_trouble; }
  /// False while it still reads what had been written before it was listened to.
  virtual bool isCaughtUp() const { return true; }

signals:
  void rowRead(const butte::devices::StreamRow& row);
  /// Something came that says nothing readable: never dropped without a word.
  void unread(const QByteArray& what);
  void stateChanged();

protected:
  void become(State state, const QString& trouble = {});

private:
  State m_state = State::Closed;
  QString m_trouble;
};

/// What a source must know besides its address.
struct StreamWish {
  devices::DateOrder order = devices::DateOrder::DayFirst;
  std::vector<devices::ModbusRegister> registers; ///< that a Modbus device is asked for
  int pollMilliseconds = 10000;                   ///< how often such a device is asked
  int lookMilliseconds = 1000;                    ///< how often a file is looked at
  QString password;                               ///< of a broker
};

std::unique_ptr<StreamSource> streamSourceFor(const devices::StreamAddress& address, const StreamWish& wish);

/// A payload or a line as JSON: an object's numbers by their keys, inner ones with a dot ("tank.ec"); a bare
/// number under "". Nothing where it is neither.
std::vector<devices::StreamSample> jsonSamples(const QByteArray& text);

} // namespace butte::ports
