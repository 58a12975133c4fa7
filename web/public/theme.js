// Before the first paint, so that a night bench is never lit up by a white page; parts/theme.ts goes on from here.
(() => {
  let chosen = null;
  try {
    chosen = localStorage.getItem('blunko.theme');
  } catch {
    // A browser that keeps nothing is asked what it prefers.
  }
  const night = chosen ? chosen === 'night' : matchMedia('(prefers-color-scheme: dark)').matches;
  const page = document.documentElement.dataset;
  page.chosen = night ? 'night' : 'daylight';
  // The bench is always dark.
  page.theme = /^\/pours\/[^/]+\/bench$/.test(location.pathname) ? 'night' : page.chosen;
})();
