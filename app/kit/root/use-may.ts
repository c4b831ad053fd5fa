import type { Right } from "#server/access/rights";
import { useRoot } from "./use-root";

/** Whether whoever stands at this screen has a right; where nobody signs in, everybody has. */
export const useMay = (right: Right): boolean => {
  const { who } = useRoot();
  return who === null || (who !== "nobody" && who.rights.includes(right));
};
