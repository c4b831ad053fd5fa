import type { ServerContext } from "../context";
import { saidOf } from "../repos/sent-form-repo";

/** In which words a form is answered that was carried out: sent again in those of the first time, whatever has come to speak against it since. */
export const answeredAs = async ({ db }: Pick<ServerContext, "db">, key: string | null, said: string): Promise<string> =>
  (await saidOf(db, key)) ?? said;
