import { z } from "zod";

const typed = z.string().default("");
export const ownerForm = z.object({ name: typed, passcode: typed });
export const pairForm = z.object({ name: typed, code: z.string().regex(/^\s*(\d\s*){6}$/, "The code has six figures") });
export const machineForm = z.object({ passcode: typed });
export const secretForm = z.object({ person: z.string(), secret: typed });
export const takeForm = z.object({ person: z.string() });
export const addPersonForm = z.object({
  name: typed,
  role: z.enum(["painter", "apprentice"]),
  pin: typed,
  formKey: z.string().max(80).optional(),
});
export const changePersonForm = z.object({ name: typed, role: z.enum(["owner", "painter", "apprentice"]), secret: typed });
export const deviceForm = z.object({ id: z.string() });
export const bridgeForm = z.object({ name: typed });
