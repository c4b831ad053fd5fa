import { z } from "zod";

/** Where the second place is: a folder on this computer; empty: none. */
export const secondForm = z.object({ second: z.string().trim().max(500, "A path of at most 500 letters") });
