// After a change the focus is where the person is working: at the first mistake, else where it was, else on the next line;
// never on nothing. What has changed is said to those who do not see it.
import { stepOf } from './places.js';

const KEPT = 'worked-at';
const focusable = 'input:not([type="hidden"]):not(:disabled), select:not(:disabled), textarea:not(:disabled), button:not(:disabled), a[href], summary, [tabindex="0"]';

// Enough to find the place again when the page or a part of it was made anew.
const placeOf = (element) => {
    const row = element.closest('tr, li, article, section, form');
    return {
        id: element.id,
        name: element.name ?? '',
        value: element.matches('button, [type="checkbox"]') ? element.value : '',
        within: [...ancestors(element)].map((one) => one.id).filter(Boolean),
        row: row ? [...row.parentElement.children].indexOf(row) : -1,
    };
};

function* ancestors(element) {
    for (let one = element.parentElement; one && one !== document.body; one = one.parentElement) yield one;
}

const find = (place) => {
    const same = place.id && document.getElementById(place.id);
    if (same) return same;
    const home = place.within.map((id) => document.getElementById(id)).find(Boolean) ?? document.querySelector('main');
    const alike = place.name ? [...home.querySelectorAll(`[name="${CSS.escape(place.name)}"]`)].filter((one) => !place.value || one.value === place.value) : [];
    if (alike.length) return alike[Math.min(Math.max(place.row, 0), alike.length - 1)];
    const rows = [...home.querySelectorAll('tbody > tr:not([hidden])')];
    return (rows.length && place.row >= 0 && stepOf(rows[Math.min(place.row, rows.length - 1)])) || (home.matches(focusable) ? home : home.querySelector(focusable));
};

let workedAt = null;
document.addEventListener('focusin', (event) => { workedAt = event.target === document.body ? workedAt : placeOf(event.target); });

const lost = () => !document.activeElement || document.activeElement === document.body;
document.addEventListener('htmx:afterSettle', () => {
    if (lost() && workedAt) find(workedAt)?.focus({ preventScroll: true });
});

// A page that comes back after something was sent from it.
document.addEventListener('submit', (event) => {
    if (event.target.method === 'post' && workedAt) {
        sessionStorage.setItem(KEPT, JSON.stringify({ path: location.pathname, place: workedAt, top: document.querySelector('.work')?.scrollTop ?? 0 }));
    }
});
const comeBack = () => {
    const kept = JSON.parse(sessionStorage.getItem(KEPT) ?? 'null');
    sessionStorage.removeItem(KEPT);
    const wrong = document.querySelector('main [aria-invalid="true"]:not([type="hidden"])');
    const wanted = document.querySelector('main [autofocus]');
    if (wrong) {
        wrong.focus();
    } else if (wanted) {
        wanted.focus();
    } else if (kept?.path === location.pathname && lost()) {
        find(kept.place)?.focus({ preventScroll: true });
        document.querySelector('.work')?.scrollTo({ top: kept.top });
    }
};

// The strip, the why, how far something is, notes: said once, when they read differently.
const told = () => [...document.querySelectorAll('#strip > :first-child, #strip .aside, main .note, #bad-scans:not([hidden]) li:first-child, [data-say]')].filter((one) => !one.closest('#progress, #planning')).map((one) => one.textContent.trim().replace(/\s+/g, ' ')).filter(Boolean);
let before = [];
const tell = () => {
    const now = told();
    const fresh = now.filter((words) => !before.includes(words));
    before = now;
    if (fresh.length) document.querySelector('#said').textContent = fresh.join('. ');
};
document.addEventListener('htmx:afterSettle', tell);

export const start = () => {
    comeBack();
    before = told();
    // What a page begins with, a scan that was not taken say, is said once it can be heard.
    const first = [...document.querySelectorAll('main .note, #bad-scans[data-scan]:not([data-scan=""]) li:first-child')].map((one) => one.textContent.trim().replace(/\s+/g, ' '));
    if (first.length) setTimeout(() => { document.querySelector('#said').textContent = first.join('. '); }, 150);
};
