/** So long what a page reads may stand for others: short against the second that clocks are told in. */
const STANDS_MS = 1000;

/** What pages read of the same state of the file, read once for those that ask in the same second: windows look again at the same moment. */
export interface SharedReads {
  /**
   * @param key what is read; whatever it depends on besides the file and the second is in it
   * @param at_ms the server's time now
   */
  read<T>(key: string, at_ms: number, make: () => Promise<T>): Promise<T>;
  /** Something was written: nothing read before stands any longer. */
  forget(): void;
}

export function createSharedReads(): SharedReads {
  const known = new Map<string, { at_ms: number; value: Promise<unknown> }>();
  return {
    read<T>(key: string, at_ms: number, make: () => Promise<T>) {
      const stands = known.get(key);
      if (stands && at_ms >= stands.at_ms && at_ms < stands.at_ms + STANDS_MS) return stands.value as Promise<T>;
      for (const [other, { at_ms: then }] of known) if (at_ms >= then + STANDS_MS) known.delete(other);
      const value = make();
      known.set(key, { at_ms, value });
      value.catch(() => {
        if (known.get(key)?.value === value) known.delete(key);
      });
      return value;
    },
    forget: () => known.clear(),
  };
}
