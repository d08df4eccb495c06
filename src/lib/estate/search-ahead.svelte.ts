/** So many are made before it is asked again whether there is time. */
const AT_ONCE = 200;

/**
 * Makes what systems are found by while nothing else is to be done, so that it is there when somebody comes to look. Where a browser does not tell
 * when that is, it is made then. Called while a component is set up.
 *
 * @param systems what to make it of; anything `make` reads is to be read here as well
 */
export function searchAhead<T>(systems: () => readonly T[], make: (system: T) => void): void {
  $effect(() => {
    const list = systems();
    const idle = globalThis as { readonly requestIdleCallback?: typeof requestIdleCallback };
    if (!idle.requestIdleCallback) return undefined;
    let done = 0;
    const goOn = (time: IdleDeadline): void => {
      while (done < list.length && time.timeRemaining() > 1) {
        list.slice(done, done + AT_ONCE).forEach(make);
        done += AT_ONCE;
      }
      if (done < list.length) handle = requestIdleCallback(goOn);
    };
    let handle = requestIdleCallback(goOn);
    return () => cancelIdleCallback(handle);
  });
}
