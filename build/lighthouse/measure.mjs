// Lighthouse on the main pages, signed in, as at a desk: accessibility, best practices, performance, layout shift.
// Usage: node build/lighthouse/measure.mjs http://127.0.0.1:8480
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launch } from 'chrome-launcher';
import lighthouse, { desktopConfig } from 'lighthouse';

const base = process.argv[2];
const PAGES = ['/', '/reorder', '/compare', '/orders', '/dock', '/stock', '/items/JAR-340R', '/suppliers/VETRASOL'];
const LEAST = { accessibility: 100, 'best-practices': 95, performance: 95 };
const MOST_SHIFT = 0.02;

const signIn = async () => {
    const page = await fetch(`${base}/sign-in`);
    const cookies = page.headers.getSetCookie().map((one) => one.split(';')[0]);
    const token = /name="_token" value="([^"]+)"/.exec(await page.text())[1];
    const answer = await fetch(`${base}/sign-in`, {
        method: 'POST',
        redirect: 'manual',
        headers: { Cookie: cookies.join('; '), Origin: base },
        body: new URLSearchParams({ email: 'rowan@larkmoor.example', password: 'larkmoor-honey', _token: token }),
    });
    return answer.headers.getSetCookie().map((one) => one.split(';')[0]).join('; ') || cookies.join('; ');
};

const profile = mkdtempSync(join(tmpdir(), 'tallbarrel-lighthouse-'));
const chrome = await launch({
    chromePath: process.env.CHROME_PATH ?? '/usr/bin/chromium',
    userDataDir: profile,
    chromeFlags: ['--headless=new', '--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
});
let failed = 0;
try {
    const Cookie = await signIn();
    console.log('Lighthouse          accessibility  best practices  performance  layout shift');
    for (const page of PAGES) {
        const result = await lighthouse(base + page, { port: chrome.port, logLevel: 'error', output: 'json', onlyCategories: Object.keys(LEAST), extraHeaders: { Cookie } }, desktopConfig);
        const { categories, audits } = result.lhr;
        const scores = Object.fromEntries(Object.keys(LEAST).map((name) => [name, Math.round(100 * (categories[name].score ?? 0))]));
        const shift = audits['cumulative-layout-shift'].numericValue;
        console.log(`  ${page.padEnd(20)} ${String(scores.accessibility).padStart(10)} ${String(scores['best-practices']).padStart(15)} ${String(scores.performance).padStart(12)} ${shift.toFixed(3).padStart(13)}`);
        for (const [name, least] of Object.entries(LEAST)) {
            if (scores[name] >= least) continue;
            ++failed;
            for (const { id } of categories[name].auditRefs) if (audits[id].score !== null && audits[id].score < 0.9) console.log(`      ${name}: ${audits[id].title}`);
        }
        if (shift > MOST_SHIFT) ++failed;
    }
} finally {
    await chrome.kill();
    rmSync(profile, { recursive: true, force: true });
}
if (failed) console.log(`FAILED: ${failed} below accessibility 100, best practices and performance 95, or above a layout shift of ${MOST_SHIFT}`);
