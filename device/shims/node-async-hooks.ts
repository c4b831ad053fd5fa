/**
 * What goes with a request, for a program that answers one request after the other: the value stands until that one is answered.
 */
export class AsyncLocalStorage<T> {
  #now: T | undefined;
  getStore(): T | undefined {
    return this.#now;
  }
  run<R>(value: T, work: () => R): R {
    const before = this.#now;
    const back = () => void (this.#now = before);
    this.#now = value;
    try {
      const result = work();
      if (result instanceof Promise) return result.finally(back) as R;
      back();
      return result;
    } catch (error) {
      back();
      throw error;
    }
  }
}
