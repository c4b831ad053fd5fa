/** What a page sees of something that goes on beside it: a state, and who wants to hear of its changes. */
export class SmallStore<State> {
  private readonly listeners = new Set<() => void>();
  constructor(protected state: State) {}
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
  get = (): State => this.state;
  protected set(change: Partial<State>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }
}
