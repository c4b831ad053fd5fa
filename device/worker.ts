import "./globals";
import { type DeviceScope, serveDevice } from "./serve";

serveDevice(globalThis as unknown as DeviceScope);
