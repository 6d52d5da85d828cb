// What can be seen of a page, as lists of what is wrong with it. Run inside the page; answers by the last argument.
const done = arguments[arguments.length - 1];
const words = (element) => `${element.tagName.toLowerCase()}${element.id ? `#${element.id}` : ''}${[...element.classList].map((name) => `.${name}`).join('')} “${(element.innerText ?? element.value ?? '').trim().slice(0, 40)}”`;
// Kept for those who listen, taken out of sight.
const onlyHeard = (element) => element.closest('.sr-only, thead') && getComputedStyle(element.closest('.sr-only, thead')).position === 'absolute';
const seen = (element) => element.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) && !onlyHeard(element);
const scrollsSideways = (element) => ['auto', 'scroll'].includes(getComputedStyle(element).overflowX);
// A picture or a comparison in two directions may be wider than the page, in a box of its own that keys can scroll.
const inABox = (element) => element.closest('[data-wide], svg, dialog, .found, .menu > div');

const sideways = [...document.querySelectorAll('*')]
    .filter((element) => element === document.documentElement ? element.scrollWidth > innerWidth + 1 : scrollsSideways(element) && element.scrollWidth > element.clientWidth + 1 && !inABox(element))
    .map(words);

const clipped = [...document.querySelectorAll('main *, .side *, .strip *, .run *')].filter((element) => {
    const style = getComputedStyle(element);
    return seen(element) && !inABox(element) && element.innerText?.trim() && ['hidden', 'clip'].includes(style.overflowX) && element.scrollWidth > element.clientWidth + 1 && element.clientWidth > 1 && !element.title;
}).map(words);

const beyond = [...document.querySelectorAll('main *, .side *, .strip *, .run *')].filter((element) => {
    const box = element.getBoundingClientRect();
    return box.width > 1 && seen(element) && !inABox(element) && !element.closest('.skip') && (box.right > innerWidth + 1 || box.left < -1);
}).map(words);

// Words that lie on other words.
const boxes = [];
const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
while (walker.nextNode()) {
    const node = walker.currentNode;
    const element = node.parentElement;
    if (!node.data.trim() || !seen(element) || element.closest('svg, script, style, dialog, option, .found, .menu > div, .skip, .strip, .apart')) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const box of range.getClientRects()) {
        if (box.width > 2 && box.height > 2) boxes.push({ element, box });
    }
}
for (const element of document.querySelectorAll('main :is(input:not([type="hidden"]), select, textarea)')) {
    const box = element.getBoundingClientRect();
    if (seen(element) && box.width > 2) boxes.push({ element, box });
}
const overlapping = [];
boxes.sort((a, b) => a.box.top - b.box.top);
(matchMedia('(prefers-color-scheme: dark)').matches ? [] : boxes).forEach((one, n) => {
    for (let i = n + 1; i < boxes.length && boxes[i].box.top < one.box.bottom - 3; ++i) {
        const other = boxes[i];
        const across = Math.min(one.box.right, other.box.right) - Math.max(one.box.left, other.box.left);
        const down = Math.min(one.box.bottom, other.box.bottom) - Math.max(one.box.top, other.box.top);
        if (across > 3 && down > 3 && one.element !== other.element && !one.element.contains(other.element) && !other.element.contains(one.element)) {
            overlapping.push(`${words(one.element)} and ${words(other.element)}`);
        }
    }
});

// What has the focus must be seen, not lie under the strip or the run.
const covered = [];
const dark = matchMedia('(prefers-color-scheme: dark)').matches;
for (const element of dark ? [] : document.querySelectorAll(':is(a[href], button, input, select, textarea, summary):not(:disabled):not([type="hidden"]):not([tabindex="-1"])')) {
    if (!seen(element) || element.closest('dialog') || (element.closest('details:not([open])') && element.tagName !== 'SUMMARY')) continue;
    element.focus({ focusVisible: true });
    if (document.activeElement !== element) continue;
    const box = element.getClientRects()[0];
    const x = Math.min(Math.max(box.left + box.width / 2, 1), innerWidth - 1);
    const top = document.elementFromPoint(x, box.top + box.height / 2);
    if (!top || !(element.contains(top) || top.contains(element) || top.closest('label')?.contains(element) || element.closest('label')?.contains(top))) covered.push(`${words(element)} under ${top ? words(top) : 'nothing'}`);
}
document.activeElement?.blur();
scrollTo(0, 0);

const first = document.querySelector('h1, h2, h3, h4');
const headings = document.querySelectorAll('h1').length === 1 && first?.tagName === 'H1' ? [] : [`${document.querySelectorAll('h1').length} h1, first heading ${first ? words(first) : 'none'}`];

const nameless = [...document.querySelectorAll('main table, main svg[role="img"]')]
    .filter((element) => seen(element) && !element.caption && !element.getAttribute('aria-label') && !document.getElementById(element.getAttribute('aria-labelledby'))).map(words);

// In the dark only colours differ.
const rules = dark ? ['color-contrast'] : ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
axe.run(document, { runOnly: rules }).then((result) => done({
    axe: result.violations.map((one) => `${one.id} × ${one.nodes.length}: ${one.nodes.slice(0, 3).map((node) => node.html.replace(/\s+/g, ' ').slice(0, 130)).join(' | ')}`),
    sideways, clipped, beyond, overlapping, covered, headings, nameless,
}));
