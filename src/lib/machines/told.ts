/** How machines can be asked. */
export const PROTOCOLS = ['ssh', 'snmp', 'redfish'] as const;
export type Protocol = (typeof PROTOCOLS)[number];
export const PROTOCOL_NAMES: Readonly<Record<Protocol, string>> = {
  ssh: 'SSH',
  snmp: 'SNMP',
  redfish: 'Redfish'
};

/** One machine to be asked, without what lets anybody in. */
export interface Target {
  readonly address: string;
  readonly port: number;
}

/** What lets the asker in: it travels with the request, and is kept nowhere. */
export type Credentials =
  | {
      readonly by: 'ssh';
      readonly user: string;
      readonly password?: string;
      readonly key?: string;
      readonly passphrase?: string;
    }
  | { readonly by: 'snmp'; readonly community: string }
  | {
      readonly by: 'snmp';
      readonly user: string;
      readonly authentication?: string;
      readonly privacy?: string;
    }
  | { readonly by: 'redfish'; readonly user: string; readonly password: string };

/** What the route takes. */
export interface AskRequest {
  readonly targets: readonly Target[];
  readonly credentials: Credentials;
  /** Host keys and certificates that somebody has seen and taken, by `by address:port`. */
  readonly known: Readonly<Record<string, string>>;
}

/** Why a machine said nothing. */
export type Silence =
  | 'no route'
  | 'refused'
  | 'wrong key'
  | 'timed out'
  | 'says nothing'
  | 'says too much'
  | 'not understood'
  | 'new key'
  | 'changed key'
  | 'stopped';

/** What became of one machine; `at`: its place in the request. Keys are fingerprints (SHA-256). */
export type Told =
  | { readonly at: number; readonly record: string; readonly key?: string }
  | { readonly at: number; readonly silence: Silence; readonly key?: string; readonly before?: string };

/** The name a host key is remembered under. */
export const keyName = (by: Protocol, { address, port }: Target): string => `${by} ${address}:${port}`;
