/** A finger on the table: CSS px. */
interface Finger {
  readonly x: number;
  readonly y: number;
}

/** What fingers do on a table. */
export interface TwoFingers {
  /** One finger presses, after it is known that it stays alone. */
  readonly press: (event: PointerEvent) => void;
  /** A press that had begun is none: a second finger came. */
  readonly abort: () => void;
  /** Two fingers: larger by a factor about a place, and moved. */
  readonly pinch: (factor: number, x: number, y: number, dx: number, dy: number) => void;
  readonly pointOf: (event: PointerEvent) => { readonly screenX: number; readonly screenY: number };
}

/** So long a finger is waited for, ms, or until it has moved so far, px: a second one would make it a gesture. */
const WAIT_MS = 90;
const STILL_PX = 5;

/** Tells one finger, which presses, from two, which zoom and move. Mouse and pen are none of it. */
export function useTwoFingers({ press, abort, pinch, pointOf }: TwoFingers) {
  const fingers = new Map<number, Finger>();
  let pending: PointerEvent | undefined;
  let pressed = false;
  let two = false;

  const placeOf = (event: PointerEvent): Finger => {
    const { screenX, screenY } = pointOf(event);
    return { x: screenX, y: screenY };
  };
  function begin(event: PointerEvent): void {
    if (pending !== event) return;
    [pending, pressed] = [undefined, true];
    press(event);
  }

  /** @returns whether the event is dealt with here. */
  function down(event: PointerEvent): boolean {
    if (event.pointerType !== 'touch') return false;
    fingers.set(event.pointerId, placeOf(event));
    if (fingers.size > 1) {
      if (pressed) abort();
      [pending, pressed, two] = [undefined, false, true];
    } else {
      pending = event;
      setTimeout(() => begin(event), WAIT_MS);
    }
    return true;
  }
  function move(event: PointerEvent): boolean {
    const before = fingers.get(event.pointerId);
    if (before === undefined) return false;
    const now = placeOf(event);
    if (!two) {
      if (pending !== undefined && Math.hypot(now.x - before.x, now.y - before.y) > STILL_PX) begin(pending);
      return pending !== undefined;
    }
    fingers.set(event.pointerId, now);
    const other = [...fingers].find(([id]) => id !== event.pointerId)?.[1];
    if (other === undefined) return true;
    const [was, is] = [Math.hypot(before.x - other.x, before.y - other.y), Math.hypot(now.x - other.x, now.y - other.y)];
    pinch(was > 1 ? is / was : 1, (now.x + other.x) / 2, (now.y + other.y) / 2, (now.x - before.x) / 2, (now.y - before.y) / 2);
    return true;
  }
  function up(event: PointerEvent): boolean {
    if (!fingers.delete(event.pointerId)) return false;
    if (two) {
      two = fingers.size > 0;
      return true;
    }
    if (pending !== undefined) begin(pending);
    pressed = false;
    return false;
  }
  return { down, move, up };
}
