// Bytes to lines, and addresses of ports.
#include "port/line_buffer.h"
#include "port/port_address.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace butte::devices {
namespace {

using ::testing::ElementsAre;
using ::testing::IsEmpty;

TEST(LineBuffer, PutsPiecesTogether) {
  LineBuffer lines;
  EXPECT_THAT(lines.take("ST,GS,+ 12"), IsEmpty());
  EXPECT_THAT(lines.take(".3 g\r"), ElementsAre("ST,GS,+ 12.3 g"));
  EXPECT_THAT(lines.take("\nUS,GS,+ 12.4 g\r\nST"), ElementsAre("US,GS,+ 12.4 g"));
  lines.clear();
  EXPECT_THAT(lines.take(",1 g\n"), ElementsAre(",1 g")) << "what came before the loss is gone";
  EXPECT_THAT(lines.take("\x02 1.0 g\x03"), ElementsAre("\x02 1.0 g"));
}

TEST(LineBuffer, DropsWhatNoDeviceSends) {
  LineBuffer lines;
  EXPECT_THAT(lines.take(std::string(100000, 'x')), IsEmpty());
  EXPECT_THAT(lines.take("12 g\n"), IsEmpty()) << "the end of something too long is no weight";
  EXPECT_THAT(lines.take("13 g\n"), ElementsAre("13 g"));
}

TEST(PortAddress, ReadsWhatItWrites) {
  for (const char* text : {"serial:/dev/ttyUSB0,9600,8N1", "serial:/dev/ttyS1,4800,7E2",
                           "serial:/dev/x,115200,8O1", "tcp:192.168.1.20:4001", "tcp:scale.local:1"}) {
    const auto address = PortAddress::parse(text);
    ASSERT_TRUE(static_cast<bool>(address)) << text;
    EXPECT_EQ(address->text(), text);
  }
  EXPECT_EQ(PortAddress::parse("/dev/ttyUSB0")->text(), "serial:/dev/ttyUSB0,9600,8N1");
  EXPECT_EQ(PortAddress::parse("serial:/dev/ttyUSB0,4800")->text(), "serial:/dev/ttyUSB0,4800,8N1");
}

TEST(PortAddress, RefusesWhatCanNotBe) {
  for (const char* text :
       {"", "COM3", "serial:", "serial:ttyUSB0", "serial:/dev/x,0", "serial:/dev/x,9600,9N1",
        "serial:/dev/x,9600,8N", "serial:/dev/x,9600,8N3", "serial:/dev/x,9600,8X1", "tcp:host", "tcp::80",
        "tcp:host:0", "tcp:host:70000", "tcp:host:80x", "http://x"})
    EXPECT_FALSE(static_cast<bool>(PortAddress::parse(text))) << text;
}

} // namespace
} // namespace butte::devices
