/** Milliseconds by stage. */
export class Timings {
  private readonly entries = new Map<string, number>();

  /** Runs `work` and adds its time to the stage `name`. */
  async measure<Result>(name: string, work: () => Result | Promise<Result>): Promise<Result> {
    const start = performance.now();
    try {
      return await work();
    } finally {
      this.entries.set(name, (this.entries.get(name) ?? 0) + performance.now() - start);
    }
  }

  /** `NAME_ms=NUMBER`, one a line. */
  lines(): string {
    return [...this.entries].map(([name, ms]) => `${name}_ms=${ms.toFixed(1)}\n`).join('');
  }

  get record(): Record<string, number> {
    return Object.fromEntries([...this.entries].map(([name, ms]) => [name, Math.round(ms * 10) / 10]));
  }
}
