/** `npm run trial [part…] [name=number…]` (with TRIAL_SIGNED_IN=1 all servers are on the network, and ask who is there): the built program under a campaign; minutes. Parts: access accepted odd-files doors files forms fuzz kills storage growth storm. */
import { demoFolder } from "./demo-folder";
import { tryAccess } from "./access";
import { accepted } from "./accepted";
import { tryFiles } from "./files";
import type { Shown } from "./every-page";
import { oddFiles } from "./odd-files";
import { oneField } from "./one-field";
import { tryDoors } from "./doors";
import { fuzz } from "./fuzz";
import { growth } from "./growth";
import { killAgain } from "./kills";
import { storm } from "./storm";
import { backupAndRestore, badStarts, clockBack, fullDisk } from "./storage";

const args = process.argv.slice(2);
const number = (name: string, usual: number) => Number(args.find((a) => a.startsWith(`${name}=`))?.split("=")[1] ?? usual);
const parts = args.filter((a) => !a.includes("="));
const wants = (part: string) => parts.length === 0 || parts.includes(part);
let bad = 0;
function say(what: string, faults: readonly string[], detail: string): void {
  bad += faults.length;
  console.log(`${faults.length === 0 ? "ok  " : "BAD "} ${what}: ${detail}`);
  for (const f of faults.slice(0, 30)) console.log(`     ${f}`);
}

const demo = demoFolder();
if (wants("doors")) {
  const { tried, in: inside } = await tryDoors(demo.folder, demo.ids);
  say("doors", inside, `${inside.length} of ${tried} tries of a foreign origin or name got in`);
}
if (wants("access")) {
  const r = await tryAccess(demo.folder, demo.ids);
  const slow = Object.entries(r.others95_ms).filter(([, ms]) => ms > 200);
  say(
    "access",
    [...r.faults, ...slow.map(([what, ms]) => `others waited ${ms.toFixed(0)} ms beside ${what}`)],
    `${r.tried} tries of strangers, apprentices, guesses and stolen cookies; others waited ${Object.entries(r.others95_ms)
      .map(([what, ms]) => `${ms.toFixed(0)} ms beside ${what}`)
      .join(", ")} (p95)`,
  );
}
const soFar = ({ entries, pages, byFault }: Shown) => {
  if (process.env.TRIAL_DEBUG) console.log(`${entries} entries, ${pages} pages, ${Object.keys(byFault).length} faults`);
};
const sayShown = (what: string, r: Shown) =>
  say(
    what,
    r.faults,
    `${r.entries} entries, ${r.refused} refused, ${r.pages} pages${Object.entries(r.byFault)
      .map(([reason, { n, pages }]) => `\n     ${n} × ${reason}: ${pages.slice(0, 6).join(" ")}`)
      .join("")}`,
  );
if (wants("accepted")) {
  const asked = { entries: number("entries", 20_000), each: number("each", 12), seed: number("seed", 7) };
  sayShown("whatever is accepted can be shown, and taken out", await accepted(demo.folder, asked, soFar));
}
if (wants("odd-files")) {
  const jobs = [...new Set(demo.panels.map((p) => p.jobId))];
  sayShown(
    "whatever a file brings can be shown, and taken out",
    await oddFiles(demo.folder, jobs, { files: number("files", 500), seed: number("seed", 7) }, soFar),
  );
}
if (wants("fuzz")) {
  const r = await fuzz(demo.folder, demo.ids, { requests: number("requests", 50_000), seed: number("seed", 7) });
  say(
    "fuzz",
    r.faults,
    `${r.requests} requests, ${JSON.stringify(r.byStatus)}, ${r.unanswered} unanswered, slowest ${r.slowest_ms.toFixed(0)} ms`,
  );
}
if (wants("forms")) {
  const r = await oneField(demo.folder, demo.panels, demo.shop, { forms: number("forms", 50_000), seed: number("seed", 7) }, (so) => {
    if (process.env.TRIAL_DEBUG)
      console.log(`${so.forms} forms, ${so.accepted} accepted, ${so.pages} pages, ${Object.keys(so.byFault).length} faults`);
  });
  say(
    "whole forms with one field changed, and the pages after them",
    Object.entries(r.byFault).map(([reason, { n, first }]) => `${n} × ${reason}: ${first}`),
    `${r.forms} forms, ${JSON.stringify(r.byStatus)}, ${r.accepted} accepted, ${r.pages} pages`,
  );
}
if (wants("files"))
  for (const t of await tryFiles(demo.folder)) {
    const faults = [
      ...(t.status >= 500 || t.status === 0 ? [`answered ${t.status}`] : []),
      ...(t.answer_ms > 2000 ? [`answered after ${t.answer_ms.toFixed(0)} ms`] : []),
      ...(t.others_ms > 100 ? [`others waited ${t.others_ms.toFixed(0)} ms`] : []),
    ];
    say(
      t.name,
      faults,
      `${t.status} after ${t.answer_ms.toFixed(0)} ms; others waited at most ${t.others_ms.toFixed(0)} ms, p95 ${t.others95_ms.toFixed(0)} ms`,
    );
  }
if (wants("storage")) {
  const full = await fullDisk(demo.folder, demo.ids);
  if (full) say("full disk", full.faults, `${full.stored} readings stored and there, ${full.refused} refused in words`);
  else console.log("--   full disk: not tried, this machine lets nobody mount a small disk");
  say("bad starts", await badStarts(demo.folder), "second server, corrupt, newer, open to everybody");
  say("clock back", await clockBack(demo.folder, demo.ids), "two hours back between two entries");
  say("restore", await backupAndRestore(demo.folder, demo.ids), "backup, wreck, restore: the same figures");
}
if (wants("kills")) {
  const r = await killAgain(demo.folder, { kills: number("kills", 1000), seed: number("seed", 7) });
  const faults = [
    ...r.lost.map((l) => `lost: ${l}`),
    ...r.doubled.map((d) => `doubled: ${d}`),
    ...r.half.map((h) => `half: ${h}`),
    ...r.brokenBackups.map((b) => `broken backup: ${b}`),
  ];
  say(
    "kills",
    faults,
    `${r.kills} kills, ${r.sent} writes sent, ${r.acknowledged} acknowledged (${r.fromOutbox} out of an outbox), ${r.told} entries told to a device that follows ${JSON.stringify(r.byKind)}, ${r.lost.length} lost, ${r.doubled.length} doubled, ${r.half.length} half, ${r.backups} backups, ${r.brokenBackups.length} broken`,
  );
}
if (wants("growth"))
  for (const panels of [100, 1000, 10_000]) {
    const times = await growth(demo.folder, { panels });
    const slow = times.filter((t) => t.p50_ms > t.most_ms);
    say(
      `growth to ${panels} open panels`,
      slow.map((t) => `${t.page}: ${t.p50_ms.toFixed(0)} ms, wanted at most ${t.most_ms}`),
      times.map((t) => `${t.page} ${t.p50_ms.toFixed(0)} (p95 ${t.p95_ms.toFixed(0)}) ms ${t.kB.toFixed(0)} kB`).join(", "),
    );
  }
if (wants("storm")) {
  const r = await storm(demo.folder, demo.ids);
  const faults = [
    ...(Math.max(...r.stale_ms) > 1500 ? [`a window was ${Math.max(...r.stale_ms)} ms behind`] : []),
    ...(r.share > 0.4 ? [`the server took ${(100 * r.share).toFixed(0)} % of a core`] : []),
    ...(r.p95_ms > 150 ? [`a post took ${r.p95_ms.toFixed(0)} ms (p95)`] : []),
  ];
  say(
    "storm of 20 posts a second, 20 windows",
    faults,
    `${r.posts} posts, p50 ${r.p50_ms.toFixed(0)} ms, p95 ${r.p95_ms.toFixed(0)} ms, ${(100 * r.share).toFixed(0)} % of a core; windows behind by ${r.stale_ms.join(", ")} ms`,
  );
}
console.log(bad === 0 ? "trial: nothing found" : `trial: ${bad} found`);
process.exitCode = bad === 0 ? 0 : 1;
