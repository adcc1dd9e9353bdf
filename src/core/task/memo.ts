/** Results kept by key, the longest unused dropped first once they take more than the allowed bytes. */
export class Memo<Value> {
  private readonly entries = new Map<string, { readonly value: Value; readonly bytes: number }>();
  private usedBytes = 0;

  constructor(private readonly limitBytes: number) {}

  /** Whether a result is kept; asking does not count as use. */
  has(key: string): boolean {
    return this.entries.has(key);
  }

  get(key: string): Value | undefined {
    const entry = this.entries.get(key);
    if (entry === undefined) return undefined;
    this.entries.delete(key);
    this.entries.set(key, entry);
    return entry.value;
  }

  set(key: string, value: Value, bytes: number): void {
    this.drop(key);
    this.entries.set(key, { value, bytes });
    this.usedBytes += bytes;
    for (const oldest of this.entries.keys()) {
      if (this.usedBytes <= this.limitBytes || oldest === key) break;
      this.drop(oldest);
    }
  }

  get bytes(): number {
    return this.usedBytes;
  }

  private drop(key: string): void {
    const entry = this.entries.get(key);
    if (entry === undefined) return;
    this.entries.delete(key);
    this.usedBytes -= entry.bytes;
  }
}
