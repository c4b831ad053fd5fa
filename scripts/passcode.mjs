// `npm run passcode`: a new passcode for the owner who has forgotten it. The program must be stopped: whoever can do that sits at the machine.
import { builtProgram } from "./built.mjs";
process.exit(await (await builtProgram()).passcodeCommand());
