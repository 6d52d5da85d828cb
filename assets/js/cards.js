// On a narrow page a row is a card: each cell carries the head of its column with it. Without a script a table stays a
// table in a box that scrolls.
const heads = (table) => [...(table.tHead?.rows[table.tHead.rows.length - 1]?.cells ?? [])].flatMap((head) => {
    const label = head.querySelector('.sr-only') ? '' : head.textContent.trim().replace(/\s+/g, ' ');
    return Array(head.colSpan).fill({ label, figure: head.classList.contains('r') });
});

const label = (table) => {
    const columns = heads(table);
    if (columns.length === 0) return;
    table.classList.add('cards');
    for (const row of [...table.tBodies].flatMap((body) => [...body.rows])) {
        let at = 0;
        let lead = row.querySelector(':scope > :has(.nm)');
        for (const cell of row.cells) {
            const column = columns[at];
            at += cell.colSpan;
            cell.classList.toggle('bare', !cell.textContent.trim() && !cell.querySelector('input, select, svg, button, img'));
            if (!column?.label || cell.colSpan > 1) continue;
            if (!lead && !column.figure) lead = cell;
            if (cell !== lead) cell.dataset.label = column.label;
        }
        lead?.classList.add('lead');
    }
};

// A table without a name of its own has that of the sheet it stands in, or of the page.
let named = 0;
const name = (table) => {
    if (table.caption || table.getAttribute('aria-label') || table.getAttribute('aria-labelledby')) return;
    const heading = table.closest('section, .sheet, form')?.querySelector('h2') ?? document.querySelector('h1');
    if (!heading) return;
    heading.id ||= `heading-${++named}`;
    table.setAttribute('aria-labelledby', heading.id);
};

export const labelTables = () => {
    document.querySelectorAll('table').forEach(name);
    document.querySelectorAll('table.grid-table:not([data-wide])').forEach(label);
};
