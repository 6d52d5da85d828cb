// Menus close when one goes elsewhere, by key as by hand. The stages fold into one where the page is narrow.
const stages = document.querySelector('.stages-button');

const showStages = (open) => {
    stages?.setAttribute('aria-expanded', String(open));
    document.querySelector('#stages')?.classList.toggle('open', open);
};

export const closeMenus = (target) => {
    document.querySelectorAll('details:is(.menu, .what)[open]').forEach((menu) => { if (!menu.contains(target)) menu.removeAttribute('open'); });
    if (!target.closest?.('.stages, .stages-button')) showStages(false);
};

stages?.addEventListener('click', () => showStages(stages.getAttribute('aria-expanded') === 'false'));
document.addEventListener('focusin', (event) => closeMenus(event.target));
document.addEventListener('click', (event) => {
    closeMenus(event.target);
    if (!event.target.closest('.search')) document.querySelector('#found')?.replaceChildren();
});
