type Theme = 'system' | 'light' | 'dark';
const KEY = 'orange-stair settings';

interface Stored {
  readonly theme?: Theme;
  readonly singleKeys?: boolean;
  readonly oneLine?: boolean;
  readonly who?: string;
}

/** What belongs to this browser and not to the estate. */
class Settings {
  theme = $state<Theme>('system');
  /** Single-letter keys can be switched off. */
  singleKeys = $state(true);
  /** Rows of one line, 22 px; more than 50 situations always use it. */
  oneLine = $state(false);
  /** The name that decisions are kept with; undefined until it was asked for, empty where none is wanted. */
  who = $state<string | undefined>();

  load(): void {
    const stored = readStored();
    this.theme = stored.theme === 'light' || stored.theme === 'dark' ? stored.theme : 'system';
    this.singleKeys = stored.singleKeys !== false;
    this.oneLine = stored.oneLine === true;
    this.who = typeof stored.who === 'string' ? stored.who : undefined;
    this.#apply();
    // The system may turn dark in the evening.
    systemDark().onchange = () => this.#apply();
  }

  set(change: Stored): void {
    if (change.theme) this.theme = change.theme;
    if (change.singleKeys !== undefined) this.singleKeys = change.singleKeys;
    if (change.oneLine !== undefined) this.oneLine = change.oneLine;
    if (change.who !== undefined) this.who = change.who;
    localStorage.setItem(
      KEY,
      JSON.stringify({
        theme: this.theme,
        singleKeys: this.singleKeys,
        oneLine: this.oneLine,
        ...(this.who === undefined ? {} : { who: this.who })
      })
    );
    this.#apply();
  }

  #apply(): void {
    const dark = this.theme === 'dark' || (this.theme === 'system' && systemDark().matches);
    document.documentElement.classList.toggle('dark', dark);
  }
}

let darkQuery: MediaQueryList | undefined;
/** Whether the system is dark, kept so that it goes on telling. */
const systemDark = (): MediaQueryList => (darkQuery ??= matchMedia('(prefers-color-scheme: dark)'));

/** Unreadable settings are no settings. */
function readStored(): Stored {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Stored;
  } catch {
    return {};
  }
}

export const settings = new Settings();
