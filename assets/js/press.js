// A form carries a key of its own, so that being sent twice does what it does once (src/Desk/Shell/PressedOnce.php).
document.addEventListener('submit', (event) => {
    const form = event.target;
    if (event.defaultPrevented || form.method !== 'post' || form.elements._press) return;
    const key = document.createElement('input');
    key.type = 'hidden';
    key.name = '_press';
    key.value = [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
    form.append(key);
});
