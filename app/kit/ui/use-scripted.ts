import { useSyncExternalStore } from "react";

const never = () => () => {};

/** Whether the scripts of this page run: what is stored as soon as it is chosen cannot be chosen before, since the choice would reach nobody. */
export const useScripted = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
