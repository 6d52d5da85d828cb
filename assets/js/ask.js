// Before something that others will see or that moves money: a short question. A button with data-ask is pressed; its
// form goes only after "yes". Without a script the form goes at once, as it always did.
const kept = (kind) => parseFloat(localStorage.getItem(`ask-under-${kind}`) ?? '0');

const isBelowWhatOneAsksFor = ({ askKind, askAmount }) => askKind && askAmount && parseFloat(askAmount) < kept(askKind);

const ask = (button) => {
    const dialog = document.querySelector('#ask');
    const { ask: words, askYes, askKind, askAmount } = button.dataset;
    const before = document.activeElement;
    dialog.querySelector('#ask-words').textContent = words;
    dialog.querySelector('#ask-yes').textContent = askYes ?? button.textContent.trim();
    const under = dialog.querySelector('#ask-under');
    const form = dialog.querySelector('form');
    under.hidden = !askKind || !askAmount;
    form.elements.remember.checked = false;
    form.elements.under.value = String(Math.ceil((parseFloat(askAmount ?? '0') + 1) / 100) * 100);
    dialog.returnValue = 'no';
    dialog.addEventListener('close', () => {
        if (dialog.returnValue !== 'yes') {
            (before?.isConnected ? before : button).focus();
            return;
        }
        if (!under.hidden && form.elements.remember.checked) {
            localStorage.setItem(`ask-under-${askKind}`, String(parseFloat(form.elements.under.value) || 0));
        }
        button.dataset.answered = 'yes';
        button.form.requestSubmit(button);
    }, { once: true });
    dialog.showModal();
    dialog.querySelector('#ask-yes').focus();
};

document.addEventListener('submit', (event) => {
    const button = event.submitter;
    if (!button?.dataset.ask || button.dataset.answered || isBelowWhatOneAsksFor(button.dataset)) {
        return;
    }
    event.preventDefault();
    event.stopImmediatePropagation();
    ask(button);
}, true);

// The press that opened the question, still held, does not answer it.
document.addEventListener('keydown', (event) => {
    if (event.key === 'Enter' && event.target.closest?.('#ask') && (event.repeat || event.ctrlKey || event.metaKey)) {
        event.preventDefault();
    }
}, true);
