/** A browser's `localStorage` for tests, with room for so many characters. */
export class TestStorage {
  [key: string]: unknown;

  constructor(most = Infinity) {
    const values = new Map<string, string>();
    const hidden = (name: string, value: unknown): void =>
      void Object.defineProperty(this, name, { value, enumerable: false });
    hidden('getItem', (key: string) => values.get(key) ?? null);
    hidden('removeItem', (key: string) => {
      values.delete(key);
      Reflect.deleteProperty(this, key);
    });
    hidden('setItem', (key: string, value: string) => {
      const others = [...values].reduce((n, [k, v]) => n + (k === key ? 0 : v.length), 0);
      if (others + value.length > most) throw new Error('no room');
      values.set(key, value);
      this[key] = value;
    });
  }
}
