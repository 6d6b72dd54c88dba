// How a figure was found: shown beside it while it has the focus or the pointer, never cut off by what scrolls.
const ROOM = 8;
let explained = null;

function showWhy(figure) {
  if (explained === figure) return;
  hideWhy();
  explained = figure;
  figure.classList.add('open');
  placeWhy();
}

// Beside its figure, also after what lies around it was scrolled.
function placeWhy() {
  if (!explained) return;
  const why = $('.why', explained);
  const at = explained.getBoundingClientRect();
  const left = Math.min(Math.max(ROOM, at.right - why.offsetWidth), window.innerWidth - why.offsetWidth - ROOM);
  const below = at.bottom + why.offsetHeight + ROOM < window.innerHeight;
  why.style.left = left + 'px';
  why.style.top = (below ? at.bottom + 2 : Math.max(ROOM, at.top - why.offsetHeight - 2)) + 'px';
}

function hideWhy() {
  if (explained) explained.classList.remove('open');
  explained = null;
}

always(() =>
  $$('.fig').forEach((figure, number) => {
    const why = $('.why', figure);
    if (!why.id) why.id = 'why-' + number + '-' + Math.random().toString(36).slice(2, 8);
    figure.setAttribute('aria-describedby', why.id);
  }));

['focusin', 'pointerover'].forEach((kind) =>
  document.addEventListener(kind, (event) => {
    const figure = event.target.closest('.fig');
    if (figure) showWhy(figure);
    else if (kind === 'focusin' || !(explained && explained.contains(document.activeElement))) hideWhy();
  }));
document.addEventListener('focusout', (event) => {
  if (explained && explained.contains(event.target)) hideWhy();
});
document.addEventListener('scroll', placeWhy, true);
