// Choosing drives: one by one, all of a kind, or by dragging across them.
document.addEventListener('click', (event) => {
  const pick = event.target.closest('[data-pick], [data-check-near]');
  if (!pick) return;
  const kind = pick.dataset.pick;
  const boxes = $$('input[type=checkbox]', pick.closest('fieldset')).filter((box) => !kind || box.dataset.size === kind);
  check(boxes, boxes.some((box) => !box.checked));
});

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
