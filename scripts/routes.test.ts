import { readFileSync } from "node:fs";
import { NAMED_ROUTES } from "../app/access/route-needs";
import routes from "../app/routes";

interface Entry {
  file: string;
  children?: Entry[];
}
const flat = (entries: readonly Entry[]): string[] => entries.flatMap((e) => [e.file, ...flat(e.children ?? [])]);
const modules = flat(routes as Entry[]).map((file) => ({ file, text: readFileSync(`app/${file}`, "utf8") }));
const exports = (text: string, name: string) => new RegExp(`export (async )?(function|const) ${name}\\b`).test(text);

/** Answered to a device's bridge or to the outbox, which look at the status themselves; and a picture asked for by fetch. */
const NOT_BY_A_FORM = ["readings.do.ts", "scale.do.ts", "gauge.do.ts", "climate.do.ts", "photo-look.do.ts"];

test("every action that a form sends to keeps the page and what was typed when it fails", () => {
  const unguarded = modules
    .filter(({ file, text }) => exports(text, "action") && !NOT_BY_A_FORM.some((f) => file.endsWith(`/${f}`)))
    .filter(({ text }) => !exports(text, "clientAction"))
    .map(({ file }) => file);
  expect(unguarded).toEqual([]);
});

test("no route reads a body past its bounds", () => {
  const unbounded = modules.filter(({ text }) => /request\.(formData|json|text|arrayBuffer|blob)\(/.test(text)).map(({ file }) => file);
  expect(unbounded).toEqual([]);
});

test("the browser's own randomUUID is not used: over plain http on another machine it is not there", () => {
  const used = modules.filter(({ text }) => text.includes("crypto.randomUUID")).map(({ file }) => file);
  expect(used).toEqual([]);
});

test("what a route asks of whom is said of routes that there are", () => {
  const ids = new Set(modules.map(({ file }) => file.replace(/\.tsx?$/, "")));
  expect(NAMED_ROUTES.filter((id) => !ids.has(id))).toEqual([]);
});
