import { createContext, useContext } from "react";

/** The server's time, ticking: one source for every clock on the screen. */
export const NowContext = createContext(0);
export const useNow = () => useContext(NowContext);
