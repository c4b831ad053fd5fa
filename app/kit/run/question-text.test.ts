import fc from "fast-check";
import { questionText, textName } from "./question-text";

test("a question's text is its JSON, whatever it holds, and the same object gives the same text again", () => {
  fc.assert(
    fc.property(fc.dictionary(fc.string(), fc.jsonValue(), { maxKeys: 6, noNullPrototype: true }), (question) => {
      const text = questionText(question);
      expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(question)));
      expect(questionText({ ...question })).toBe(text);
    }),
  );
  expect(questionText(null)).toBe("null");
  expect(questionText({ a: undefined, b: [1] })).toBe('{"b":[1]}');
});

test("two texts that differ have different names", () => {
  const names = new Map<string, string>();
  fc.assert(
    fc.property(fc.string({ maxLength: 40 }), (text) => {
      const before = names.get(textName(text));
      names.set(textName(text), text);
      expect(before === undefined || before === text).toBe(true);
    }),
    { numRuns: 3000 },
  );
});
