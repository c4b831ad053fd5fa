/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { ReadingDesk } from "~/kit/readings/reading-desk";
import type { Outbox, Waiting } from "~/kit/outbox/outbox";
import { OutboxContext } from "~/kit/outbox/use-outbox";
import { renderPanel, testView } from "~/kit/testing/render-panel";

/** An outbox that never gets rid of anything. */
function fullOutbox(): Outbox & { taken: Waiting[] } {
  const taken: Waiting[] = [];
  let state = { waiting: taken, refused: [], held: null };
  const listeners = new Set<() => void>();
  return {
    taken,
    get: () => state,
    subscribe: (l: () => void) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    add(r: Waiting) {
      taken.push(r);
      state = { ...state, waiting: [...taken] };
      for (const l of listeners) l();
    },
    drop: () => undefined,
    stop: () => undefined,
    resume: () => Promise.resolve(),
  };
}
const desk = (outbox: Outbox) => (
  <OutboxContext value={outbox}>
    <ReadingDesk phase="after" />
  </OutboxContext>
);

const field = () => screen.getByPlaceholderText<HTMLInputElement>("µm");
const key = (value: string) => {
  fireEvent.change(field(), { target: { value } });
  fireEvent.keyDown(field(), { key: "Enter" });
};
const note = () => screen.getByText(/to go here|Tap a spot|Read here already/).textContent;

beforeEach(() => {
  sessionStorage.clear();
  localStorage.clear();
});

test("with every spot read, a tapped spot takes three readings more (once: one stored, two vanished)", async () => {
  const view = testView();
  const outbox = fullOutbox();
  renderPanel(desk(outbox), { ...view, readingsPerSpot: 1 });
  const spot = view.spotPlan[2]!.name;
  expect(screen.getByText("Every spot is read")).toBeTruthy();
  key("150");
  expect(screen.getByRole("alert").textContent).toBe("Every spot is read. Tap the one that 150 belongs to.");
  expect(field().value).toBe("150");
  fireEvent.change(field(), { target: { value: "" } });
  fireEvent.click(within(screen.getByRole("group", { name: "Choose a spot" })).getByRole("button", { name: new RegExp(`^${spot}`) }));
  await waitFor(() => expect(note()).toContain("Read here already: 154"));
  key("150");
  fireEvent.click(screen.getByRole("button", { name: "One more" }));
  expect(outbox.taken.map((r) => [r.spot, r.value])).toEqual([[spot, "150"]]);
});

test("a gauge that types goes on while an odd reading is asked about (once it built 4.95.05.1)", async () => {
  const view = testView({ read: false });
  const outbox = fullOutbox();
  renderPanel(desk(outbox), { ...view, readingsPerSpot: 3 });
  key("4.9");
  expect(field().value).toBe("");
  key("5.0");
  key("131");
  const odd = screen.getAllByTestId("odd-reading");
  expect(odd.map((o) => o.textContent)).toEqual([
    expect.stringContaining("Spot 1: 4.9 µm? 4.9 mil would be 124 µm."),
    expect.stringContaining("Spot 1: 5.0 µm? 5.0 mil would be 127 µm."),
  ]);
  fireEvent.click(screen.getAllByRole("button", { name: "Leave it out" })[1]!);
  await waitFor(() => expect(screen.getAllByTestId("odd-reading")).toHaveLength(1));
  expect(outbox.taken.map((r) => [r.spot, r.value])).toEqual([["1", "131"]]);
});

test("a spot that is read already asks: in its place, or to them (once the slip and the true value were averaged in silence)", async () => {
  const view = testView();
  const outbox = fullOutbox();
  renderPanel(desk(outbox), { ...view, readingsPerSpot: 1 });
  const spot = view.state.spots[2]!;
  fireEvent.click(screen.getByRole("button", { name: new RegExp(`^${spot.name} read`) }));
  await waitFor(() => expect(note()).toContain("Read here already: 154"));
  key("150");
  expect(outbox.taken).toEqual([]);
  expect(screen.getByTestId("odd-reading").textContent).toContain("Spot 3 reads 154 µm already. Is 150 in its place, or one more?");
  fireEvent.click(screen.getByRole("button", { name: "In place of 154, 155, 153" }));
  await waitFor(() => expect(outbox.taken).toHaveLength(1));
  expect(outbox.taken[0]).toMatchObject({ spot: "3", value: "150", fields: { replaces: spot.films.after!.of[0]!.entryId } });
  fireEvent.click(screen.getByRole("button", { name: new RegExp(`^${view.spotPlan[3]!.name} read`) }));
  key("151");
  fireEvent.click(screen.getByRole("button", { name: "One more" }));
  await waitFor(() => expect(outbox.taken).toHaveLength(2));
  expect(outbox.taken[1]!.fields["replaces"]).toBeUndefined();
});

test("of two that lie apart the first may be the slip: it can be replaced where the second is asked about", async () => {
  const view = testView({
    read: false,
    add: (ledger) => ledger.read("after", [163]),
  });
  const outbox = fullOutbox();
  renderPanel(desk(outbox), { ...view, readingsPerSpot: 5 });
  key("122");
  expect(screen.getByTestId("odd-reading").textContent).toContain("The others at this spot are about 163 µm.");
  fireEvent.click(screen.getByRole("button", { name: "In place of 163, 164, 162" }));
  await waitFor(() => expect(outbox.taken[0]!.fields["replaces"]).toBe(view.state.spots[0]!.films.after!.of[0]!.entryId));
});

test("what was typed stands in a table where it was typed, the spots that need a look first by name, each with its take-out", async () => {
  const view = testView({ add: (ledger) => ledger.read("after", [480]) });
  const { sent } = renderPanel(desk(fullOutbox()), view);
  const table = await screen.findByRole("table", { name: "Readings after clear" });
  expect(table.querySelectorAll("tbody tr")).toHaveLength(6);
  expect(table.querySelector("tbody tr")!.textContent).toContain("far apart");
  fireEvent.click(screen.getByRole("button", { name: "Take out 480 481 479 at spot 1" }));
  await waitFor(() => expect(sent).toEqual([{ what: "480 481 479 at spot 1", whole: "yes" }]));
});
