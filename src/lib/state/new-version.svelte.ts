const CHECK_EACH_MS = 3_600_000;

/** A newer version of the application than the one on the screen: taken when somebody says so, never by itself. */
class NewVersion {
  /** It is there and waits. */
  isWaiting = $state(false);
  /** It was taken on another tab; this one shows it once it is loaded anew. */
  isTaken = $state(false);
  #registration: ServiceWorkerRegistration | undefined;
  /** This tab has said so. */
  #said = false;

  /** Looks for newer versions from now on: each hour, and when the page comes into sight. Returns the way to stop. */
  follow(): () => void {
    const { serviceWorker } = navigator;
    if (!serviceWorker) return () => undefined;
    let controlled = serviceWorker.controller !== null;
    const changed = (): void => {
      if (controlled && this.#said) location.reload();
      else if (controlled) this.isTaken = true;
      controlled = true;
    };
    const look = (): void => {
      if (document.visibilityState === 'visible') void this.#registration?.update().catch(() => undefined);
    };
    serviceWorker.addEventListener('controllerchange', changed);
    document.addEventListener('visibilitychange', look);
    const timer = setInterval(look, CHECK_EACH_MS);
    void serviceWorker.ready.then((registration) => this.#watch(registration));
    return () => {
      serviceWorker.removeEventListener('controllerchange', changed);
      document.removeEventListener('visibilitychange', look);
      clearInterval(timer);
    };
  }

  /** Takes it: this tab is loaded anew with it. */
  take(): void {
    this.#said = true;
    const waiting = this.#registration?.waiting;
    if (waiting) waiting.postMessage({ take: true });
    else location.reload();
  }

  #watch(registration: ServiceWorkerRegistration): void {
    this.#registration = registration;
    this.isWaiting = registration.waiting !== null;
    const follow = (): void =>
      registration.installing?.addEventListener('statechange', () => {
        this.isWaiting = registration.waiting !== null && navigator.serviceWorker.controller !== null;
      });
    registration.addEventListener('updatefound', follow);
    // One may be on its way already.
    follow();
  }
}

export const newVersion = new NewVersion();
