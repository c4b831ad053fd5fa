import { useEffect, useLayoutEffect } from "react";

/** Runs before the first paint in the browser; the server paints nothing. */
export const useBeforePaint = typeof window === "undefined" ? useEffect : useLayoutEffect;
