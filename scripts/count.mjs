// One line counted from the reports that the test runners wrote: "N passed, N failed".
import { existsSync, readFileSync } from 'node:fs';

const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null);
const unit = read('reports/unit.json');
const browser = read('reports/browser.json');
const passed = (unit?.numPassedTests ?? 0) + (browser?.stats.expected ?? 0);
const failed =
  (unit ? unit.numFailedTests + unit.numRuntimeErrorTestSuites : 1) +
  (browser ? browser.stats.unexpected + browser.stats.flaky : 1);
console.log(`${passed} passed, ${failed} failed`);
