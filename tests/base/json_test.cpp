#include "base/json.h"

#include <gtest/gtest.h>

namespace rigging {
namespace {

TEST(JsonMembers, AreReadLeniently) {
  const Json json = Json::parse(R"({"a":"x","b":2,"c":true,"d":["p",3,"q"]})");
  EXPECT_EQ(text_member(json, "a"), "x");
  EXPECT_EQ(text_member(json, "b", "none"), "none");
  EXPECT_EQ(number_member(json, "b", 0), 2);
  EXPECT_EQ(number_member(json, "a", 7), 7);
  EXPECT_TRUE(flag_member(json, "c", false));
  EXPECT_EQ(texts_member(json, "d"), (std::vector<std::string>{"p", "q"}));
  EXPECT_TRUE(texts_member(Json(3), "d").empty());
}

std::string nested(int levels) {
  return std::string(static_cast<std::size_t>(levels), '[') + std::string(static_cast<std::size_t>(levels), ']');
}

/// As the library reads it, for whatever is within the limits.
TEST(ParseJson, ReadsAsTheLibraryDoes) {
  for (const std::string text :
       {"null", "true", "-0.0", "1e-320", "18446744073709551615", "-9223372036854775808", "\"\\u00e4\\ud83d\\ude00\"",
        "[]", "{}", "[1,[2,{\"a\":[{}]}],{\"b\":{\"c\":null}}]", " { \"x\" : [ 1 , 2 ] } "}) {
    const auto read = parse_json(text, "t");
    ASSERT_TRUE(read) << text << ": " << read.error().text();
    EXPECT_EQ(*read, Json::parse(text)) << text;
  }
  EXPECT_EQ(*parse_json(nested(deepest_json), "t"), Json::parse(nested(deepest_json)));
}

TEST(ParseJson, WhatIsBeyondTheLimitsIsRefusedBeforeItGrows) {
  const auto refusal = [](const std::string& text) {
    const auto read = parse_json(text, "t");
    return read ? std::string("read") : read.error().text();
  };
  EXPECT_EQ(refusal(nested(deepest_json + 1)), "t: nested too deep; expected at most 64 levels");
  EXPECT_EQ(refusal(std::string(3'000'000, '[')), "t: nested too deep; expected at most 64 levels");
  EXPECT_EQ(refusal("{\"a\":1,\n \"a\":2}"), "t: member \"a\" is given twice in one object; expected each member once");
  EXPECT_EQ(refusal("[1e999]"), "t:1:6: a number is too large; expected numbers that fit a double");
  EXPECT_EQ(refusal("{\"a\":\n tru}"), "t:2:5: this is not JSON; expected a JSON value");
  EXPECT_EQ(refusal("[1] 2"), "t:1:5: this is not JSON; expected a JSON value");
  EXPECT_EQ(refusal(std::string(most_json_bytes + 1, ' ')), "t: the text is too large; expected at most 16 MiB");
  std::string many = "[0";
  for (std::size_t i = 0; i < most_json_values; ++i) many += ",0";
  EXPECT_EQ(refusal(many + "]"), "t: holds too many values; expected at most 500000");
}

/// What took minutes: objects in a long list, members of one object, each looked through for every other. Both grow
/// with their length now, reading and writing.
TEST(ParseJson, LongListsAndObjectsTakeNoLongerThanTheyAre) {
  std::string list = "[{}", object = "{\"m\":0";
  for (int i = 0; i < 150'000; ++i) {
    list += ",{}";
    object += ",\"m" + std::to_string(i) + "\":0";
  }
  EXPECT_EQ(parse_json(list + "]", "t")->size(), 150'001u);
  const auto read = parse_json(object + "}", "t");
  ASSERT_TRUE(read);
  OrderedJson written = OrderedJson::object();
  for (const auto& [name, value] : read->items()) add_member(written, name, value);
  EXPECT_EQ(written.size(), 150'001u);
  EXPECT_EQ(Json::parse(written.dump()), *read);
}

TEST(ParseJson, OfADamagedTextAllThatStandsBeforeTheDamageIsKept) {
  const std::string text = "{\"a\":1,\"b\":{\"c\":[1,2,3],\"d\":\"x\"}}";
  const Json whole = Json::parse(text);
  for (std::size_t cut = 0; cut < text.size(); ++cut) {
    const PartOfJson part = parse_json_as_far_as_it_goes(text.substr(0, cut), "t");
    ASSERT_TRUE(part.error) << cut;
    if (cut >= text.find("\"b\"")) EXPECT_EQ(part.read["a"], 1) << cut;
    if (cut >= text.find(",3")) EXPECT_EQ(part.read["b"]["c"][1], 2) << cut;
  }
  const PartOfJson all = parse_json_as_far_as_it_goes(text, "t");
  EXPECT_FALSE(all.error);
  EXPECT_EQ(all.read, whole);
}

}  // namespace
}  // namespace rigging
