import { useEffect } from "react";

/** Nothing of the shop stays on a device that nobody is signed in on; what waits for the shop does. */
export function useLeaveNothing(): void {
  useEffect(() => {
    import("./away").then(
      ({ dropRows }) => dropRows(),
      () => {}, // the program is not on this device: nothing is kept
    );
  }, []);
}
