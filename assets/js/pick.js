// A field whose list opens while one types. Arrows walk the list, Enter takes what is marked, else the first; Esc closes it.
// What is taken is a link or button to press, or words for the field and a quantity for the next one.
const listOf = (field) => document.getElementById(field.getAttribute('aria-controls'));
const OPTION = ':is([role="option"], [data-option]):not([aria-disabled="true"])';
const options = (field) => [...(listOf(field)?.querySelectorAll(OPTION) ?? [])];
const marked = (field) => options(field).find((one) => one.matches('[aria-selected="true"], [data-marked]'));

const mark = (field, option) => {
    // A list of things to press is no list box: what is marked there only looks so.
    options(field).forEach((one) => (one.role === 'option'
        ? one.setAttribute('aria-selected', String(one === option))
        : one.toggleAttribute('data-marked', one === option)));
    option?.scrollIntoView({ block: 'nearest' });
    if (option?.role === 'option') field.setAttribute('aria-activedescendant', option.id);
};

const close = (field) => {
    listOf(field)?.replaceChildren();
    field.removeAttribute('aria-activedescendant');
    if (field.role === 'combobox') field.setAttribute('aria-expanded', 'false');
};

const take = (field, option) => {
    const press = option.querySelector('a, button');
    if (press) return press.click();
    field.value = option.dataset.code;
    field.dataset.taken = option.dataset.code;
    const next = document.querySelector(field.dataset.then);
    if (next && !next.value) next.value = option.dataset.packs;
    close(field);
    next?.focus();
    return next?.select();
};

document.addEventListener('keydown', (event) => {
    const field = event.target;
    if (!field.matches?.('[data-pick]')) return;
    const all = options(field);
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step && all.length) {
        event.preventDefault();
        event.stopPropagation();
        mark(field, all[Math.min(Math.max(all.indexOf(marked(field)) + step, 0), all.length - 1)]);
    } else if (event.key === 'Enter' && !event.ctrlKey && field.value && field.value !== field.dataset.taken) {
        event.preventDefault();
        event.stopPropagation();
        if (field.dataset.listed !== field.value) field.dataset.waits = '1';
        else if (all.length) take(field, marked(field) ?? all[0]);
        else field.form.requestSubmit();
    } else if (event.key === 'Escape' && all.length) {
        event.stopPropagation();
        close(field);
    }
}, true);

document.addEventListener('click', (event) => {
    const option = event.target.closest(`[data-picks] ${OPTION}`);
    const field = option && document.querySelector(`[aria-controls="${option.closest('[data-picks]').id}"]`);
    if (field && !event.target.closest('a, button')) take(field, option);
});

// Enter may come before the list does, and waits for it.
document.addEventListener('htmx:afterSwap', (event) => {
    const field = document.querySelector(`[data-pick][aria-controls="${event.target.id}"]`);
    if (!field) return;
    const all = options(field);
    if (field.role === 'combobox') field.setAttribute('aria-expanded', String(all.length > 0));
    field.dataset.listed = field.value;
    if (!field.dataset.waits) return;
    delete field.dataset.waits;
    if (all.length) take(field, all[0]);
    else field.form.requestSubmit();
});
