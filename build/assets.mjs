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
writeFileSync(`${out}/manifest.json`, JSON.stringify(manifest, null, 2));
