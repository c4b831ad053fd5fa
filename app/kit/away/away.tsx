import { useEffect, useState, useSyncExternalStore } from "react";
import { Link, useLocation } from "react-router";
import { withDevice } from "~/kit/http/wait-for-server";
import { outbox } from "~/kit/outbox/use-outbox";
import { counted, whenText } from "~/kit/words/when";
import { keepProgram } from "./keep-program";
import { type AwayState, createDevice } from "./the-device";

export { dropRows, listKept } from "./device-store";

/** This window's device, from when it is loaded on. */
export const device = withDevice(createDevice);

const NOTHING: AwayState = { away_ms: null, waiting: 0, clashes: 0 };
export const useAway = (): AwayState => useSyncExternalStore(device.subscribe, device.get, () => NOTHING);

function Newer({ onTake }: { onTake: () => void }) {
  return (
    <div className="no-print flex flex-wrap items-center justify-between gap-x-4 gap-y-1 bg-amber-wash px-4 py-1 sm:px-6">
      <p className="font-medium">A newer version of the program is here. What you are at goes on until you take it.</p>
      <button type="button" className="press" data-kind="quiet" onClick={onTake}>
        Take it now
      </button>
    </div>
  );
}

const entries = (n: number) => counted(n, "entry", "entries");

/** Says, over every page, that the device answers in the shop's place, and what is not with the shop yet. */
export function Away({ now_ms, elsewhere }: { now_ms: number; elsewhere: boolean }) {
  const [take, setTake] = useState<(() => void) | null>(null);
  useEffect(() => {
    device.start({ elsewhere });
    void outbox.resume(); // readings that an earlier page left on their way
    return keepProgram(device.plain, (newer) => setTake(() => newer));
  }, [elsewhere]);
  const { away_ms, waiting, clashes } = useAway();
  const isShown = useLocation().pathname === "/waiting"; // there it stands in full
  if (away_ms === null && (isShown || (waiting === 0 && clashes === 0))) return take && <Newer onTake={take} />;
  return (
    <div role="status" className="no-print flex flex-wrap items-center gap-x-4 gap-y-1 bg-amber-wash px-4 py-1 sm:px-6" data-testid="away">
      <p className="min-w-0 flex-1 basis-64">
        {away_ms !== null && (
          <b className="font-semibold">
            The shop&rsquo;s server does not answer since {whenText(away_ms, now_ms)}. This device goes on by itself.{" "}
          </b>
        )}
        {waiting > 0 && !isShown && `${entries(waiting)} not yet with the shop. `}
        {clashes > 0 && !isShown && `The shop did not take ${entries(clashes)} as entered: you decide.`}
      </p>
      {waiting + clashes > 0 && !isShown && (
        <Link to="/waiting" className="press" data-kind="quiet">
          Look at {waiting + clashes === 1 ? "it" : "them"}
        </Link>
      )}
    </div>
  );
}
