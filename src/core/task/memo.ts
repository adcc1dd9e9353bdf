import { LRUCache } from 'lru-cache';

interface Kept<Value> {
  readonly value: Value;
}

/** Results kept by key, the longest unused dropped first once they take more than the allowed bytes. The newest is kept however large it is. */
export class Memo<Value> {
  private readonly entries: LRUCache<string, Kept<Value>>;

  constructor(private readonly limitBytes: number) {
    this.entries = new LRUCache({ maxSize: limitBytes });
  }

  /** Whether a result is kept; asking does not count as use. */
  has(key: string): boolean {
    return this.entries.has(key);
  }

  get(key: string): Value | undefined {
    return this.entries.get(key)?.value;
  }

  set(key: string, value: Value, bytes: number): void {
    // One that is too large alone takes all the room, and no more than that.
    this.entries.set(key, { value }, { size: Math.max(1, Math.min(this.limitBytes, Math.ceil(bytes))) });
  }

  get bytes(): number {
    return this.entries.calculatedSize;
  }
}
