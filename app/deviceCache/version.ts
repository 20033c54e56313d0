/** Which build of the app this page is; null in development, where it is always the newest. */
function ownBuild(): string | null {
  if (typeof document === 'undefined') return null;
  return document.querySelector('meta[name="build"]')?.getAttribute('content') ?? null;
}

/** Under this a tab remembers which build it reloaded for: a page that comes from elsewhere is not asked for again. */
const RELOADED_FOR = 'reloaded-for';

/** Whether this page is of another build than the server's, and reloading was not tried for that one. */
export function isOutdated(served: string | null | undefined): boolean {
  const own = ownBuild();
  if (!served || own === null || own === served) return false;
  try {
    return sessionStorage.getItem(RELOADED_FOR) !== served;
  } catch {
    return true;
  }
}

/** How long the new app may take to come onto the device. */
const INSTALL_MS = 15_000;

/** Has the device take the new app, and opens the page with it. */
export async function takeNewVersion(served: string): Promise<void> {
  try {
    sessionStorage.setItem(RELOADED_FOR, served);
  } catch {
    // Without a memory of its own the tab reloads all the same.
  }
  const registration = await navigator.serviceWorker?.getRegistration().catch(() => undefined);
  if (registration) {
    const taken = new Promise<void>((resolve) => {
      navigator.serviceWorker.addEventListener('controllerchange', () => resolve(), { once: true });
      setTimeout(resolve, INSTALL_MS);
    });
    await registration.update().catch(() => undefined);
    if (registration.installing ?? registration.waiting) await taken;
  }
  location.reload();
}
