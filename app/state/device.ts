/** A name for this device, kept by its browser, so that the journal can tell devices apart. */
export function deviceName(): string {
  try {
    const known = localStorage.getItem('device');
    if (known) return known;
    const made = `device-${randomKey().slice(0, 6)}`;
    localStorage.setItem('device', made);
    return made;
  } catch {
    return 'browser';
  }
}

/** A key that no other request has. Works on plain HTTP too, where `crypto.randomUUID` does not. */
export function randomKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, '0')).join('');
}
