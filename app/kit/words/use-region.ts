import { useRoot } from "~/kit/root/use-root";

/** Whose words for parts this shop uses. */
export const useRegion = () => useRoot().region;
