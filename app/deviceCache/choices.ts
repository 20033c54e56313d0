/** A choice of this device, as its bench or its sound. */
export function remember(name: string, value: string): void {
  try {
    localStorage.setItem(name, value);
  } catch {
    // A browser without storage forgets; everything else works.
  }
}

export function remembered(name: string): string | null {
  try {
    return localStorage.getItem(name);
  } catch {
    return null;
  }
}
