// What every part uses. All parts are joined in one function, so that nothing of them is global.
const $ = (selector, root) => (root || document).querySelector(selector);
const $$ = (selector, root) => Array.from((root || document).querySelectorAll(selector));
const typing = (target) => target.matches('input:not([type=checkbox]):not([type=radio]), textarea, select');

document.documentElement.classList.add('scripted');

// Does something now, and again whenever a part of the page has come anew.
function always(deed) {
  deed();
  document.addEventListener('htmx:afterSwap', deed);
}

// What a cell says, without how its figure was found.
function said(cell) {
  return ($('.fig > span', cell) || cell).textContent.replace(/\s+/g, ' ').trim();
}
