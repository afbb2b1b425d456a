#pragma once
#include "stream_source.h"

#include <QTimer>

class QModbusClient;
class QModbusReply;

namespace butte::ports {

/// A Modbus device whose registers are asked for again and again, over TCP or a serial line.
class ModbusPoll : public StreamSource {
  Q_OBJECT

public:
  ModbusPoll(const devices::StreamAddress& address, std::vector<devices::ModbusRegister> registers,
             int pollMilliseconds, QObject* parent = nullptr);
  ~ModbusPoll() override;
  void open() override;
  void close() override;

private:
  void tryNow();
  void ask(std::size_t index);
  void hear(QModbusReply* reply, std::size_t index);
  void lose(const QString& why);

  devices::StreamAddress m_address;
  std::vector<devices::ModbusRegister> m_registers;
  QModbusClient* m_client = nullptr;
  QTimer m_poll, m_again;
  devices::StreamRow m_row;
  bool m_asking = false;
};

} // namespace butte::ports
