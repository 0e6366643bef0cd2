import { App } from '../e2e/app';
async function main() {
  const app = await App.start({ demo: true, live: true });
  const t0 = Date.now();
  const r = await fetch(app.url + '/api/v1/live');
  console.log(r.status, r.headers.get('content-type'));
  const reader = r.body!.getReader(); let n = 0, last = Date.now(); let text = '';
  try { for (;;) { const p = await reader.read(); if (p.done) break; n += 1; last = Date.now(); text = new TextDecoder().decode(p.value).slice(0, 200); if (Date.now() - t0 > 400_000) break; } } catch (e) { console.log('error', String(e)); }
  console.log('ended after', (Date.now() - t0) / 1000, 's', n, 'messages; last', text);
  const again = await fetch(app.url + '/api/v1/live'); console.log(again.status); void again.body!.cancel();
  await app.end();
}
void main();
