/** Where a system stands: ids of the catalogue. */
export interface Standing {
  readonly release: string;
  readonly patch: string;
  readonly edition: string;
  readonly architecture: string;
}
