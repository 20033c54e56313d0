const NAME = 'for-site';

/**
 * Another site than one's own that this screen works for; the session, and every other screen, stay where they are.
 * Kept with the tab, so that a reload does not change it unseen.
 */
let site: string | null = read();

function read(): string | null {
  try {
    return sessionStorage.getItem(NAME);
  } catch {
    return null;
  }
}

export const forSite = (): string | null => site;

export function workFor(id: string | null): void {
  site = id;
  try {
    if (id === null) sessionStorage.removeItem(NAME);
    else sessionStorage.setItem(NAME, id);
  } catch {
    // Without storage it lasts until the next reload.
  }
}
