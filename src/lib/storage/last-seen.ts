const KEY = 'orange-stair last seen';

/** What a workspace had when it was last on a screen: told where the browser has let go of it since. */
export interface LastSeen {
  readonly systems: number;
  /** ISO day. */
  readonly day: string;
}

/** Kept apart from what it speaks of, where a browser that runs out of room does not look first. Unreadable is nothing. */
function read(): Record<string, LastSeen> {
  try {
    return (JSON.parse(localStorage.getItem(KEY) ?? '{}') ?? {}) as Record<string, LastSeen>;
  } catch {
    return {};
  }
}

function write(all: Record<string, LastSeen>): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(all));
  } catch {
    // Only a help; nothing hangs on it.
  }
}

export const lastSeen = (workspace: string): LastSeen | undefined => read()[workspace];

/** Notes what a workspace has; one with nothing in it is forgotten. */
export function noteSeen(workspace: string, seen: LastSeen): void {
  const all = read();
  const { systems, day } = all[workspace] ?? {};
  if (seen.systems === (systems ?? 0) && (seen.day === day || seen.systems === 0)) return;
  if (seen.systems > 0) all[workspace] = seen;
  else delete all[workspace];
  write(all);
}
