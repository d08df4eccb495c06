const RECENT = 'orange-stair recent';
const MOST_RECENT = 8;

/** Remembers that this tab was at a place. */
export function visit(path: string, title: string): void {
  const name = title.replace(/ - Orange Stair$/, '');
  const list = [{ path, name }, ...recents().filter((r) => r.path !== path)].slice(0, MOST_RECENT);
  try {
    sessionStorage.setItem(RECENT, JSON.stringify(list));
  } catch {
    // A tab that may keep nothing remembers nothing.
  }
}

/** Where this tab was last, latest first. */
export function recents(): readonly { readonly path: string; readonly name: string }[] {
  try {
    const list: unknown = JSON.parse(sessionStorage.getItem(RECENT) ?? '[]');
    return Array.isArray(list)
      ? (list as { path: string; name: string }[]).filter((r) => r.path.startsWith('/'))
      : [];
  } catch {
    return [];
  }
}
