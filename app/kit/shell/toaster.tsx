import { useEffect } from "react";
import { usePrefs } from "~/kit/root/use-root";
import { useLater } from "~/kit/root/later";
import { toasterPlaced, toasts } from "~/kit/ui/toast";

/** Where messages stand; there once their package is. */
export function LateToaster() {
  const sonner = useLater(toasts, false);
  const { theme } = usePrefs();
  useEffect(() => {
    if (sonner) toasterPlaced();
  }, [sonner]);
  return sonner && <sonner.Toaster theme={theme === "night" ? "dark" : "light"} position="top-center" duration={15000} />;
}
