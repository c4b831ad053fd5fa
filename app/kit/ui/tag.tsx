import { CircleAlert, CircleCheck, CircleHelp, CircleX, FlaskConical } from "lucide-react";

const KINDS = {
  good: { icon: CircleCheck, look: "bg-glow-wash text-glow-ink" },
  caution: { icon: CircleAlert, look: "bg-amber-wash text-amber-ink" },
  stop: { icon: CircleX, look: "bg-stop-wash text-stop-ink" },
  open: { icon: CircleHelp, look: "bg-panel text-ink2" },
  simulated: { icon: FlaskConical, look: "bg-panel text-ink2 border border-dashed border-edge" },
} as const;

/** State by word, shape and colour together. */
export function Tag({ kind, children }: { kind: keyof typeof KINDS; children: React.ReactNode }) {
  const { icon: Icon, look } = KINDS[kind];
  return (
    <span
      className={`inline-flex items-center gap-1.5 rounded-press px-2.5 py-1 text-[13px] font-semibold whitespace-nowrap [font-stretch:92%] ${look}`}
    >
      <Icon size={16} aria-hidden />
      {children}
    </span>
  );
}
