/** Keeps the shell of the pages in the browser, where the browser allows it: over https, or on the machine itself. */
export function keepShell(): void {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  // After the first view is drawn: what is needed now comes first.
  window.addEventListener('load', () => {
    navigator.serviceWorker.register('/sw.js').catch((error: unknown) => {
      // Over a certificate that the tablet does not trust a browser refuses; everything else works.
      console.warn('The shell is not kept in this browser.', error);
    });
  });
}
