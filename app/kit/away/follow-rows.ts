import { type Changes, type KeptWho, dropRows, standingNow, takeIn } from "./device-store";

/** What the shop tells of its rows. */
interface Told extends Changes {
  epoch: string;
  seq: number;
  program: string;
  who: KeptWho | null;
  now_ms: number;
}
export type Followed = "kept" | "nothing to keep" | "not let in" | "no answer";

/** Takes in what is new of the shop's rows since the last time, whole or not at all. A device that nobody is signed in on keeps none. */
export async function followRows(send: typeof fetch): Promise<Followed> {
  const known = await standingNow();
  const asked = known ? new URLSearchParams({ epoch: known.epoch, since: String(known.seq) }) : "";
  let told: Told;
  try {
    const answer = await send(`/do/rows?${asked}`, { cache: "no-store" });
    if (answer.status === 401 || answer.status === 403) {
      await dropRows();
      return "not let in";
    }
    if (answer.status === 204) {
      await dropRows(); // an invented shop is looked at: what stands here is not what the page shows
      return "nothing to keep";
    }
    if (!answer.ok) return "no answer";
    told = (await answer.json()) as Told;
  } catch {
    return "no answer";
  }
  const heard_ms = Date.now();
  const { epoch, seq, program, who, now_ms } = told;
  await takeIn({ epoch, seq, program, who, offset_ms: now_ms - heard_ms, heard_ms }, told, known);
  return "kept";
}
