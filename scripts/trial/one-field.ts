import { seededRandom } from "#core/kernel/stats/random";
import { PANEL_FILES, PANEL_PAGES, SHOP_PAGES, why } from "./every-page";
import { type WholeForm, formsOf, oneFieldChanged } from "./forms";
import { TrialServer, inLanes, ownFolder, pickBy } from "./harness";

export interface OneFieldReport {
  forms: number;
  accepted: number;
  pages: number;
  byStatus: Record<number, number>;
  byFault: Record<string, { n: number; first: string }>;
}

/** Forms of a page's script, which no page holds as a form. */
const scripted = (base: string, panelId: string): WholeForm[] => [
  {
    page: `${base}/inspect`,
    action: `/do/panels/${panelId}/readings`,
    fields: [
      ["clientKey", ""],
      ["phase", "after"],
      ["spot", "1"],
      ["x_m", "0.3"],
      ["y_m", "0.3"],
      ["value", "131 129 130"],
      ["gauge", ""],
      ["units", METRIC],
    ],
    file: false,
  },
  { page: `${base}/spray`, action: "/do/devices/climate", fields: [], file: false },
  { page: base, action: "/do/prefs", fields: [["theme", "night"]], file: false },
];
const METRIC = JSON.stringify({ film: "µm", length: "mm", temperature: "°C", pressure: "bar", volume: "ml" });

/** Requests after which a fresh copy of the demo is taken: a ledger stays about as long as a real one. */
const A_FOLDER = 1200;

/**
 * Whole valid forms of every page with one field changed; after each that was accepted the panel's pages are opened, some of them, and now and then
 * all. Nothing may answer 500.
 */
export async function oneField(
  demo: string,
  panels: readonly { jobId: string; panelId: string }[],
  shop: readonly string[],
  { forms, seed, lanes = 3 }: { forms: number; seed: number; lanes?: number },
  onRound: (so: OneFieldReport) => void = () => {},
): Promise<OneFieldReport> {
  const random = seededRandom(seed);
  const pick = pickBy(random);
  const so: OneFieldReport = { forms: 0, accepted: 0, pages: 0, byStatus: {}, byFault: {} };
  let key = 0;
  while (so.forms < forms) {
    const server = new TrialServer(ownFolder(demo));
    if (!(await server.start())) throw new Error(server.said);
    const fault = async (where: string, story: string) => {
      const reason = await why(server);
      const place = where.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ":id");
      const known = (so.byFault[`${reason}`] ??= { n: 0, first: `${place} after ${story}` });
      known.n++;
    };
    const look = async (path: string, story: string) => {
      so.pages++;
      const { status } = await server.ask(path);
      if (status >= 500 || status === 0) await fault(`GET ${path} ${status}`, story);
    };
    try {
      const { jobId, panelId } = pick(panels);
      const base = `/jobs/${jobId}/panels/${panelId}`;
      const pages = [
        ...PANEL_PAGES.map((p) => `${base}/${p}`),
        ...[`/jobs/${jobId}`, `/jobs/${jobId}/pots`, `/jobs/${jobId}/booth`, `/jobs/${jobId}/booth/${panelId}`, `/jobs/${jobId}/add-panel`],
        ...shop,
      ];
      const offered: WholeForm[] = scripted(base, panelId);
      for (const page of pages) offered.push(...(await formsOf(server, page)));
      // Deleting and putting away end the panel that is looked at: rarely.
      const usual = offered.filter((f) => !f.file && !f.fields.some(([n, v]) => n === "archived" || v === "delete" || v === "remove"));
      const batch = Array.from({ length: Math.min(A_FOLDER, forms - so.forms) }, () => {
        const whole = random() < 0.02 ? pick(offered) : pick(usual);
        const fresh = { ...whole, fields: whole.fields.map(([n, v]): [string, string] => (/key$/i.test(n) ? [n, `f${++key}`] : [n, v])) };
        return random() < 0.9 ? oneFieldChanged(fresh, random) : fresh;
      });
      await inLanes(batch, lanes, async (form) => {
        so.forms++;
        const story = `POST ${form.action.replace(base, "")} ${JSON.stringify(form.fields).slice(0, 700)}`;
        const body = form.fields.map(([n, v]) => `${encodeURIComponent(n)}=${encodeURIComponent(v)}`).join("&");
        const [path, query] = form.action.split("?");
        const { status } = await server.ask(`${path}${random() < 0.9 ? ".data" : ""}${query ? `?${query}` : ""}`, {
          method: "POST",
          headers: { "content-type": "application/x-www-form-urlencoded", origin: `http://localhost:${server.port}` },
          body,
        });
        so.byStatus[status] = (so.byStatus[status] ?? 0) + 1;
        if (status >= 500 || status === 0) return fault(`POST ${form.action} ${status}`, story);
        if (status >= 400) return;
        so.accepted++;
        const panelPages = PANEL_PAGES.map((p) => `${base}/${p}.data`);
        const seen = so.accepted % 25 === 0 ? panelPages : [pick(panelPages), pick(panelPages), `${base}/${pick(PANEL_PAGES)}`];
        for (const p of [...seen, pick(SHOP_PAGES), `/do/panels/${panelId}/${pick(PANEL_FILES)}`]) await look(p, story);
      });
      for (const p of [...PANEL_PAGES.map((q) => `${base}/${q}`), ...SHOP_PAGES, ...shop]) await look(p, "all of the round");
      onRound(so);
    } finally {
      await server.stop("SIGKILL");
    }
  }
  return so;
}
