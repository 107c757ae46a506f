// Before anything is drawn, so that a dark evening does not begin with a white flash.
(() => {
  const chosen = localStorage.getItem('jolly-rota.theme');
  const dark = matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme =
    chosen === 'daybreak' || chosen === 'nightwatch' ? chosen : dark ? 'nightwatch' : 'daybreak';
})();
