/** One moment that undo can return to. `label` says what led to it. */
interface Moment<Value> {
  readonly value: Value;
  readonly label: string;
}

/** How a moment is kept: as it differs from the one that is a step nearer to the present. */
export interface Lean<Value, Kept> {
  readonly kept: (value: Value, beside: Value) => Kept;
  readonly whole: (kept: Kept, beside: Value) => Value;
}

/**
 * Undo and redo without a limit over values that are never changed in place, so that moments share what they have in common; of what is large and changes as
 * a whole they keep what differs.
 * While something is dragged, `preview` moves the present without a new moment; `commit` makes one of it, `revert` goes back to the mark.
 */
export class History<Value, Kept = Value> {
  private readonly past: Moment<Kept>[] = [];
  private readonly future: Moment<Kept>[] = [];
  private mark: Moment<Value>;
  private now: Value;

  constructor(
    start: Value,
    private readonly lean: Lean<Value, Kept>,
  ) {
    this.mark = { value: start, label: '' };
    this.now = start;
  }

  get present(): Value {
    return this.now;
  }

  /** What undo would take back, undefined when there is nothing. */
  get undoLabel(): string | undefined {
    return this.past.length === 0 ? undefined : this.mark.label;
  }

  get redoLabel(): string | undefined {
    return this.future.at(-1)?.label;
  }

  preview(value: Value): void {
    this.now = value;
  }

  revert(): void {
    this.now = this.mark.value;
  }

  /** Makes the given value (or what was previewed) the next moment. What could be redone is gone then. */
  commit(label: string, value: Value = this.now): void {
    this.now = value;
    if (value === this.mark.value) return;
    this.past.push(this.leanMark(value));
    this.mark = { value, label };
    this.future.length = 0;
  }

  undo(): boolean {
    return this.move(this.past, this.future);
  }

  redo(): boolean {
    return this.move(this.future, this.past);
  }

  private move(from: Moment<Kept>[], to: Moment<Kept>[]): boolean {
    this.revert();
    const next = from.pop();
    if (next === undefined) return false;
    const value = this.lean.whole(next.value, this.mark.value);
    to.push(this.leanMark(value));
    this.mark = { value, label: next.label };
    this.now = value;
    return true;
  }

  private leanMark(beside: Value): Moment<Kept> {
    return { value: this.lean.kept(this.mark.value, beside), label: this.mark.label };
  }
}

/** Moments that are kept as they are. */
export const asItIs = <Value>(): Lean<Value, Value> => ({ kept: (value) => value, whole: (kept) => kept });
