import { ratioWords } from "./ratio-words";

test.each([
  ["2:1", "2 parts to 1. Of 100 parts 66.7 and 33.3."],
  ["2:1:10%", "2 parts to 1, then 10 % reducer on top. Of 100 parts 60.6, 30.3 and 9.1."],
  ["4-1-1", "4 parts to 1 and 1. Of 100 parts 66.7, 16.7 and 16.7."],
  ["2:1 + 5-10 %", "2 parts to 1, then 5 to 10 % reducer on top."],
  ["1:1", "1 part to 1. Of 100 parts 50 and 50."],
  ["1", "As it is, nothing to it."],
  ["1 + 10 %", "As it is, nothing to it, then 10 % reducer on top. Of 100 parts 90.9 and 9.1."],
  ["2:", null],
  ["", null],
])("%s is read back: %s", (typed, words) => {
  expect(ratioWords(typed)).toBe(words);
});
