import { kept, saidLately } from "./said";

const onClick = (o: ReturnType<typeof kept>) => (o.action as unknown as { onClick: () => void }).onClick;

test("a message with an undo is kept after it has gone; undone from the screen or from the list, once, it is no longer there", () => {
  const undone: string[] = [];
  kept("plain, nothing to undo");
  expect(saidLately()).toEqual([]);
  const first = kept("Coat 1 is on", { action: { label: "Undo", onClick: () => undone.push("coat 1") } });
  kept("Coat 2 is on", { action: { label: "Undo", onClick: () => undone.push("coat 2") } });
  expect(saidLately().map((s) => s.message)).toEqual(["Coat 2 is on", "Coat 1 is on"]);
  onClick(first)();
  onClick(first)();
  expect(undone).toEqual(["coat 1"]);
  saidLately()[0]!.undo();
  expect(undone).toEqual(["coat 1", "coat 2"]);
  expect(saidLately()).toEqual([]);
});

test("the newest eight are kept", () => {
  for (let n = 1; n <= 11; n++) kept(`entry ${n}`, { action: { label: "Undo", onClick: () => {} } });
  expect(saidLately().map((s) => s.message)).toEqual([11, 10, 9, 8, 7, 6, 5, 4].map((n) => `entry ${n}`));
});
