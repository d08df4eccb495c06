import type { Credentials, Protocol, Target } from './told';

/** The port a protocol is asked at where none is said. */
export const USUAL_PORT: Readonly<Record<Protocol, number>> = { ssh: 22, snmp: 161, redfish: 443 };

export interface ReadTargets {
  readonly targets: readonly Target[];
  /** Lines that are no address. */
  readonly amiss: readonly string[];
}

/** A line an address: `rack-7`, `10.1.2.3:2222`, `[fe80::1]:22`. Ranges and masks are no addresses: nothing is scanned. */
export function readTargets(text: string, by: Protocol): ReadTargets {
  const targets: Target[] = [];
  const amiss: string[] = [];
  for (const line of text.split(/[\r\n,;]+/).map((l) => l.trim())) {
    if (line === '' || line.startsWith('#')) continue;
    const [, bracketed, plain, said] =
      /^(?:\[([0-9A-Fa-f:.%\w]+)\]|([^\s:[\]/]+|[0-9A-Fa-f:]*::[0-9A-Fa-f:.]*))(?::(\d{1,5}))?$/.exec(line) ??
      [];
    const address = bracketed ?? plain;
    const port = said === undefined ? USUAL_PORT[by] : Number(said);
    if (address === undefined || port < 1 || port > 65_535 || /[*?]/.test(address)) amiss.push(line);
    else if (!targets.some((t) => t.address === address && t.port === port)) targets.push({ address, port });
  }
  return { targets, amiss };
}

/** How a machine was asked, as it is kept with it: nothing in it lets anybody in. */
export const sayAsked = (way: Credentials, { address, port }: Target): string =>
  `${way.by} ${address.includes(':') ? `[${address}]` : address}:${port}${'user' in way ? ` as ${way.user}` : ''}`;

/** What `sayAsked` said; undefined where a text is nothing of the kind. */
export function readAskedOver(
  text: string | undefined
): { readonly by: Protocol; readonly target: Target; readonly user?: string } | undefined {
  const [, by, rest, user] = /^(ssh|snmp|redfish) (\S+)(?: as (.+))?$/.exec(text ?? '') ?? [];
  const [target] = rest === undefined ? [] : readTargets(rest, by as Protocol).targets;
  return target && { by: by as Protocol, target, ...(user === undefined ? {} : { user }) };
}
