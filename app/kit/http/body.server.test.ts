import fc from "fast-check";
import { fieldsOf } from "~/kit/form/answer";
import { formOf, jsonBodyOf } from "./body.server";

const post = (body: BodyInit, type: string | null) =>
  new Request("http://localhost/house", { method: "POST", body, ...(type ? { headers: { "Content-Type": type } } : {}) });
const URLENCODED = "application/x-www-form-urlencoded";
/** Status and words of a refusal. */
const refusalOf = (reading: Promise<unknown>) =>
  reading.then(
    () => null,
    (error: { data: string; init: { status: number } }) => [error.init.status, error.data] as const,
  );

test("a form comes out as it was sent, typed or uploaded, with names sent twice as lists", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.string({ minLength: 1, maxLength: 20 }), fc.string({ maxLength: 60 })), { maxLength: 20 }),
      async (pairs) => {
        const sent = new FormData();
        for (const [name, value] of pairs) sent.append(name.replace(/[\r\n"\\]/g, "_"), value.replace(/\r\n?|\n/g, " "));
        const typed = await formOf(post(new URLSearchParams([...sent] as [string, string][]).toString(), URLENCODED));
        expect([...typed]).toEqual([...sent]);
        if (pairs.length > 0) {
          const uploaded = new Request("http://localhost/house", { method: "POST", body: sent });
          expect([...(await formOf(uploaded))]).toEqual([...sent]);
        }
        const fields = fieldsOf(typed);
        expect(Object.keys(fields).length).toBe(new Set(sent.keys()).size);
      },
    ),
    { numRuns: 60 },
  );
});

test("a file arrives with its bytes and its name", async () => {
  const form = new FormData();
  const bytes = Uint8Array.from({ length: 70_000 }, (_, i) => (i * 7) % 256);
  form.set("file", new File([bytes], "job ü.json", { type: "application/json" }));
  const file = (await formOf(new Request("http://localhost/do/shelf/import", { method: "POST", body: form }))).get("file") as File;
  expect([file.name, file.type]).toEqual(["job ü.json", "application/json"]);
  expect(new Uint8Array(await file.arrayBuffer())).toEqual(bytes);
});

test("forty thousand names are refused when the bound is passed, not worked through", async () => {
  const many = Array.from({ length: 40_000 }, (_, i) => `n${i}=1`).join("&");
  expect(await refusalOf(formOf(post(many, URLENCODED)))).toEqual([413, "A form has at most 2000 fields."]);
  const few = Array.from({ length: 2000 }, (_, i) => `n${i % 50}=${i}`).join("&");
  const fields = fieldsOf(await formOf(post(few, URLENCODED)));
  expect(Object.keys(fields)).toHaveLength(50);
  expect(fields.n7).toHaveLength(40);
});

test("a name of an object's own inside is a name like any other", async () => {
  const fields = fieldsOf(await formOf(post("__proto__=a&constructor=b", URLENCODED)));
  expect(Object.entries(fields)).toEqual([
    ["__proto__", "a"],
    ["constructor", "b"],
  ]);
  expect(Object.getPrototypeOf(fields)).toBe(Object.prototype);
});

test.each([
  ["a kind that is no form", "x", "text/plain", 415],
  ["no kind at all", new Uint8Array([1, 2]), null, 415],
  ["parts without a boundary", "x", "multipart/form-data", 400],
  ["parts that do not end", '--b\r\nContent-Disposition: form-data; name="a"\r\n\r\nv', "multipart/form-data; boundary=b", 400],
  ["a file cut off", '--b\r\nContent-Disposition: form-data; name="f"; filename="a"\r\n\r\nv', "multipart/form-data; boundary=b", 400],
  ["another boundary", "--other--\r\n", "multipart/form-data; boundary=b", 400],
  ["more than the route takes", "x=" + "y".repeat(1_000_001), URLENCODED, 413],
] as const)("%s is refused in words", async (_what, body, type, status) => {
  const [said, words] = (await refusalOf(formOf(post(body as BodyInit, type))))!;
  expect(said).toBe(status);
  expect(words.length).toBeGreaterThan(20);
});

test("text that is no JSON is nothing, and is checked like anything else", async () => {
  expect(await jsonBodyOf(post("{", "application/json"))).toBeNull();
  expect(await jsonBodyOf(post('{"a":1}', "application/json"))).toEqual({ a: 1 });
});
