// A list whose rows hold a quantity and have a why. Keys walk it; see keys.js.
import htmx from 'htmx.org';
import Alpine from '@alpinejs/csp';

Alpine.data('rows', () => ({
    // Only the rows that have all the words typed.
    filter(event) {
        const words = event.target.value.toLowerCase().split(/\s+/);
        this.$root.querySelectorAll('tr[data-words]').forEach((row) => { row.hidden = !words.every((word) => row.dataset.words.includes(word)); });
        this.$root.querySelectorAll('[data-group]').forEach((group) => { group.hidden = !group.querySelector('tr[data-words]:not([hidden])'); });
    },
    enter(event) {
        const row = event.target.closest('tr[data-row]');
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
document.addEventListener('htmx:oobAfterSwap', markRow);
