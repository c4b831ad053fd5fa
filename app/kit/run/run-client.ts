import { useState } from "react";
import { QueryClient } from "@tanstack/react-query";

/** Questions are worked out on this device and answer the same twice: nothing is asked again by itself, with or without a network. */
const makeClient = () =>
  new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: Infinity,
        retry: false,
        retryOnMount: false,
        networkMode: "always",
        refetchOnMount: false,
        refetchOnReconnect: false,
        refetchOnWindowFocus: false,
      },
      mutations: { retry: false, networkMode: "always" },
    },
  });

let ofThisWindow: QueryClient | null = null;

/** One store of answers a browser window; on the server one a rendering, so that nothing is shared between shops or kept. */
export function useRunClient(): QueryClient {
  const [client] = useState(() => (typeof window === "undefined" ? makeClient() : (ofThisWindow ??= makeClient())));
  return client;
}
