// `npm run backup [file]`: a consistent, checked copy of the data, also while the program runs.
import { builtProgram } from "./built.mjs";
process.exit((await builtProgram()).backupCommand(process.argv.slice(2)));
