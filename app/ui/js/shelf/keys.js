// Keys: the verbs, what the page composes, and the rows of tables.
const keys = {
  '/': () => $('#find') && $('#find').focus(),
  u: () => press('.units [aria-pressed=false]'),
  '.': () => open('#time'),
  '?': () => open('#keys'),
  c: () => compose(),
  d: () => focusOn('#drawer'),
  e: () => explain(),
};

function press(selector) {
  const target = $(selector);
  if (target) target.click();
}

// Goes to what this page composes; where that is a form, to its first field and not past it.
function compose() {
  const target = $('[data-compose]');
  if (!target) return;
  const form = target.closest('form');
  const field = form && $('input:not([type=hidden]), select, textarea', form);
  if (field) field.focus();
  else target.click();
}

function open(selector) {
  const dialog = $(selector);
  if (dialog && !dialog.open) dialog.showModal();
}

function focusOn(selector) {
  const target = $(selector);
  if (target) target.focus();
}

function explain() {
  const figures = $$('.fig');
  if (!figures.length) return;
  const at = figures.indexOf(document.activeElement);
  figures[(at + 1) % figures.length].focus();
}

document.addEventListener('keydown', (event) => {
  if (event.key === 'Escape') {
    hideWhy();
    const found = $('#found');
    if (found) found.replaceChildren();
    if (typing(event.target)) event.target.blur();
    return;
  }
  if (event.altKey && /^[1-9]$/.test(event.key)) {
    event.preventDefault();
    press('.verbs [data-key="' + event.key + '"]');
    return;
  }
  if (event.ctrlKey && event.key === 'Enter' && $('#carry-out') && !$('dialog[open]')) {
    $('#carry-out').click();
    return;
  }
  if ((event.key === 'ArrowDown' || event.key === 'ArrowUp') && !event.target.closest('.plank, dialog')) {
    step(event);
    return;
  }
  if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey || $('dialog[open]')) return;
  if (keys[event.key]) {
    event.preventDefault();
    keys[event.key]();
  }
});

// Arrows move between the links of found results and of table rows.
function step(event) {
  if (typing(event.target) || event.target.matches('[type=radio]')) return;
  const list = event.target.closest('#found')
    ? $$('#found a')
    : $$('main table tbody tr:not([hidden])').map((row) => $('a, button, input', row)).filter(Boolean);
  if (!list.length) return;
  const row = event.target.closest('tr');
  const at = list.findIndex((link) => link === event.target || (row && row.contains(link)));
  const next = list[at + (event.key === 'ArrowDown' ? 1 : -1)] || (at < 0 ? list[0] : null);
  if (next) {
    event.preventDefault();
    next.focus();
  }
}
