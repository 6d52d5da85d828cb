// Where things are on a page, for the parts that move between them.
export const typing = (element) => Boolean(element?.matches?.('input:not([type="checkbox"], [type="radio"], [type="button"]), textarea, select') || element?.isContentEditable);

export const dialogOpen = () => document.querySelector('dialog[open]') !== null;

// What of a row the keys walk to: its quantity, else what it leads to.
export const stepOf = (row) => [...row.querySelectorAll('input.qty:not(:disabled), td a[href]')].sort((a, b) => b.matches('.qty') - a.matches('.qty')).find((one) => one.checkVisibility());

export const steps = () => {
    const rows = [...document.querySelectorAll('main .grid-table > tbody > tr:not([hidden])')].map(stepOf).filter(Boolean);
    return rows.length ? rows : [...document.querySelectorAll('main a.expected')];
};

export const go = (element) => {
    element.focus();
    if (element.matches('input')) element.select?.();
    element.closest('tr')?.scrollIntoView({ block: 'nearest' });
};

// What the page scrolls in: the work beside its side, or the window where it is narrow.
export const scroller = () => [...document.querySelectorAll('.work')].find((one) => one.scrollHeight > one.clientHeight + 1 && getComputedStyle(one).overflowY !== 'visible') ?? document.scrollingElement;
