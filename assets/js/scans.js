// Scans at the dock are sent beside the page: what is read while there is no connection waits in this browser and is
// sent once, in the order it was read.
import htmx from 'htmx.org';
import { labelTables } from './cards.js';

const AGAIN_MS = 3000;
const LONGEST_MS = 8000;

const place = (delivery) => `scans-${delivery}`;
const waiting = (delivery) => JSON.parse(localStorage.getItem(place(delivery)) ?? '[]');
const keep = (delivery, scans) => {
    if (scans.length) localStorage.setItem(place(delivery), JSON.stringify(scans));
    else localStorage.removeItem(place(delivery));
};

const tell = (delivery, late) => {
    const list = document.getElementById('waiting-scans');
    const many = waiting(delivery).length;
    if (!list) return;
    list.hidden = !late || many === 0;
    list.textContent = many === 1 ? '1 scan waits for the connection' : `${many} scans wait for the connection`;
};

// What was typed while a scan was under way stays.
const typedSince = (form, sent) => [...new FormData(form)].filter(([name, value]) => typeof value === 'string' && name !== 'scan'
    && !name.startsWith('was[') && !name.startsWith('line_version[') && sent.get(name) !== value);

const swap = (form, page, sent) => {
    const typed = typedSince(form, sent);
    const focused = document.activeElement?.id;
    const scan = form.querySelector('#scan')?.value ?? '';
    for (const id of ['work', 'strip']) {
        const fresh = page.getElementById(id);
        const now = document.getElementById(id);
        if (fresh && now) {
            const put = document.importNode(fresh, true);
            now.replaceWith(put);
            htmx.process(put);
        }
    }
    labelTables();
    const fresh = document.getElementById('count');
    typed.forEach(([name, value]) => {
        const field = fresh?.elements[name];
        if (field && 'value' in field) field.value = value;
    });
    const field = document.getElementById('scan');
    if (field && scan) field.value = scan;
    (document.getElementById(focused) ?? field)?.focus();
};

let sending = false;
const send = async () => {
    const form = document.getElementById('count');
    const delivery = form?.dataset.delivery;
    const [next] = delivery ? waiting(delivery) : [];
    if (!next || sending) return;
    sending = true;
    const sent = new FormData(form);
    sent.set('scan', next.scan);
    sent.set('scan_key', next.key);
    sent.set('do', 'save');
    let page = null;
    let refused = false;
    try {
        const answer = await fetch(form.action, { method: 'POST', body: sent, signal: AbortSignal.timeout(LONGEST_MS) });
        refused = answer.status >= 400 && answer.status < 500 && ![422, 429].includes(answer.status);
        if (answer.status < 500 && answer.status !== 429) page = new DOMParser().parseFromString(await answer.text(), 'text/html');
    } catch { /* No connection: it waits. */ }
    sending = false;
    if (!page) {
        tell(delivery, true);
        setTimeout(send, AGAIN_MS);
        return;
    }
    if (refused) {
        // Sent again it would be refused again: it goes to those that were not taken.
        const bad = `bad-scans-${delivery}`;
        keep(delivery, waiting(delivery).filter((scan) => scan.key !== next.key));
        sessionStorage.setItem(bad, JSON.stringify([next.scan, ...JSON.parse(sessionStorage.getItem(bad) ?? '[]')].slice(0, 20)));
    }
    if (!page.getElementById('count')) {
        // Signed out, or booked in by somebody: the page itself says so; the scan waits for it.
        location.reload();
        return;
    }
    if (!page.getElementById('count').dataset.delivery) {
        // Booked in by somebody while these waited here: nobody counts them any more.
        const late = waiting(delivery).map((scan) => scan.scan);
        keep(delivery, []);
        swap(form, page, sent);
        const note = Object.assign(document.createElement('p'), {
            className: 'note short',
            textContent: `Scanned here while somebody booked the delivery in; look whether they are counted: ${late.join(', ')}`,
        });
        note.setAttribute('role', 'alert');
        document.querySelector('#work .work')?.prepend(note);
        return;
    }
    keep(delivery, waiting(delivery).filter((scan) => scan.key !== next.key));
    swap(form, page, sent);
    tell(delivery, waiting(delivery).length > 0);
    send();
};

document.addEventListener('submit', (event) => {
    const form = event.target;
    const field = form.id === 'count' && form.dataset.delivery ? form.querySelector('#scan') : null;
    if (!field?.value.trim() || (event.submitter && event.submitter.value !== 'save') || event.submitter?.form?.id !== 'count') return;
    event.preventDefault();
    event.stopPropagation();
    const delivery = form.dataset.delivery;
    keep(delivery, [...waiting(delivery), { key: crypto.randomUUID?.() ?? String(Date.now()) + Math.random(), scan: field.value.trim() }]);
    field.value = '';
    send();
}, true);
window.addEventListener('online', send);
document.addEventListener('DOMContentLoaded', send);
