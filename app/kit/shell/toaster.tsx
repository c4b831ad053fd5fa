import { useEffect } from "react";
import { usePrefs } from "~/kit/root/use-root";
import { useLater } from "~/kit/root/later";
import { inPassing } from "~/kit/ui/late-parts";
import { toasterPlaced } from "~/kit/ui/toast";

/** Where messages stand; there once their package is. */
export function LateToaster() {
  const part = useLater(inPassing, false);
  const { theme } = usePrefs();
  useEffect(() => {
    if (part) toasterPlaced();
  }, [part]);
  return part && <part.Messages night={theme === "night"} />;
}
