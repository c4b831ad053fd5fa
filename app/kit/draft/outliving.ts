import type { DraftStorage } from "./kept";

/** What a tab leaves behind in the storage that all tabs share: whose it is, since when, and what. */
interface Left {
  tab: string;
  at_ms: number;
  text: string;
}
const LEFT = "left ";
const ALIVE = "alive ";
const TAB = "tab id";
/** A tab says so often that it lives; unheard for longer it is gone, however it went. */
const BEAT_MS = 2000;
const GONE_MS = 3 * BEAT_MS;
/** What nobody has come back to for so long is let go. Default of ours. */
const FORGOTTEN_MS = 30 * 86_400_000;

/** A form that has just been opened looks so often whether the tab that left it is gone by now. */
const LOOK_MS = 250;

/** A storage that may be told more of: what another tab leaves behind in the moments after it was asked for. */
export interface OutlivingStorage extends DraftStorage {
  /** Calls once when what was nobody's to see is this tab's, within the time that a tab is missed in. @returns what ends the waiting */
  awaits: (key: string, come: () => void) => (() => void) | undefined;
}

type Page = Pick<Window, "addEventListener" | "setInterval" | "clearInterval">;
/** Tabs of this window whose heart beats already. */
const beating = new Set<string>();

/**
 * A tab's own storage that outlives the tab: what was left half-typed in a tab that is closed is found by the next one that opens the form. While the
 * tab lives nobody else sees it, so that two windows never type into one another.
 * @param own of this tab @param shared of all tabs @param page that tells when it goes @param now_ms the clock
 */
export function outliving(own: Storage, shared: Storage, page: Page, now_ms: () => number = Date.now): OutlivingStorage {
  const tab = own.getItem(TAB) ?? newTab(own);
  beat(tab, shared, page, now_ms);
  const isAnothers = (left: Left) => left.tab !== tab && isAlive(shared, left.tab, now_ms());
  return {
    getItem(key) {
      const text = own.getItem(key);
      if (text !== null) return text;
      const left = readLeft(shared, key);
      if (!left || isAnothers(left)) return null;
      if (now_ms() - left.at_ms > FORGOTTEN_MS) {
        shared.removeItem(LEFT + key);
        return null;
      }
      own.setItem(key, left.text); // taken over: it is this tab's from now on
      write(shared, key, { tab, at_ms: left.at_ms, text: left.text });
      return left.text;
    },
    setItem(key, text) {
      own.setItem(key, text);
      write(shared, key, { tab, at_ms: now_ms(), text });
    },
    removeItem(key) {
      own.removeItem(key);
      if (readLeft(shared, key)?.tab === tab) shared.removeItem(LEFT + key);
    },
    awaits(key, come) {
      const first = readLeft(shared, key);
      if (own.getItem(key) !== null || !first || !isAnothers(first)) return undefined;
      const until_ms = now_ms() + GONE_MS + BEAT_MS;
      const end = () => page.clearInterval(timer);
      const timer = page.setInterval(() => {
        const left = readLeft(shared, key);
        if (own.getItem(key) !== null || !left || now_ms() > until_ms) return end();
        if (isAnothers(left)) return;
        end();
        come();
      }, LOOK_MS);
      return end;
    },
  };
}

function newTab(own: Storage): string {
  const id = Math.random().toString(36).slice(2);
  own.setItem(TAB, id);
  return id;
}

/** What the shared storage has no room for stands in the tab's own all the same. */
function write(shared: Storage, key: string, left: Left): void {
  try {
    shared.setItem(LEFT + key, JSON.stringify(left));
  } catch {
    // full: the tab keeps it
  }
}

function readLeft(shared: Storage, key: string): Left | null {
  try {
    const found = JSON.parse(shared.getItem(LEFT + key) ?? "null") as Partial<Left> | null;
    return found && typeof found.tab === "string" && typeof found.text === "string" && typeof found.at_ms === "number"
      ? (found as Left)
      : null;
  } catch {
    return null;
  }
}

const isAlive = (shared: Storage, tab: string, now_ms: number): boolean => now_ms - Number(shared.getItem(ALIVE + tab) ?? 0) < GONE_MS;

function beat(tab: string, shared: Storage, page: Page, now_ms: () => number): void {
  if (beating.has(tab)) return;
  beating.add(tab);
  const live = () => {
    try {
      shared.setItem(ALIVE + tab, String(now_ms()));
    } catch {
      // full: after a while others take it for gone
    }
  };
  live();
  page.setInterval(live, BEAT_MS);
  page.addEventListener("pagehide", () => shared.removeItem(ALIVE + tab));
  page.addEventListener("pageshow", live);
}
