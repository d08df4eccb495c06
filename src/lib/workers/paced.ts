import type { Result } from '$core/kit';

const PROGRESS_EVERY_MS = 40;

/** How far something is that is looked into. */
export interface LookProgress {
  readonly done: number;
  readonly of: number;
}

/** How long work is gone about beside other work of the same worker. */
export interface Pace<P> {
  readonly tell: (progress: P) => void;
  /** Something newer has been asked for. */
  readonly isOver: () => boolean;
  /** Something else goes before it just now. */
  readonly mustWait?: () => boolean;
  /** What else is done at a pause, before it goes on. */
  readonly meanwhile?: (progress: P) => Promise<void>;
}

/** Goes on step by step, telling how far it is and letting others in; `superseded` where something newer has been asked for. */
export async function paced<P, T>(
  steps: Generator<P, T>,
  { tell, isOver, mustWait = () => false, meanwhile }: Pace<P>
): Promise<Result<T>> {
  let paused = performance.now();
  for (let next = steps.next(); ; next = steps.next()) {
    if (next.done) return { ok: true, value: next.value };
    if (performance.now() - paused <= PROGRESS_EVERY_MS) continue;
    tell(next.value);
    do await new Promise((done) => setTimeout(done));
    while (mustWait());
    if (!isOver()) await meanwhile?.(next.value);
    if (isOver()) return { ok: false, issues: [{ code: 'superseded' }] };
    paused = performance.now();
  }
}
