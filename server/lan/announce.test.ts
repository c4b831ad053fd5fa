import { EventEmitter } from "node:events";
import packet from "dns-packet";
import { announce } from "./announce";
import { machineAddresses } from "./names";

/** A socket that keeps what is sent and is heard when it is told to: nothing leaves this process. */
class FakeSocket extends EventEmitter {
  sent: packet.Packet[] = [];
  bind(...args: unknown[]) {
    setImmediate(() => {
      this.emit("listening");
      (args.find((a) => typeof a === "function") as (() => void) | undefined)?.();
    });
  }
  address = () => ({ port: 5353 });
  setMulticastTTL() {}
  setMulticastLoopback() {}
  setMulticastInterface() {}
  addMembership() {}
  close = (done: () => void) => done();
  send(message: Buffer, _from: number, _length: number, _port: number, _to: string, done?: () => void) {
    this.sent.push(packet.decode(message));
    done?.();
  }
  ask(name: string) {
    this.emit("message", packet.encode({ type: "query", questions: [{ type: "A", name }] }), { address: "127.0.0.1", port: 5353 });
  }
}

const settle = () => new Promise((done) => setTimeout(done, 50));

test("whoever asks for yakamoz.local is told the machine's addresses; other names are not answered", async () => {
  const socket = new FakeSocket();
  const announcer = announce({ port: 3443, secure: true }, { socket });
  await settle();
  socket.sent = [];
  socket.ask("printer.local");
  await settle();
  expect(socket.sent).toEqual([]);
  socket.ask("yakamoz.local");
  await settle();
  const answers = socket.sent.flatMap((p) => p.answers ?? []).filter((a) => a.name === "yakamoz.local");
  const told = answers.map((a) => (a as packet.StringAnswer).data);
  expect(new Set(told)).toEqual(new Set(machineAddresses().filter((a) => !a.includes(":"))));
  await announcer.stop();
});

test("it says of itself where it listens, and that it goes", async () => {
  const socket = new FakeSocket();
  const announcer = announce({ port: 3443, secure: true }, { socket });
  await settle();
  const services = socket.sent.flatMap((p) => p.answers ?? []).filter((a) => a.type === "SRV");
  expect(services.map((s) => s.data)).toContainEqual(expect.objectContaining({ port: 3443, target: "yakamoz.local" }));
  socket.sent = [];
  await announcer.stop();
  const gone = socket.sent.flatMap((p) => p.answers ?? []);
  expect(gone.map((a) => (a as packet.SrvAnswer).ttl)).toContain(0);
});
