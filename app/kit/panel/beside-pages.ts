/** Pages beside the chapters of spraying: whoever is at the gun may want any of them. */
export const besidePages = (base: string, jobId: string) =>
  [
    { to: `${base}/spray/mend`, label: "Mend something" },
    { to: `${base}/spray/gun`, label: "Gun" },
    { to: `${base}/spray/coat-plan`, label: "Coat plan" },
    { to: `${base}/spray/path`, label: "Path" },
    { to: `${base}/spray/dial`, label: "Dial" },
    { to: `${base}/spray/window`, label: "Will it run?" },
    { to: `/jobs/${jobId}/vehicle`, label: "Vehicle" },
    { to: `/jobs/${jobId}/vehicle/wet-edge`, label: "Wet edge" },
    { to: `/jobs/${jobId}/booth`, label: "Booth view" },
    { to: `/jobs/${jobId}/pots`, label: "Pots" },
    { to: `/booth-plan?job=${jobId}`, label: "Booth plan" },
  ] as const;
