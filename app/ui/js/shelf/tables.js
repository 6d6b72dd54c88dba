// Tables: sorting, filtering, scrolling by key, and CSV of what they show.
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
    const words = said(cell);
    // What a spreadsheet would take for a formula is plain text; figures with a sign stay figures.
    const formula = /^'*[=+\-@＝＋－＠]/.test(words) && !/^[+-][\d.,]+$/.test(words);
    return '"' + (formula ? "'" : '') + words.replace(/"/g, '""') + '"';
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
always(offerCsv);

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
always(sortable);

// What can be scrolled can be reached by key.
function reachable() {
  $$('.wide').forEach((wide) => {
    if (wide.scrollWidth > wide.clientWidth) wide.tabIndex = 0;
    else wide.removeAttribute('tabindex');
  });
}
always(reachable);
window.addEventListener('resize', reachable);

document.addEventListener('click', (event) => {
  const sorter = event.target.closest('th[data-sort] .sort');
  if (sorter) sort(sorter.closest('th'));
});

function sort(head) {
  const table = head.closest('table');
  const column = Array.from(head.parentNode.children).indexOf(head);
  const down = head.getAttribute('aria-sort') === 'ascending';
  $$('th', table).forEach((other) => other.removeAttribute('aria-sort'));
  head.setAttribute('aria-sort', down ? 'descending' : 'ascending');
  const value = (row) => {
    const cell = row.children[column];
    const text = cell ? cell.dataset.value || said(cell) : '';
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
