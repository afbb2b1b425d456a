#pragma once
#include "port/port_address.h"

#include <QSerialPort>

namespace butte::ports {

inline QSerialPort::Parity parityOf(devices::Parity parity) {
  return parity == devices::Parity::Even  ? QSerialPort::EvenParity
         : parity == devices::Parity::Odd ? QSerialPort::OddParity
                                          : QSerialPort::NoParity;
}

} // namespace butte::ports
