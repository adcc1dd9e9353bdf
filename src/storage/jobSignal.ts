/** Tells other tabs of the same browser that a job was saved, so that none writes over what another did. */
export interface JobSignal {
  /** Called after a job was saved here. */
  tell(jobId: string): void;
  /** Calls back when a job was saved in another tab. Gives what ends it. */
  listen(heard: (jobId: string) => void): () => void;
  /** Whether no other tab is open: only then is what was deleted out of reach of every undo. */
  isAlone(): Promise<boolean>;
}

const CHANNEL = 'limner.jobs';
/** Held by every open tab (Web Locks API, W3C), for as long as it is open. */
const TAB_LOCK = 'limner.tab';

/** Between the tabs of one browser. */
export class TabSignal implements JobSignal {
  private readonly channel = new BroadcastChannel(CHANNEL);
  /** Settles once this tab holds its own lock. */
  private readonly held: Promise<void>;

  constructor() {
    const { locks } = navigator as { locks?: LockManager };
    this.held = locks === undefined ? Promise.resolve() : new Promise((resolve) => void locks.request(TAB_LOCK, { mode: 'shared' }, () => (resolve(), new Promise<void>(() => undefined))));
  }

  /** A browser without locks says no: nothing is lost by waiting. */
  async isAlone(): Promise<boolean> {
    const { locks } = navigator as { locks?: LockManager };
    if (locks === undefined) return false;
    await this.held;
    const { held = [] } = await locks.query();
    return held.filter(({ name }) => name === TAB_LOCK).length === 1;
  }

  tell(jobId: string): void {
    this.channel.postMessage(jobId);
  }

  listen(heard: (jobId: string) => void): () => void {
    const onMessage = ({ data }: MessageEvent<unknown>): void => {
      if (typeof data === 'string') heard(data);
    };
    this.channel.addEventListener('message', onMessage);
    return () => this.channel.removeEventListener('message', onMessage);
  }
}

/** Where there is only one tab; tests join several of these to stand for tabs. */
export class LocalSignal implements JobSignal {
  private readonly ears = new Set<(jobId: string) => void>();
  private others: readonly LocalSignal[] = [];

  async isAlone(): Promise<boolean> {
    return this.others.every((other) => other.ears.size === 0);
  }

  static joined(count: number): LocalSignal[] {
    const signals = Array.from({ length: count }, () => new LocalSignal());
    for (const signal of signals) signal.others = signals.filter((other) => other !== signal);
    return signals;
  }

  tell(jobId: string): void {
    for (const other of this.others) for (const heard of other.ears) heard(jobId);
  }

  listen(heard: (jobId: string) => void): () => void {
    this.ears.add(heard);
    return () => this.ears.delete(heard);
  }
}
