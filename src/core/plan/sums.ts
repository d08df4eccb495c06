import { isCounted, type Route } from '../route';

/**
 * What nobody has put a figure to on a way: prices that are to be asked for, since it is published that there is something to pay, and steps of
 * which nobody has said that they cost anything, nor that they are free.
 */
export function sumsOf(route: Route | undefined): { readonly toAsk: number; readonly unstated: number } {
  const steps = route?.steps.filter(isCounted) ?? [];
  const unstated = steps.filter((s) => s.right.kind === 'ask' && s.right.right === undefined).length;
  const all = route?.unknownSums.length ?? 0;
  return { toAsk: Math.max(0, all - unstated), unstated: Math.min(all, unstated) };
}
