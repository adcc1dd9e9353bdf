/** One moment that undo can return to. `label` says what led to it. */
interface Moment<Value> {
  readonly value: Value;
  readonly label: string;
}

/**
 * Undo and redo without a limit over values that are never changed in place, so that moments share what they have in common.
 * While something is dragged, `preview` moves the present without a new moment; `commit` makes one of it, `revert` goes back to the mark.
 */
export class History<Value> {
  private readonly past: Moment<Value>[] = [];
  private readonly future: Moment<Value>[] = [];
  private mark: Moment<Value>;
  private now: Value;

  constructor(start: Value) {
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
    this.past.push(this.mark);
    this.mark = { value, label };
    this.future.length = 0;
  }

  undo(): boolean {
    this.revert();
    const before = this.past.pop();
    if (before === undefined) return false;
    this.future.push(this.mark);
    this.mark = before;
    this.now = before.value;
    return true;
  }

  redo(): boolean {
    this.revert();
    const after = this.future.pop();
    if (after === undefined) return false;
    this.past.push(this.mark);
    this.mark = after;
    this.now = after.value;
    return true;
  }
}
