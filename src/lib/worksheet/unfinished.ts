const KEY = 'orange-stair unfinished notes';

const all = (): Record<string, string> => {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, string>;
  } catch {
    return {};
  }
};

/** What was typed beside an item and not entered yet; over a reload, too. */
export const unfinishedNote = (item: string): string => {
  const note = all()[item];
  return typeof note === 'string' ? note : '';
};

/** Keeps it, or lets it go where it is empty. Storage that is full or barred keeps nothing; the page still has it. */
export function keepUnfinished(item: string, note: string): void {
  const { [item]: _old, ...others } = all();
  void _old;
  try {
    localStorage.setItem(KEY, JSON.stringify(note === '' ? others : { ...others, [item]: note }));
  } catch {
    return;
  }
}
