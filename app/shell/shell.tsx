import { Boxes, Home, ListTree, NotebookTabs, PaintBucket, SlidersHorizontal } from "lucide-react";
import { useState } from "react";
import { NavLink } from "react-router";
import { Toaster } from "sonner";
import { usePrefs } from "~/lib/use-root";
import { ClockStrip } from "./clock-strip";
import { CommandPalette } from "./command-palette";
import { NowContext } from "./now";
import { useLive } from "./use-live";
import { useShortcuts } from "./use-shortcuts";
import { useToasts } from "./use-toasts";

const PLACES = [
  { to: "/", label: "Floor", icon: Home },
  { to: "/jobs", label: "Jobs", icon: ListTree },
  { to: "/shelf", label: "Shelf", icon: PaintBucket },
  { to: "/cards", label: "Cards", icon: NotebookTabs },
  { to: "/house", label: "House", icon: SlidersHorizontal },
] as const;

/** Rail, page, clocks strip, palette and toasts: what stays while pages change. */
export function Shell({ children }: { children: React.ReactNode }) {
  const prefs = usePrefs();
  const [paletteOpen, setPaletteOpen] = useState(false);
  const now_ms = useLive();
  useToasts();
  useShortcuts({ openPalette: () => setPaletteOpen(true) });
  return (
    <div className="grid min-h-dvh grid-rows-[1fr_auto_auto] sm:h-dvh sm:grid-cols-[84px_1fr] sm:grid-rows-[1fr_auto] print:block">
      <a href="#page" className="press sr-only z-50 bg-paper focus:not-sr-only focus:fixed focus:left-3 focus:top-3">
        Skip to the page
      </a>
      <nav
        aria-label="Places"
        className="rail no-print sticky bottom-0 z-20 order-3 flex items-center justify-around bg-sea text-moon sm:static sm:order-none sm:row-span-2 sm:flex-col sm:justify-start sm:gap-1 sm:pt-4"
      >
        <Moon />
        {PLACES.map(({ to, label, icon: Icon }) => (
          <NavLink
            key={to}
            to={to}
            end={to === "/"}
            className="grid min-h-14 w-[60px] place-content-center justify-items-center gap-1 rounded-press text-xs font-medium text-rail-ink [font-stretch:88%] hover:bg-sea-on sm:w-[68px] aria-[current=page]:bg-sea-on aria-[current=page]:text-white"
          >
            <Icon size={20} strokeWidth={1.7} aria-hidden />
            {label}
          </NavLink>
        ))}
        <button
          type="button"
          onClick={() => setPaletteOpen(true)}
          className="grid min-h-14 w-[60px] cursor-pointer sm:w-[68px] place-content-center justify-items-center gap-1 rounded-press text-xs font-medium text-rail-ink [font-stretch:88%] hover:bg-sea-on sm:mt-auto sm:mb-3"
        >
          <Boxes size={20} strokeWidth={1.7} aria-hidden />
          Go to…
        </button>
      </nav>
      <div id="page" className="order-1 min-w-0 sm:order-none sm:min-h-0 sm:overflow-y-auto print:overflow-visible">
        <NowContext value={now_ms}>{children}</NowContext>
      </div>
      <ClockStrip now_ms={now_ms} />
      <CommandPalette open={paletteOpen} onOpenChange={setPaletteOpen} />
      <Toaster theme={prefs.theme === "night" ? "dark" : "light"} position="top-center" duration={15000} />
    </div>
  );
}

function Moon() {
  return (
    <svg width="34" height="52" viewBox="0 0 34 52" aria-hidden className="hidden sm:mb-4 sm:block">
      <circle cx="17" cy="17" r="16" fill="var(--moon)" />
      <path d="M4 41h26M10 48h14" stroke="var(--glow)" strokeWidth="2.4" strokeLinecap="round" />
    </svg>
  );
}
