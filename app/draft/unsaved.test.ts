import { beforeEach, expect, it, test } from "@jest/globals";
import { dropUnsaved, keepUnsaved, readUnsaved } from "./unsaved";

/** A store as a browser has it, which can be full. */
class Shelf implements Storage {
  private readonly kept = new Map<string, string>();
  full = false;
  get length(): number {
    return this.kept.size;
  }
  clear = (): void => this.kept.clear();
  getItem = (key: string): string | null => this.kept.get(key) ?? null;
  key = (i: number): string | null => [...this.kept.keys()][i] ?? null;
  removeItem = (key: string): void => void this.kept.delete(key);
  setItem = (key: string, value: string): void => {
    if (this.full) throw new Error("quota exceeded");
    this.kept.set(key, value);
  };
}
let store: Shelf;
beforeEach(() => {
  store = new Shelf();
});

it("gives back what was typed on top of which save, each draft its own", () => {
  keepUnsaved("a", { version: 3, text: '{"x":1}' }, store);
  expect(readUnsaved("a", store)).toEqual({ version: 3, text: '{"x":1}' });
  expect(readUnsaved("b", store)).toBeNull();
  dropUnsaved("a", store);
  expect(readUnsaved("a", store)).toBeNull();
});

test.each(["", "null", "7", "[]", "{", '{"version":"1","text":"{}"}', '{"version":1,"text":"{"}'])(
  "what is no draft is not believed: %s",
  (text) => {
    keepUnsaved("a", { version: 1, text: "{}" }, store);
    store.setItem(store.key(0) ?? "", text);
    expect(readUnsaved("a", store)).toBeNull();
  },
);

it("a full store does not stop the typing", () => {
  store.full = true;
  expect(() => keepUnsaved("a", { version: 1, text: "{}" }, store)).not.toThrow();
});
