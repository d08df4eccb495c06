/** Made by scripts/handbook.mjs of docs/*.md. */
declare module 'virtual:handbook' {
  export interface Chapter {
    /** The file it stands in, without its ending. */
    readonly doc: 'handbook' | 'conditions' | 'formats' | 'reckoning';
    readonly title: string;
    readonly html: string;
    readonly text: string;
    /** Paths it belongs to. */
    readonly at: readonly string[];
    /** Words on a screen that it explains. */
    readonly words: readonly string[];
  }
  const chapters: readonly Chapter[];
  export default chapters;
}
