import { UserRound } from "lucide-react";
import { Link, useLocation } from "react-router";
import type { Who } from "~/kit/http/root-data.server";

/** Who stands at this screen: two taps hand it to somebody else. */
export function WhoChip({ name, role }: Who) {
  const { pathname, search } = useLocation();
  return (
    <Link
      to={`/sign-in?${new URLSearchParams({ to: pathname + search })}`}
      className="grid min-h-14 w-[52px] min-w-11 place-content-center justify-items-center gap-1 rounded-press text-xs font-medium text-rail-ink [font-stretch:88%] hover:bg-sea-on sm:w-[68px]"
    >
      <UserRound size={20} strokeWidth={1.7} aria-hidden />
      <span className="max-w-full truncate">{name}</span>
      <span className="sr-only">, {role}, is at this screen. Somebody else</span>
    </Link>
  );
}
