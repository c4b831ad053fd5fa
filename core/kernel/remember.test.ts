import fc from "fast-check";
import { remember } from "./remember";

test("what is remembered is what would be worked out, each of the last questions once; what throws is asked again", () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 60 }), fc.integer({ min: 1, max: 6 }), (asked, most) => {
      const worked: number[] = [];
      const doubled = remember(most, ({ n }: { n: number }) => {
        worked.push(n);
        if (n === 9) throw new RangeError("nine");
        return { twice: 2 * n };
      });
      let last: number[] = [];
      for (const n of asked) {
        const known = last.includes(n);
        const before = worked.length;
        if (n === 9) expect(() => doubled({ n })).toThrow("nine");
        else expect(doubled({ n })).toEqual({ twice: 2 * n });
        expect(worked.length - before).toBe(known ? 0 : 1);
        if (n !== 9) last = [n, ...last.filter((x) => x !== n)].slice(0, most);
      }
    }),
  );
});
