// Builds public/built: one style sheet, one script, the fonts; each name carries a hash of its content. Beside it the
// list of common passwords.
import { createHash } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { build } from 'esbuild';

const out = 'public/built';
rmSync(out, { recursive: true, force: true });
mkdirSync(`${out}/fonts`, { recursive: true });

for (const [family, file] of [
    ['atkinson-hyperlegible-next', 'wght-normal'],
    ['atkinson-hyperlegible-mono', 'wght-normal'],
    ['bricolage-grotesque', 'wght-normal'],
]) {
    for (const subset of ['latin', 'latin-ext']) {
        const name = `${family}-${subset}-${file}.woff2`;
        cpSync(`node_modules/@fontsource-variable/${family}/files/${name}`, `${out}/fonts/${name}`);
    }
}

execFileSync('node_modules/.bin/tailwindcss', ['--input', 'assets/css/app.css', '--output', `${out}/app.css`, '--minify'], { stdio: 'inherit' });
await build({ entryPoints: ['assets/js/app.js'], outfile: `${out}/app.js`, bundle: true, minify: true, format: 'iife', target: 'es2020' });

const { dictionary } = createRequire(import.meta.url)('@zxcvbn-ts/language-common');
writeFileSync('build/common-passwords.txt', [...dictionary.passwords].map(String).sort().join('\n') + '\n');

const manifest = {};
for (const name of ['app.css', 'app.js']) {
    const hash = createHash('sha256').update(readFileSync(`${out}/${name}`)).digest('hex').slice(0, 12);
    const hashed = name.replace('.', `.${hash}.`);
    renameSync(`${out}/${name}`, `${out}/${hashed}`);
    manifest[`built/${name}`] = `/built/${hashed}`;
}

// What nginx says where the application cannot say anything.
const said = {
    400: ['That was not understood', 'The address or what came with it is damaged. Go back, reload the page, and try again.'],
    413: ['Too much at once', 'What you sent is larger than this page takes. Nothing was changed; go back and send less.'],
    502: ['No answer came', 'Whether it was done cannot be said from here. Go back and press again: what was done already is not done twice, and you are told so.'],
};
mkdirSync(`${out}/said`);
for (const [status, [heading, words]] of Object.entries(said)) {
    writeFileSync(`${out}/said/${status}.html`, `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${status} · Tall Barrel</title><link rel="stylesheet" href="${manifest['built/app.css']}">
</head>
<body>
<main class="mx-auto mt-24 max-w-lg sheet p-6"><h1 class="my-3">${heading}</h1><p class="mb-4">${words}</p><a class="btn" href="/">To Today</a></main>
</body>
</html>
`);
}
writeFileSync(`${out}/manifest.json`, JSON.stringify(manifest, null, 2));
