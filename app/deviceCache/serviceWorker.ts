/**
 * Puts the app onto the device, so that it opens without a network. Only where the browser allows it: over a secure
 * address, or on the machine itself.
 */
export function installOnDevice(): void {
  if (process.env['NODE_ENV'] !== 'production' || typeof navigator === 'undefined') return;
  if (!('serviceWorker' in navigator) || !window.isSecureContext) return;
  const install = () => {
    void navigator.serviceWorker.register('/sw.js');
    // What is kept here must not be cleared to make room for something else.
    void navigator.storage?.persist?.();
  };
  // Not before the first screen is there: it comes first.
  if (document.readyState === 'complete') install();
  else addEventListener('load', install);
}
