import { z } from 'zod';
import type { AskRequest } from '$lib/machines/told';

const MOST_TARGETS = 2000;
const secret = z.string().max(20_000);
const user = z.string().min(1).max(200);
const address = z
  .string()
  .max(253)
  // Names and addresses, one at a time: no ranges, nothing that is scanned.
  .regex(/^(?:[A-Za-z0-9](?:[A-Za-z0-9._-]*[A-Za-z0-9])?|[0-9A-Fa-f:.]+(?:%[\w.-]+)?)$/);

const schema = z.strictObject({
  targets: z
    .array(z.strictObject({ address, port: z.int().min(1).max(65_535) }))
    .min(1)
    .max(MOST_TARGETS),
  credentials: z.union([
    z.strictObject({
      by: z.literal('ssh'),
      user,
      password: secret.optional(),
      key: secret.optional(),
      passphrase: secret.optional()
    }),
    z.strictObject({ by: z.literal('snmp'), community: secret.min(1) }),
    z.strictObject({
      by: z.literal('snmp'),
      user,
      authentication: secret.min(8).optional(),
      privacy: secret.min(8).optional()
    }),
    z.strictObject({ by: z.literal('redfish'), user, password: secret })
  ]),
  known: z.record(z.string().max(300), z.string().max(200))
});

/** What was asked; undefined where it is no such request. What is wrong with it is not said: it may hold what lets somebody in. */
export function readAsked(text: string): AskRequest | undefined {
  try {
    const read = schema.safeParse(JSON.parse(text));
    return read.success ? (read.data as AskRequest) : undefined;
  } catch {
    return undefined;
  }
}
