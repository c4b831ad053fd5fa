// `npm run restore <file>`: puts a backup in the place of the data; what was there is set aside. The program must be stopped.
import { builtProgram } from "./built.mjs";
process.exit(await (await builtProgram()).restoreCommand(process.argv.slice(2)));
