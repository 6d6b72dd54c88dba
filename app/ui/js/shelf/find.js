// The find box: a key that takes a result waits for the answer to what was typed last.
const box = $('#find');
let answered = null;
let wanted = null;

function take(use) {
  if (answered === box.value) use();
  else wanted = use;
}

if (box) {
  box.addEventListener('input', () => { wanted = null; });
  box.addEventListener('keydown', (event) => {
    if (event.key === 'ArrowDown') take(() => focusOn('#found a'));
    else if (event.key === 'Enter') take(() => press('#found a'));
    else return;
    event.preventDefault();
  });
  // Who has left the box in the meantime wants no answer any more.
  document.addEventListener('htmx:beforeSwap', (event) => {
    if (event.detail.target.id !== 'found') return;
    if (!document.activeElement?.closest('.find')) event.detail.shouldSwap = false;
  });
  document.addEventListener('htmx:afterSwap', (event) => {
    if (event.detail.target.id !== 'found') return;
    answered = event.detail.requestConfig.parameters.q;
    if (answered !== box.value || !wanted) return;
    wanted();
    wanted = null;
  });
}
