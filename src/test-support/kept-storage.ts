/** Stands in for what a browser keeps, for the tests of a group; empty before each. Gives what is kept. */
export function keptStorage(): Map<string, string> {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  };
  beforeAll(() => Object.defineProperty(globalThis, 'localStorage', { value: storage, configurable: true }));
  afterAll(() => Reflect.deleteProperty(globalThis, 'localStorage'));
  beforeEach(() => kept.clear());
  return kept;
}
