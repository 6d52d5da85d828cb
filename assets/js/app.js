// What the pages do in the browser: keys, walking rows, taking scans. Rules and sums are on the server.
import './quiet.js';
import htmx from 'htmx.org';
import Alpine from '@alpinejs/csp';
import './ask.js';
import './dock.js';
import './keys.js';
import './menus.js';
import './pick.js';
import './press.js';
import './rows.js';
import './scans.js';
import { labelTables } from './cards.js';
import { start as startFocus } from './focus.js';

window.htmx = htmx;

document.addEventListener('htmx:configRequest', (event) => {
    // Marked as a part of a page, so that a sign-in never leads back to a fragment.
    event.detail.headers['X-Requested-With'] = 'XMLHttpRequest';
    event.detail.headers['X-CSRF-Token'] = document.querySelector('meta[name="csrf-token"]').content;
});
document.addEventListener('htmx:load', labelTables);

// A choice beside a field that is put into it.
document.addEventListener('click', (event) => {
    const put = event.target.closest('[data-put]');
    if (put) {
        const field = put.closest('form').elements[put.dataset.into];
        field.value = put.dataset.put;
        field.dispatchEvent(new Event('input', { bubbles: true }));
        field.focus();
    }
});

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
    // What takes more than a moment shows that it is under way; one can leave it, it goes on.
    if (!event.defaultPrevented) setTimeout(() => document.body.classList.add('working'), 500);
    // A second press of a button that books or sends does nothing while the first is under way.
    const button = event.submitter;
    if (button?.matches('[data-once]')) {
        if (button.dataset.pressed) { event.preventDefault(); return; }
        button.dataset.pressed = '1';
    }
});

window.addEventListener('pageshow', () => document.body.classList.remove('working'));

labelTables();
Alpine.start();
startFocus();
