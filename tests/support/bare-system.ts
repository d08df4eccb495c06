import type { System } from '../../src/core/estate/schema';

/** A system of a made-up product on its first release, with nothing told of it but what it is linked with. */
export const bareSystem = (id: string, of: string, team: string, links: System['links'] = []): System =>
  ({
    id,
    name: id,
    team,
    product: { is: of },
    release: { is: `${of}0` },
    patch: { is: 'base' },
    edition: { is: 'only' },
    architecture: { is: 'only' },
    links
  }) as System;
