/** A standing as list places of the product's model. */
export interface Place {
  readonly release: number;
  readonly patch: number;
  readonly edition: number;
  readonly architecture: number;
}

/** A place without its patch level as one text, equal for equal targets. */
export const targetKey = (place: Omit<Place, 'patch'>): string =>
  `${place.release} ${place.edition} ${place.architecture}`;

/** The place of a machine on which nothing is installed; its edition and architecture mean nothing. */
export const NOTHING = -1;
