import { useCallback, useEffect, useState } from "react";
import type { Clash, Waiting } from "./device-store";

/** What a browser without a store keeps. */
interface Kept {
  waiting: readonly Waiting[];
  clashes: readonly Clash[];
}
/** The part that works with the device is loaded with the shell's, and may come after the page. */
const part = () => import("./away");

/** What this device keeps for the shop, as it stands, and what may be done about it. */
export function useKeptHere() {
  const [kept, setKept] = useState<Kept | null>(null);
  const look = useCallback(async () => {
    const { listKept } = await part();
    setKept(await listKept().catch(() => ({ waiting: [], clashes: [] }))); // a browser that keeps nothing
  }, []);
  useEffect(() => {
    let stop = () => {};
    let gone = false;
    void part().then(({ device }) => {
      if (!gone) stop = device.subscribe(() => void look());
    });
    // eslint-disable-next-line react-hooks/set-state-in-effect -- it is read from the browser's store, which comes later
    void look();
    return () => {
      gone = true;
      stop();
    };
  }, [look]);
  return {
    kept,
    /** Goes to the end of what waits, standing upon what is there now. */
    again: (clash: Clash) => void part().then(({ device }) => device.sendAgain(clash)),
    leaveOut: (clash: Clash) => void part().then(({ device }) => device.leaveOut(clash)),
    sendNow: () => void part().then(({ device }) => device.flush()),
  };
}
