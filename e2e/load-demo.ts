import { demoFolder } from "../scripts/trial/demo-folder";

/** Before every spec: the demo shop once, for each worker to copy; it goes with this process. */
export default function loadDemo(): void {
  process.env.E2E_DEMO = demoFolder().folder;
}
