// Parts of the page that come anew.
// An answer to an earlier state of a form would take back what was chosen since; a later one is on its way.
let moment = 0;
const changed = new WeakMap();
const asked = new WeakMap();
['input', 'change'].forEach((kind) =>
  document.addEventListener(kind, (event) => {
    const form = event.target.closest('form[hx-post]');
    if (form) changed.set(form, ++moment);
  }, true));
document.addEventListener('htmx:beforeRequest', (event) => asked.set(event.detail.elt, ++moment));
document.addEventListener('htmx:beforeSwap', (event) => {
  const form = event.detail.requestConfig && event.detail.requestConfig.elt;
  if (form && changed.get(form) > asked.get(form)) event.detail.shouldSwap = false;
});

// A part of the page that comes anew keeps the focus where it was.
const within = (root) => $$('a[href], button, input:not([type=hidden]), select, textarea', root);
let focused = null;
document.addEventListener('htmx:beforeSwap', (event) => {
  const target = event.detail.target;
  const active = document.activeElement;
  if (!target || !target.id || !target.contains(active)) return;
  focused = { root: target.id, id: active.id, at: within(target).indexOf(active) };
});
document.addEventListener('htmx:afterSettle', () => {
  const root = focused && document.getElementById(focused.root);
  if (root && !root.contains(document.activeElement)) {
    const again = (focused.id && document.getElementById(focused.id)) || within(root)[focused.at] || root;
    again.focus();
  }
  focused = null;
});

// The plank stands at once as it stood on the page before, until it is fetched.
const plank = $('.plank[hx-get]');
const key = plank && 'plank ' + plank.dataset.units + plank.getAttribute('hx-get');
if (plank && sessionStorage.getItem(key)) plank.innerHTML = sessionStorage.getItem(key);
document.addEventListener('htmx:afterSwap', (event) => {
  if (!plank || event.detail.target !== plank) return;
  sessionStorage.setItem(key, plank.innerHTML);
  plank.dataset.fresh = 'true';
});

document.addEventListener('submit', (event) => {
  if (event.target.matches('form[action="/sign-out"]')) sessionStorage.clear();
});
