/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { glossReads, partGloss } from "#core/panel/gloss-read";
import { wantedGloss } from "#core/panel/neighbour";
import type { testLedger } from "#core/panel/testing/test-ledger";
import { glossForm } from "~/kit/form/gloss-readings";
import { renderPanel, testView } from "~/kit/testing/render-panel";
import { GlossReading } from "./gloss-reading";
import { wantedWords } from "./gloss.words";

const read = (role: "target" | "part", ...GU: number[]) => ({
  role,
  angle: 60 as const,
  place: "",
  meter: "typed",
  readings: GU.map((gloss_GU) => ({ gloss_GU, entered: String(gloss_GU) })),
});
const viewOf = (add?: (l: ReturnType<typeof testLedger>) => void) => testView({ finish: "matte", ...(add ? { add } : {}) });

test("with clear on, the page does not guess whose gloss it is; nothing is sent before somebody says", async () => {
  const { sent } = renderPanel(<GlossReading />, viewOf());
  const of = screen.getByLabelText<HTMLSelectElement>("Of");
  expect(of.value).toBe("");
  fireEvent.change(screen.getByLabelText("Readings, GU, spaces between"), { target: { value: "26 27" } });
  fireEvent.click(screen.getByRole("button", { name: "Store readings" }));
  await waitFor(() => expect(sent).toHaveLength(1));
  const refused = glossForm.safeParse(sent[0]);
  expect(refused.error?.issues.map((i) => [i.path, i.message])).toEqual([
    [["role"], "Say what was read: the vehicle, or the sprayed part"],
  ]);
});

test("before any clear there is only the vehicle to read; who came from the release reads the part", () => {
  const bare = testView({
    finish: "matte",
    read: false,
    add: (l) => [0, 1].map((i) => l.add("strike", { reason: "", whole: true }, { supersedes: `e${i}` })),
  });
  const { unmount } = renderPanel(<GlossReading />, bare);
  expect(screen.getByLabelText<HTMLSelectElement>("Of").value).toBe("target");
  unmount();
  renderPanel(<GlossReading />, viewOf(), "?of=part");
  expect(screen.getByLabelText<HTMLSelectElement>("Of").value).toBe("part");
});

test("the page shows the figure that release and report go by: the newest reading's middle; the one before it stands beside", () => {
  const view = viewOf((l) => {
    l.add("gloss", read("part", 40, 41, 42));
    l.add("gloss", read("part", 26, 27, 60));
  });
  renderPanel(<GlossReading />, view);
  const list = screen.getByRole("region", { name: "Gloss read" });
  expect(partGloss(view.state.gloss)).toEqual({ GU: 27, angle: 60 });
  expect(within(list).getByText(/^27/)).toBeTruthy();
  expect(list.textContent).toContain("before it 41");
  expect(within(list).getAllByRole("button", { name: /gloss at 60°/i }).length).toBeGreaterThan(1);
});

test("what is wanted: what stands beside it goes before the brief, and where they differ both are said", () => {
  const none = viewOf().state;
  expect(wantedGloss(none, null)).toBeNull();
  expect(wantedGloss(none, 25)).toEqual({ GU: 25, from: "brief" });
  const { state } = viewOf((l) => l.add("gloss", read("target", 20, 21, 22)));
  const wanted = wantedGloss(state, 30);
  expect(wanted).toEqual({ GU: 21, from: "neighbour" });
  const vehicle = glossReads(state.gloss)[0];
  expect(wantedWords(wanted, { vehicle, brief_GU: 30 })).toBe("the vehicle reads 21.0 GU, 3 readings; the brief says 30 GU: ask");
  expect(wantedWords(wanted, { vehicle, brief_GU: 21.5 })).toBe("the vehicle reads 21.0 GU, 3 readings");
  expect(wantedWords(wantedGloss(none, 25), { vehicle: undefined, brief_GU: 25 })).toBe("as the brief wants it");
  expect(wantedWords(null, { vehicle: undefined, brief_GU: null })).toBe("read the vehicle near the repair");
});
