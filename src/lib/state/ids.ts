/**
 * A new id that no other tab can come upon as well. Ids of later entries sort behind those of earlier ones.
 *
 * @param stem says what it is of, as in `d` for decisions
 */
export function newId(stem: string): string {
  const random = crypto.getRandomValues(new Uint32Array(1))[0] ?? 0;
  return `${stem}${Date.now().toString(36)}-${random.toString(36)}`;
}
