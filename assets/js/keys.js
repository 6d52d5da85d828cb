// The keys every page has. Which they are stands in the list of keys that "?" shows, with the person's own choice.
import { dialogOpen, go, scroller, stepOf, steps, typing } from './places.js';
import { closeMenus } from './menus.js';

const PAGE = 0.9;
const WAIT_FOR_LETTER = 1500;
let going = false;

const actOf = (event) => {
    const rows = [...document.querySelectorAll('[data-act]')];
    if (event.ctrlKey || event.metaKey) return undefined;
    if (event.altKey) return rows.find((row) => event.code === `Key${row.dataset.alt.toUpperCase()}`)?.dataset.act;
    // Where scans are taken, letters and digits are scans.
    const scanned = document.querySelector('#scan') && /^[a-z0-9]$/i.test(event.key);
    return typing(event.target) || scanned ? undefined : rows.find((row) => row.dataset.own && row.dataset.own === event.key.toLowerCase())?.dataset.act;
};

const why = () => document.querySelector('#why');
const rowOfWhy = () => document.getElementById(why()?.querySelector('[data-of]')?.dataset.of);

const toTheRow = () => {
    const row = rowOfWhy();
    const step = row && stepOf(row);
    if (step) go(step);
};

const ACTS = {
    Find: () => document.querySelector('#find')?.focus(),
    Help: () => document.querySelector('#key-help')?.showModal(),
    Go: () => {
        going = true;
        setTimeout(() => { going = false; }, WAIT_FOR_LETTER);
    },
    New: () => document.querySelector('#new-order')?.click(),
    Rows: () => { if (steps()[0]) go(steps()[0]); },
    Why: () => (why()?.contains(document.activeElement) ? toTheRow() : why()?.focus()),
    // Only the row one is in, or whose why one reads.
    Skip: () => {
        const skip = why()?.querySelector('[data-skip]');
        const here = document.activeElement;
        if (skip && (why().contains(here) || rowOfWhy()?.contains(here))) skip.form.requestSubmit(skip);
    },
};

// A field of a form that does something else than the strip.
const belongsToAnother = (element, next) => typing(element) && element.form && element.form !== next.form && element.form.method === 'post';

// Once for each press, never from a field of another action, never behind a dialog.
const doTheNextThing = (event) => {
    const next = document.querySelector('[data-next]');
    event.preventDefault();
    if (next && !event.repeat && !dialogOpen() && !belongsToAnother(event.target, next)) next.click();
};

const walk = (event, step) => {
    const all = steps();
    const at = all.indexOf(document.activeElement);
    const next = at < 0 ? (step > 0 ? all[0] : undefined) : all[at + step];
    if (next) {
        event.preventDefault();
        go(next);
    } else if (at >= 0 && event.key === 'Enter') {
        event.preventDefault();
        document.activeElement.blur();
    }
};

const SCROLLS = { PageDown: (box) => PAGE * box.clientHeight, PageUp: (box) => -PAGE * box.clientHeight, Home: (box) => -box.scrollHeight, End: (box) => box.scrollHeight };

const scroll = (event) => {
    const key = event.key === ' ' ? (event.shiftKey ? 'PageUp' : 'PageDown') : event.key;
    const box = scroller();
    if (!SCROLLS[key] || box === document.scrollingElement) return;
    event.preventDefault();
    box.scrollBy({ top: SCROLLS[key](box) });
};

document.addEventListener('keydown', (event) => {
    const { key, target } = event;
    if (key === 'Enter' && (event.ctrlKey || event.metaKey)) return doTheNextThing(event);
    if (dialogOpen()) return undefined;
    if (key === 'Escape') {
        if (why()?.contains(target)) toTheRow();
        document.querySelector('#found')?.replaceChildren();
        return closeMenus(document.body);
    }
    if (going && !event.altKey) {
        going = false;
        const stage = document.querySelector(`[data-go="${key}"]`);
        if (stage) event.preventDefault();
        return stage?.click();
    }
    const act = actOf(event);
    if (act) {
        event.preventDefault();
        return ACTS[act]();
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return undefined;
    const step = { ArrowDown: 1, ArrowUp: -1, Enter: target.matches('input.qty:not([data-adds])') ? 1 : 0 }[key];
    if (step && (target.matches('input.qty, body, main, .work') || steps().includes(target))) return walk(event, step);
    if (typing(target)) return undefined;
    if (/^[1-9]$/.test(key) && why()?.contains(target)) {
        const one = [...why().querySelectorAll('button, a[href]')][key - 1];
        return one?.click();
    }
    return target.matches('body, main, .work') ? scroll(event) : undefined;
});
