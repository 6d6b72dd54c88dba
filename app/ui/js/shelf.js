// Keys, tables, copying and the dialogs of the frame. Everything works without it, only slower.
(function () {
  'use strict';

  const $ = (selector, root) => (root || document).querySelector(selector);
  const $$ = (selector, root) => Array.from((root || document).querySelectorAll(selector));
  const typing = (target) => target.matches('input:not([type=checkbox]):not([type=radio]), textarea, select');

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
    if (event.target.id === 'find' && event.key === 'ArrowDown') {
      event.preventDefault();
      focusOn('#found a');
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

  document.addEventListener('click', (event) => {
    const copy = event.target.closest('[data-copy]');
    if (copy) {
      navigator.clipboard.writeText(copy.dataset.copy).then(() => (copy.textContent = 'copied'));
    }
    const opener = event.target.closest('[data-open]');
    if (opener) open(opener.dataset.open);
    const pick = event.target.closest('[data-pick]');
    if (pick) {
      const boxes = $$('input[type=checkbox]', pick.closest('fieldset')).filter((box) => box.dataset.size === pick.dataset.pick);
      check(boxes, boxes.some((box) => !box.checked));
    }
    const sorter = event.target.closest('th[data-sort] .sort');
    if (sorter) sort(sorter.closest('th'));
    const all = event.target.closest('[data-check-near]');
    if (all) {
      const boxes = $$('input[type=checkbox]', all.closest('fieldset'));
      check(boxes, boxes.some((box) => !box.checked));
    }
  });

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

  // Every table gives what it shows as CSV (RFC 4180), without rows that a filter hides.
  function offerCsv() {
    $$('main table').forEach((table) => {
      const frame = table.closest('.wide') || table;
      if (frame.nextElementSibling && frame.nextElementSibling.matches('.csv')) return;
      if (table.closest('.chart') || !$('tbody tr', table) || $('tbody input, tbody button', table)) return;
      const button = document.createElement('button');
      button.type = 'button';
      button.className = 'link quiet csv';
      button.textContent = 'CSV';
      button.title = 'What this table shows, as CSV';
      button.addEventListener('click', () => save(table));
      frame.after(button);
    });
  }

  function save(table) {
    const text = (cell) => {
      const figure = $('.fig > span', cell);
      const said = (figure || cell).textContent.replace(/\s+/g, ' ').trim();
      // What a spreadsheet would take for a formula is plain text; figures with a sign stay figures.
      const formula = /^'*[=+\-@＝＋－＠]/.test(said) && !/^[+-][\d.,]+$/.test(said);
      return '"' + (formula ? "'" : '') + said.replace(/"/g, '""') + '"';
    };
    const lines = Array.from(table.rows)
      .filter((row) => !row.hidden)
      .map((row) => Array.from(row.cells).map(text).join(','));
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([lines.join('\r\n') + '\r\n'], { type: 'text/csv' }));
    link.download = (document.title.split(' · ')[0] || 'table').replace(/[^A-Za-z0-9._-]+/g, '-') + '.csv';
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
  }
  offerCsv();
  document.addEventListener('htmx:afterSwap', offerCsv);

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

  // What a table can be sorted by is a button, so that it can be reached by key.
  function sortable() {
    $$('th[data-sort]').forEach((head) => {
      if ($('.sort', head) || !head.textContent.trim()) return;
      const button = document.createElement('button');
      button.type = 'button';
      button.className = 'sort';
      button.append(...head.childNodes);
      head.append(button);
    });
  }
  sortable();
  document.addEventListener('htmx:afterSwap', sortable);

  // What can be scrolled can be reached by key.
  function reachable() {
    $$('.wide').forEach((wide) => {
      if (wide.scrollWidth > wide.clientWidth) wide.tabIndex = 0;
      else wide.removeAttribute('tabindex');
    });
  }
  reachable();
  document.addEventListener('htmx:afterSwap', reachable);
  window.addEventListener('resize', reachable);

  function check(boxes, on) {
    boxes.forEach((box) => (box.checked = on));
    if (boxes.length) boxes[0].dispatchEvent(new Event('change', { bubbles: true }));
  }

  // Dragging across bays gives them all the state that the first one gets.
  let dragged = null;
  document.addEventListener('pointerdown', (event) => {
    const bay = event.target.closest('.bay-choice');
    if (bay) dragged = { first: $('input', bay), on: !$('input', bay).checked, moved: false };
  });
  document.addEventListener('pointerover', (event) => {
    const bay = dragged && event.target.closest('.bay-choice');
    if (!bay || $('input', bay) === dragged.first) return;
    dragged.moved = true;
    $('input', bay).checked = dragged.on;
  });
  document.addEventListener('pointerup', () => {
    if (dragged && dragged.moved) check([dragged.first], dragged.on);
    dragged = null;
  });

  function sort(head) {
    const table = head.closest('table');
    const column = Array.from(head.parentNode.children).indexOf(head);
    const down = head.getAttribute('aria-sort') === 'ascending';
    $$('th', table).forEach((other) => other.removeAttribute('aria-sort'));
    head.setAttribute('aria-sort', down ? 'descending' : 'ascending');
    const value = (row) => {
      const cell = row.children[column];
      const text = cell ? cell.dataset.value || cell.textContent.trim() : '';
      const number = Number(text.replace(/,/g, '').replace(/\s*%$/, ''));
      return text !== '' && !Number.isNaN(number) ? number : text;
    };
    const body = $('tbody', table);
    const rows = Array.from(body.rows).sort((a, b) => {
      const x = value(a);
      const y = value(b);
      const order = typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y));
      return down ? -order : order;
    });
    body.append(...rows);
  }

  document.addEventListener('input', (event) => {
    const filter = event.target.closest('[data-filter]');
    if (!filter) return;
    const text = filter.value.toLowerCase();
    $$(filter.dataset.filter + ' tbody tr').forEach((row) => {
      row.hidden = !row.textContent.toLowerCase().includes(text);
    });
  });
})();
