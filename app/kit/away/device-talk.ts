/** What a window asks the program on its device. */
export interface DeviceAsk {
  id: number;
  url: string;
  method: "GET" | "POST";
  headers: [string, string][];
  body: string | null;
  cookie: string;
  /** Of what is sent to be stored: its key and when it happened, by this browser's clock. */
  key: string;
  happened_ms: number;
  nonce: string;
}
export interface DeviceAnswer {
  id: number;
  status: number;
  headers: [string, string][];
  body: ArrayBuffer;
  /** What the browser is to remember for this screen. */
  cookies: string[];
  /** Something was stored: it waits for the shop. */
  kept: boolean;
}
export interface DeviceFault {
  id: number;
  fault: string;
}
