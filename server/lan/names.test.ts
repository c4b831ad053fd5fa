import type { networkInterfaces } from "node:os";
import { inLink, machineAddresses, machineNames } from "./names";

test("a machine is found under its name with and without .local", () => {
  expect(machineNames("Bench-PC")).toEqual(["bench-pc", "bench-pc.local"]);
  expect(machineNames("bench-pc.local")).toEqual(["bench-pc", "bench-pc.local"]);
  expect(machineNames("bench.shop.example")).toEqual(["bench.shop.example"]);
  expect(machineNames("what ever")).toEqual([]);
});

test("its addresses are those that others can reach, as they stand in links", () => {
  const of = (address: string, family: "IPv4" | "IPv6", internal = false) => ({ address, family, internal });
  const interfaces = {
    lo: [of("127.0.0.1", "IPv4", true), of("::1", "IPv6", true)],
    wlan0: [of("fd00::7", "IPv6"), of("fe80::1", "IPv6"), of("10.0.0.7", "IPv4")],
  } as unknown as ReturnType<typeof networkInterfaces>;
  expect(machineAddresses(interfaces)).toEqual(["10.0.0.7", "fd00::7"]);
  expect(machineAddresses(interfaces).map(inLink)).toEqual(["10.0.0.7", "[fd00::7]"]);
});
