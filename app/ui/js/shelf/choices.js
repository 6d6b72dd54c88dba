// Choosing a range of rows: with the shift key, all between the last one and this one get its state.
let chosenLast = null;
document.addEventListener('click', (event) => {
  const box = event.target.closest('tbody input[type=checkbox]');
  if (!box) return;
  const boxes = $$('input[type=checkbox]', box.closest('tbody'));
  const from = boxes.indexOf(chosenLast);
  const to = boxes.indexOf(box);
  if (event.shiftKey && from >= 0) {
    boxes.slice(Math.min(from, to), Math.max(from, to) + 1).forEach((other) => (other.checked = box.checked));
  }
  chosenLast = box;
});
