import { loader } from "./to-course.route";

const leadsTo = (jobId: string, panelId: string) =>
  loader({ params: { jobId, panelId } } as Parameters<typeof loader>[0]).headers.get("location");

test("a panel's address without a page leads to its course, whatever letters stand in it", () => {
  expect(leadsTo("j-1", "p-1")).toBe("/jobs/j-1/panels/p-1/course");
  for (const odd of ["\u0000", "a\r\nset-cookie: x", "💧", "../..", "//other.example", "a b?c#d"]) {
    const to = new URL(leadsTo(odd, odd)!, "http://localhost");
    expect(to.host).toBe("localhost");
    expect(to.pathname.split("/").map(decodeURIComponent)).toEqual(["", "jobs", odd, "panels", odd, "course"]);
  }
});
