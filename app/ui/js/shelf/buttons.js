// Buttons that open a dialog or copy a line.
document.addEventListener('click', (event) => {
  const copy = event.target.closest('[data-copy]');
  if (copy) navigator.clipboard.writeText(copy.dataset.copy).then(() => (copy.textContent = 'copied'));
  const opener = event.target.closest('[data-open]');
  if (opener) open(opener.dataset.open);
});
