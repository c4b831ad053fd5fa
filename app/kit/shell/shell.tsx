import { Boxes, Home, ListTree, NotebookTabs, PaintBucket, SlidersHorizontal } from "lucide-react";
import { Suspense, lazy, useRef, useState } from "react";
import { NavLink } from "react-router";
import { later, useLater } from "~/kit/root/later";
import { useRoot } from "~/kit/root/use-root";
import { ClockStrip } from "./clock-strip";
import { NowContext } from "./now";
import { useLive } from "./use-live";
import { useShortcuts } from "./use-shortcuts";
import { LateToaster } from "./toaster";
import { useStay } from "./use-stay";
import { useToasts } from "./use-toasts";

/** Of few shops alone: an invented one, a full disk, instruments on a serial port, people who sign in. */
const seldom = () => import("./seldom");
const Seldom = lazy(() => seldom().then((m) => ({ default: m.Seldom })));
const WhoChip = lazy(() => seldom().then((m) => ({ default: m.WhoChip })));
const palette = later(() => import("./command-palette"));
const awayPart = later(() => import("~/kit/away/away"));
/** The hand is near: it will be there when it is asked for. */
const nearPalette = () => void palette.get().catch(() => {});

/** What a gun covers. */
const Fan = ({ size }: { size: number }) => (
  <svg
    width={size}
    height={size}
    viewBox="0 0 24 24"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.7"
    strokeLinejoin="round"
    aria-hidden
  >
    <path d="M2 9v6h5l13 6V3L7 9zM7 9v6" />
  </svg>
);

const PLACES = [
  { to: "/", label: "Shop floor", icon: Home },
  { to: "/jobs", label: "Jobs", icon: ListTree },
  { to: "/shelf", label: "Shelf", icon: PaintBucket },
  { to: "/cards", label: "Cards", icon: NotebookTabs },
  { to: "/practice", label: "Practice", icon: Fan },
  { to: "/house", label: "House", icon: SlidersHorizontal },
] as const;

/** Rail, page, clocks strip, palette and toasts: what stays while pages change. */
export function Shell({ children }: { children: React.ReactNode }) {
  const [paletteOpen, setPaletteOpen] = useState(false);
  /** Where the keyboard was before the palette came: there it goes back. */
  const opener = useRef<Element | null>(null);
  const openPalette = () => {
    opener.current = document.activeElement;
    setPaletteOpen(true);
  };
  const onPalette = (open: boolean) => {
    setPaletteOpen(open);
    if (open) return;
    const back = opener.current;
    setTimeout(() => {
      if (back instanceof HTMLElement && back.isConnected && back !== document.body) back.focus();
      else focusPage();
    });
  };
  const goesOn = useLater(awayPart, false);
  const late = useLater(palette, paletteOpen, true);
  const root = useRoot();
  const { demo, who } = root;
  const { now_ms, away } = useLive();
  const stayed = useStay(away);
  useToasts();
  useShortcuts({ openPalette, nearPalette });
  return (
    <div className="grid min-h-dvh grid-rows-[1fr_auto_auto] sm:h-dvh sm:grid-cols-[84px_1fr] sm:grid-rows-[1fr_auto] print:block">
      <Skip to={focusPage}>Skip to the page</Skip>
      <Skip to={focusField}>Skip to the work</Skip>
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
            className="grid min-h-14 w-[60px] min-w-11 place-content-center justify-items-center gap-1 rounded-press text-xs font-medium text-rail-ink [font-stretch:88%] hover:bg-sea-on sm:w-[68px] aria-[current=page]:bg-sea-on aria-[current=page]:text-white"
          >
            <Icon size={20} strokeWidth={1.7} aria-hidden />
            {label}
          </NavLink>
        ))}
        {who !== null && who !== "nobody" && (
          <Suspense>
            <WhoChip {...who} />
          </Suspense>
        )}
        <button
          type="button"
          onClick={openPalette}
          onPointerEnter={nearPalette}
          onFocus={nearPalette}
          className="grid min-h-14 w-[60px] min-w-11 cursor-pointer sm:w-[68px] place-content-center justify-items-center gap-1 rounded-press text-xs font-medium text-rail-ink [font-stretch:88%] hover:bg-sea-on sm:mt-auto sm:mb-3"
        >
          <Boxes size={20} strokeWidth={1.7} aria-hidden />
          Go to…
        </button>
      </nav>
      <div id="page" className="isolate order-1 min-w-0 sm:order-none sm:min-h-0 sm:overflow-y-auto print:overflow-visible">
        <NowContext value={now_ms}>
          {(demo || root.keeping.nearlyFull || root.shop.lineProfiles.length > 0) && (
            <Suspense>
              <Seldom {...root} />
            </Suspense>
          )}
          {goesOn && <goesOn.Away now_ms={now_ms} elsewhere={demo} />}
          {children}
        </NowContext>
      </div>
      <ClockStrip now_ms={now_ms} />
      <div role="status" className="no-print fixed inset-x-3 top-3 z-50 mx-auto max-w-[640px]">
        {stayed && (
          <p className="rounded-press border border-stop-ink bg-paper px-4 py-3 font-medium text-stop-ink shadow-lg">
            The server does not answer. You are still on this page, and what you typed is still here. Try again when it is back.
          </p>
        )}
      </div>
      {late && <late.CommandPalette open={paletteOpen} onOpenChange={onPalette} />}
      {/* After all else: before the page it would push a short one down on a telephone. */}
      <div className="order-last">
        <LateToaster />
      </div>
    </div>
  );
}

/** Puts the keyboard at what the page says first, past its name, its stations and its tabs. */
function focusPage(): void {
  const first = document.querySelector<HTMLElement>("#page main :is(h2, h3)") ?? document.querySelector<HTMLElement>("#page main");
  if (!first) return;
  first.tabIndex = -1;
  first.focus();
}

/** What comes after the page comes within this. */
const WORK_COMES_MS = 10_000;
/** Puts the keyboard at what is done on the page; where that has not come yet, as soon as it is there, unless somebody has gone elsewhere meanwhile. */
function focusField(): void {
  if (focusedWork()) return;
  focusPage();
  const main = document.activeElement;
  if (main?.tagName !== "MAIN") return;
  const comes = new MutationObserver(() => {
    if (document.activeElement !== main || focusedWork()) comes.disconnect();
  });
  comes.observe(main, { childList: true, subtree: true });
  setTimeout(() => comes.disconnect(), WORK_COMES_MS);
}

/** The first field of the step at hand, else of the page; its main press where there is none. @returns whether there was any */
function focusedWork(): boolean {
  const main = document.querySelector("#page main");
  const step = main?.querySelector("[data-step-here]");
  const all = (of: string) => [...(step?.querySelectorAll<HTMLElement>(of) ?? []), ...(main?.querySelectorAll<HTMLElement>(of) ?? [])];
  for (const of of ["input:not([type=hidden], [type=file]), select, textarea", "[data-kind=main]", ".press, summary"])
    for (const e of all(of))
      if (e.checkVisibility() && !e.closest("nav")) {
        e.focus();
        if (document.activeElement === e) return true;
      }
  return false;
}

function Skip({ to, children }: { to: () => void; children: React.ReactNode }) {
  return (
    <a
      href="#page"
      className="press sr-only z-50 bg-paper focus:not-sr-only focus:fixed focus:left-3 focus:top-3"
      onClick={(e) => {
        e.preventDefault();
        to();
      }}
    >
      {children}
    </a>
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
