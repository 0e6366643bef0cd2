// Adds the optional platform packages that this registry does not serve to package-lock.json,
// so that `npm ci` finds the lock complete. Run after every `npm install` that changes it.
import { readFileSync, writeFileSync } from 'node:fs';
const file = 'package-lock.json';
const lock = JSON.parse(readFileSync(file, 'utf8'));
const P = lock.packages;
let added = 0;
const has = (from, name) => {
  for (let d = from; ; d = d.replace(/(^|\/)node_modules\/(@[^/]+\/)?[^/]+$/, '')) {
    if (P[`${d ? d + '/' : ''}node_modules/${name}`]) return true;
    if (!d) return false;
  }
};
for (const [key, pkg] of Object.entries(P)) {
  for (const [name, spec] of Object.entries(pkg.optionalDependencies ?? {})) {
    if (has(key, name)) continue;
    const m = /(android|darwin|freebsd|netbsd|openbsd|openharmony|sunos|aix|win32|windows|linux)/.exec(name);
    const at = name.replace(/^@[^/]+\//, '');
    P[`node_modules/${name}`] = {
      version: spec.replace(/^[\^~]/, ''),
      optional: true,
      ...(pkg.dev ? { dev: true } : {}),
      os: [m ? (m[1] === 'windows' ? 'win32' : m[1]) : 'none'],
      cpu: [/arm64/.test(at) ? 'arm64' : /x64/.test(at) ? 'x64' : 'none'],
    };
    added++;
  }
}
lock.packages = Object.fromEntries(Object.entries(P).sort(([a], [b]) => a.localeCompare(b, 'en')));
writeFileSync(file, JSON.stringify(lock, null, 2) + '\n');
console.log(`added ${added}`);
