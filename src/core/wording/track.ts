import type { OnTrack } from '../catalogue';

const LEAVING: Readonly<Record<OnTrack['leaving'], string>> = {
  'at the general release': 'left when the general release comes',
  'fresh install': 'with no way out but a fresh install',
  'no way out': 'with no way out at all'
};

/** How a preview track is left, before one steps onto it or once one stands there. */
export const sayTrack = ({ name, leaving, forfeits }: OnTrack): string =>
  `a preview, ${name}, ${LEAVING[leaving]}${forfeits ? `; ${forfeits}` : ''}`;
