// What the pages do in the browser: keys, walking rows, taking scans. Rules and sums are on the server.
import htmx from 'htmx.org';
import Alpine from '@alpinejs/csp';
import './ask.js';
import { labelTables } from './cards.js';

window.htmx = htmx;
// A field of a form that does something else than the strip.
const belongsToAnother = (element, next) => typing(element) && !element.matches('[type="checkbox"], [type="radio"]') && element.form && element.form !== next.form && element.form.method === 'post';
const typing = (element) => element && (element.matches('input, textarea, select') || element.isContentEditable);

document.addEventListener('htmx:configRequest', (event) => {
    // Marked as a part of a page, so that a sign-in never leads back to a fragment.
    event.detail.headers['X-Requested-With'] = 'XMLHttpRequest';
    event.detail.headers['X-CSRF-Token'] = document.querySelector('meta[name="csrf-token"]').content;
});

// Menus close when one goes elsewhere, by key as by hand; what is fixed there by the page (a mistake in it) stays.
const stages = document.querySelector('.stages-button');
const showStages = (open) => {
    stages?.setAttribute('aria-expanded', String(open));
    document.querySelector('#stages')?.classList.toggle('open', open);
};
const closeMenus = (target) => {
    document.querySelectorAll('details.menu[open]').forEach((menu) => { if (!menu.contains(target)) menu.removeAttribute('open'); });
    if (!target.closest?.('.stages, .stages-button')) showStages(false);
};
stages?.addEventListener('click', () => showStages(stages.getAttribute('aria-expanded') === 'false'));
document.addEventListener('focusin', (event) => closeMenus(event.target));

// The keys every page has: find, go to a stage, do the strip's action, show the keys.
Alpine.data('keys', () => ({
    going: false,
    press(event) {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
            // Once for each press, never from a field of another action, never behind a dialog.
            const next = document.querySelector('[data-next]');
            event.preventDefault();
            if (next && !event.repeat && !document.querySelector('dialog[open]') && !belongsToAnother(event.target, next)) next.click();
            return;
        }
        if (event.key === 'Escape') {
            document.querySelector('#found')?.replaceChildren();
            closeMenus(document.body);
            return;
        }
        if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
        if (this.going) {
            this.going = false;
            const stage = document.querySelector(`[data-go="${event.key}"]`);
            if (stage) { event.preventDefault(); stage.click(); }
        } else if (event.key === 'g') {
            this.going = true;
            setTimeout(() => { this.going = false; }, 1500);
        } else if (event.key === '/') {
            event.preventDefault();
            document.querySelector('#find')?.focus();
        } else if (event.key === '?') {
            document.querySelector('#key-help')?.showModal();
        }
    },
    leave(event) {
        closeMenus(event.target);
        if (!event.target.closest('.search')) document.querySelector('#found')?.replaceChildren();
    },
}));

// A list whose rows hold a quantity: arrows and Enter walk, a number typed goes into the row, x skips it.
Alpine.data('rows', () => ({
    fields() { return [...this.$root.querySelectorAll('tr:not([hidden]) input.qty:not(:disabled)')].filter((field) => field.checkVisibility()); },
    // Only the rows that have all the words typed.
    filter(event) {
        const words = event.target.value.toLowerCase().split(/\s+/);
        this.$root.querySelectorAll('tr[data-words]').forEach((row) => { row.hidden = !words.every((word) => row.dataset.words.includes(word)); });
        this.$root.querySelectorAll('[data-group]').forEach((group) => { group.hidden = !group.querySelector('tr[data-words]:not([hidden])'); });
    },
    row(event) { return event.target.closest('tr[data-row]'); },
    walk(event) {
        if (!event.target.matches('input.qty')) return;
        if (event.key === 'x' && !event.ctrlKey && !event.metaKey) {
            // What is not wanted is skipped without leaving the keyboard; its why is the one shown.
            event.preventDefault();
            const row = this.row(event);
            const skip = document.querySelector(`#why [data-of="${row?.id}"]`) && document.querySelector('#why [data-skip]');
            if (skip) skip.form.requestSubmit(skip);
            return;
        }
        const step = { ArrowDown: 1, ArrowUp: -1, Enter: 1 }[event.key];
        if (!step || event.ctrlKey || event.metaKey) return;
        event.preventDefault();
        const fields = this.fields();
        const next = fields[fields.indexOf(event.target) + step];
        if (next) { next.focus(); next.select(); next.closest('tr').scrollIntoView({ block: 'nearest' }); } else { event.target.blur(); }
    },
    enter(event) {
        const row = this.row(event);
        if (!row || row.classList.contains('sel')) return;
        this.$root.querySelectorAll('tr.sel').forEach((other) => other.classList.remove('sel'));
        row.classList.add('sel');
        if (row.dataset.why) htmx.ajax('GET', row.dataset.why, { target: '#why', swap: 'innerHTML' });
    },
}));

// The row whose why is shown is the one marked, whichever answer came last.
const markRow = () => {
    const row = document.querySelector('#why [data-of]')?.dataset.of;
    if (!row) return;
    document.querySelectorAll('tr.sel').forEach((other) => other.classList.remove('sel'));
    document.getElementById(row)?.classList.add('sel');
};
// A change answered late must not take the why away from the row one has walked on to.
document.addEventListener('htmx:oobBeforeSwap', (event) => {
    if (event.detail.target.id !== 'why') return;
    const here = document.activeElement?.closest('tr[data-row]');
    const of = event.detail.fragment.querySelector('[data-of]')?.dataset.of;
    if (here && of && here.id !== of) event.detail.shouldSwap = false;
});
document.addEventListener('htmx:afterSwap', markRow);
document.addEventListener('htmx:load', labelTables);
document.addEventListener('htmx:oobAfterSwap', markRow);

// Two low tones: something was not taken, look up.
const beep = () => {
    try {
        const sound = new AudioContext();
        [0, 0.18].forEach((at) => {
            const tone = sound.createOscillator();
            tone.frequency.value = 220;
            tone.connect(sound.destination);
            tone.start(sound.currentTime + at);
            tone.stop(sound.currentTime + at + 0.12);
        });
    } catch { /* No sound here; the words and the mark say the same. */ }
};

// The dock's field takes a scan wherever the eye is: a scanner is a keyboard that ends with Enter.
Alpine.data('dock', () => ({
    init() {
        this.$root.querySelector('#scan')?.focus();
        this.listBadScans();
    },
    // What could not be taken stays on a list until the count is left; the field is free for the next scan.
    listBadScans() {
        const list = this.$root.querySelector('#bad-scans');
        if (!list) return;
        const name = `bad-scans-${list.dataset.delivery}`;
        const bad = JSON.parse(sessionStorage.getItem(name) ?? '[]');
        if (list.dataset.scan) {
            bad.unshift(list.dataset.scan);
            sessionStorage.setItem(name, JSON.stringify(bad.slice(0, 20)));
            beep();
        }
        list.replaceChildren(...bad.map((scan) => Object.assign(document.createElement('li'), { className: 'tag short', textContent: scan })));
        list.hidden = bad.length === 0;
    },
    catchScan(event) {
        if (typing(event.target) || event.key.length !== 1 || event.ctrlKey || event.metaKey || event.key === '?' || event.key === '/') return;
        this.$root.querySelector('#scan')?.focus();
    },
}));

// A slider over the levels somebody would choose from; the figure beside it is what counts.
document.addEventListener('input', (event) => {
    if (event.target.matches('[data-levels]')) {
        document.getElementById(event.target.dataset.for).value = event.target.dataset.levels.split(' ')[event.target.value];
    }
});
const setSliders = () => document.querySelectorAll('[data-levels]').forEach((slider) => {
    const level = parseFloat(document.getElementById(slider.dataset.for).value);
    slider.value = slider.dataset.levels.split(' ').findIndex((one) => parseFloat(one) >= level);
});
setSliders();

document.addEventListener('change', (event) => {
    if (event.target.matches('[data-submit]')) event.target.form.requestSubmit();
});
document.addEventListener('submit', (event) => {
    // A second press of a button that books or sends does nothing while the first is under way.
    const button = event.submitter;
    if (button?.matches('[data-once]')) {
        if (button.dataset.pressed) { event.preventDefault(); return; }
        button.dataset.pressed = '1';
    }
});

labelTables();
Alpine.start();
