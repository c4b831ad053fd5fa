import type { DeviceAnswer, DeviceAsk, DeviceFault } from "./device-talk";

type Asked = Omit<DeviceAsk, "id">;

/** The program on this device, in a worker that is started when it is first asked. */
export function createDeviceProgram(start: (program: string) => Worker = (program) => new Worker(program)) {
  let worker: { of: string; worker: Worker } | null = null;
  let nextId = 1;
  const open = new Map<number, { resolve: (answer: DeviceAnswer) => void; reject: (error: Error) => void }>();
  const end = (why: string) => {
    worker?.worker.terminate();
    worker = null;
    for (const { reject } of open.values()) reject(new Error(why));
    open.clear();
  };
  const started = (program: string): Worker => {
    if (worker?.of === program) return worker.worker;
    if (worker) end("a newer program has come");
    const made = start(program);
    made.onmessage = ({ data }: MessageEvent<DeviceAnswer | DeviceFault>) => {
      const call = open.get(data.id);
      open.delete(data.id);
      if ("fault" in data) call?.reject(new Error(data.fault));
      else call?.resolve(data);
    };
    made.onerror = () => end("the program on this device could not be started");
    worker = { of: program, worker: made };
    return made;
  };
  return {
    /** @throws Error where the device cannot answer for the shop */
    ask(program: string, asked: Asked): Promise<DeviceAnswer> {
      return new Promise((resolve, reject) => {
        const asking = started(program);
        const id = nextId++;
        open.set(id, { resolve, reject });
        asking.postMessage({ id, ...asked } satisfies DeviceAsk);
      });
    },
    end,
  };
}
