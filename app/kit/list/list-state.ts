/** What a list is asked to show; it lives in the page's address, so that reload, back and a sent link show the same. */
export interface ListState {
  search: string;
  /** Column that it is sorted by; null: the list's own order. */
  sort: string | null;
  desc: boolean;
  /** Chosen value of the list's filter; null: all. */
  only: string | null;
  /** From 1. */
  page: number;
}

const MOST_SEARCHED = 120;
const name = (list: string, what: string) => `${list}.${what}`;

/** Reads a list's state out of an address; what cannot be understood is left out. */
export function readListState(params: URLSearchParams, list: string): ListState {
  const sort = params.get(name(list, "sort"));
  const page = Number(params.get(name(list, "page")));
  return {
    search: (params.get(name(list, "find")) ?? "").slice(0, MOST_SEARCHED),
    sort: sort ? sort.replace(/^-/, "") : null,
    desc: sort?.startsWith("-") ?? false,
    only: params.get(name(list, "only")) || null,
    page: Number.isSafeInteger(page) && page > 0 ? page : 1,
  };
}

/** The address with a list's state in it; other lists' and other words of it stay. */
export function writeListState(params: URLSearchParams, list: string, { search, sort, desc, only, page }: ListState): URLSearchParams {
  const next = new URLSearchParams(params);
  const put = (what: string, value: string | null) => (value ? next.set(name(list, what), value) : next.delete(name(list, what)));
  put("find", search);
  put("sort", sort && (desc ? `-${sort}` : sort));
  put("only", only);
  put("page", page > 1 ? String(page) : null);
  return next;
}

/** The words of a search: all of them must be found, in any order. */
export const searchedWords = (search: string): string[] => search.toLowerCase().split(/\s+/).filter(Boolean);

/**
 * For a route whose loader knows nothing of its lists' state: what only moves through a list asks the server nothing again.
 * The route exports it as `shouldRevalidate`.
 */
export function unlessListMoved({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: {
  currentUrl: URL;
  nextUrl: URL;
  formMethod?: string | undefined;
  defaultShouldRevalidate: boolean;
}): boolean {
  const moved = currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search && !formMethod;
  return moved ? false : defaultShouldRevalidate;
}
