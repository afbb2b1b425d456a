#include "sqlite/sql_text.h"
#include <string>
using namespace butte::book;
const std::string typed = "Robert'; DROP TABLE thing";
#ifdef BAD
const Sql statement(("SELECT uid FROM thing WHERE name = '" + typed + "'").c_str());
#else
const Sql statement("SELECT uid FROM thing WHERE name = ?");
#endif
