import { readFileSync } from 'node:fs';
import path from 'node:path';
import { App } from '../../e2e/app';

/** A shop under attack: the built application on a port of this machine, with the demo world in a folder of its own. */
export class Target {
  private constructor(readonly app: App) {}

  static async start(): Promise<Target> {
    return new Target(await App.start({ demo: true }));
  }

  end = () => this.app.end();
  at = (where: string) => `${this.app.url}${where}`;

  /** The process that answers. */
  pid = () => Number(readFileSync(path.join(this.app.data, 'running.pid'), 'utf8').split(' ')[0]);

  /** Memory that the process holds now, or held at the most since it was started, MB. */
  memory_MB(of: 'VmRSS' | 'VmHWM' = 'VmRSS'): number {
    const status = readFileSync(`/proc/${this.pid()}/status`, 'utf8');
    return Math.round(Number(new RegExp(`${of}:\\s+(\\d+)`).exec(status)![1]) / 1024);
  }

  /** Asks for something light again and again, as somebody at a gauge does. @returns what ends it, with the longest wait, ms */
  watch(where = '/api/v1/runs/none'): () => Promise<number> {
    let longest = 0;
    let on = true;
    const asked = (async () => {
      while (on) {
        const from = performance.now();
        await fetch(this.at(where)).then((response) => response.arrayBuffer());
        longest = Math.max(longest, performance.now() - from);
        await new Promise((soon) => setTimeout(soon, 50));
      }
    })();
    return async () => {
      on = false;
      await asked;
      return Math.round(longest);
    };
  }
}

/** What was tried in one area, and what held. */
export class Tally {
  tried = 0;
  readonly broke: string[] = [];

  constructor(readonly area: string) {}

  /** Counts one try. */
  add(held: boolean, what: string): void {
    this.tried += 1;
    if (!held) this.broke.push(what);
  }

  print(): void {
    console.log(`${this.area}: ${this.tried} tried, ${this.tried - this.broke.length} held`);
    for (const what of this.broke.slice(0, 10)) console.log(`  BROKE: ${what.slice(0, 300)}`);
  }
}
