/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { renderPage } from "~/kit/testing/render-page";
import { JOBS_A_PAGE, JobList, RemovedList } from "./job-lists";
import { type JobIntent, useJobActions } from "./use-job-actions";

const job = (n: number) => ({ id: `j${n}`, vehicle: `Estate ${n}`, colourName: "teal", finish: "flat" as const, from: "6 May 2026" });
const rows = (region: string) =>
  within(screen.getByRole("region", { name: region }))
    .getAllByRole("row")
    .slice(1);
const noAct = () => undefined;

test("a short list is shown without a search; every job leads to its page and can be put away", () => {
  const acted: [JobIntent, string][] = [];
  renderPage(
    <JobList
      id="open"
      caption="On the floor"
      archived={false}
      act={(intent, { id }) => acted.push([intent, id])}
      listed={{ all: 2, found: 2, jobs: [job(1), job(2)] }}
    />,
  );
  expect(screen.queryByRole("searchbox")).toBeNull();
  expect(rows("On the floor").map((r) => r.textContent)).toEqual([
    expect.stringContaining("Estate 1"),
    expect.stringContaining("Estate 2"),
  ]);
  expect(screen.getByRole("link", { name: "Estate 1" }).getAttribute("href")).toBe("/jobs/j1");
  fireEvent.click(screen.getByRole("button", { name: "Archive Estate 2" }));
  expect(acted).toEqual([["putAway", "j2"]]);
});

test("a long list is searched, narrowed and paged by the server: the address asks, the page shows what came", async () => {
  const jobs = Array.from({ length: JOBS_A_PAGE }, (_, i) => job(i));
  renderPage(<JobList id="open" caption="On the floor" archived={false} act={noAct} listed={{ all: 90, found: 90, jobs }} />);
  expect(rows("On the floor")).toHaveLength(JOBS_A_PAGE);
  expect(screen.getByText("Page 1 of 3")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Next page" }));
  await waitFor(() => expect(screen.getByText("Page 2 of 3")).toBeTruthy());
  expect(rows("On the floor")).toHaveLength(JOBS_A_PAGE); // not cut a second time here
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "teal" } });
  await waitFor(() => expect(screen.getByText("Page 1 of 3")).toBeTruthy());
});

test("nothing found says so and leads back; nothing there at all says that", () => {
  renderPage(<JobList id="open" caption="On the floor" archived={false} act={noAct} listed={{ all: 0, found: 0, jobs: [] }} />);
  expect(screen.getByRole("status").textContent).toBe("No job is on the floor.");
});

test("a job put away can be brought back or deleted; of a deleted one the file is left, and letting it go is asked twice", () => {
  const acted: [JobIntent, string][] = [];
  const act = (intent: JobIntent, { id }: { id: string }) => void acted.push([intent, id]);
  renderPage(
    <>
      <JobList id="away" caption="Archive" archived act={act} listed={{ all: 1, found: 1, jobs: [job(7)] }} />
      <RemovedList removed={[{ jobId: "j9", vehicle: "Estate 9", on: "6 May 2026 10:00", by: "painter B" }]} act={act} />
    </>,
  );
  fireEvent.click(screen.getByRole("button", { name: "Restore Estate 7" }));
  fireEvent.click(screen.getByRole("button", { name: "Delete Estate 7" }));
  const deleted = within(screen.getByRole("region", { name: "Deleted" }));
  expect(deleted.getByRole("link", { name: "Job file of Estate 9" }).getAttribute("href")).toBe("/do/jobs/j9/bundle.json");
  fireEvent.click(deleted.getByRole("button", { name: "Restore Estate 9" }));
  fireEvent.click(deleted.getByRole("button", { name: /Let the file go too/ }));
  expect(acted).toEqual([
    ["bringBack", "j7"],
    ["delete", "j7"],
    ["takeBack", "j9"],
  ]);
  fireEvent.click(deleted.getByRole("button", { name: /For good: it cannot come back/ }));
  expect(acted.at(-1)).toEqual(["forget", "j9"]);
});

test("an action is sent to its job; nothing is said when it was refused", async () => {
  function Page() {
    const act = useJobActions();
    return (
      <button type="button" onClick={() => act("delete", { id: "j1", vehicle: "Estate 1" })}>
        go
      </button>
    );
  }
  const { sent } = renderPage(<Page />, { answer: () => ({ ok: false }) });
  fireEvent.click(screen.getByRole("button", { name: "go" }));
  await waitFor(() => expect(sent).toEqual([{ path: "/jobs/j1", fields: { intent: "delete", vehicle: "Estate 1" } }]));
  expect(screen.queryByText(/is deleted/)).toBeNull();
});
