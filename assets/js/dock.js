// The dock's field takes a scan wherever the eye is: a scanner is a keyboard that ends with Enter.
import Alpine from '@alpinejs/csp';
import { typing } from './places.js';

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
    // Of one counted line: taken or chosen, it is sent at once; nothing that was typed is touched.
    picture(event) {
        const form = document.getElementById('came');
        form.elements.line.value = event.currentTarget.dataset.line;
        form.elements.file.addEventListener('change', () => form.requestSubmit(), { once: true });
        form.elements.file.click();
    },
    catchScan(event) {
        if (typing(event.target) || event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey || event.key === '?' || event.key === '/') return;
        this.$root.querySelector('#scan')?.focus();
    },
}));
