// Before anything is drawn, so that a dark evening does not begin with a white flash.
(() => {
  const chosen = localStorage.getItem('jolly-rota.theme');
  const dark = matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme =
    chosen === 'daybreak' || chosen === 'nightwatch' ? chosen : dark ? 'nightwatch' : 'daybreak';

  // Paper is light: white ink on it would be read by nobody.
  const paper = matchMedia('print');
  let onScreen = '';
  paper.addEventListener('change', () => {
    if (paper.matches) onScreen = document.documentElement.dataset.theme;
    document.documentElement.dataset.theme = paper.matches ? 'daybreak' : onScreen;
  });
})();
