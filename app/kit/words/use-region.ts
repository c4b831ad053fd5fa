import { useRoot } from "~/kit/root/use-root";
import { regionOf } from "./region";

/** Whose words for parts this shop uses. */
export const useRegion = () => regionOf(useRoot().shop);
