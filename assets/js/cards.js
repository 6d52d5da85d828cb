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

export const labelTables = () => document.querySelectorAll('table.grid-table:not([data-wide])').forEach(label);
