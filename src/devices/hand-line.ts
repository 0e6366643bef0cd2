import { createServer, type Server } from 'node:net';
import { Lines } from './logger/protocol';

/** What is answered to a hand: done, with what is so then, or why not. */
export type HandAnswer = { readonly ok: true } | { readonly ok: false; readonly why: string };

/** A line to the hands at a stand-in: a JSON object to a line, each answered. This is part of no protocol of a real one. */
export const handServer = (obeyed: (message: unknown) => object): Server =>
  createServer((socket) => {
    const lines = new Lines();
    socket.setEncoding('utf8');
    socket.on('error', () => socket.destroy());
    socket.on('data', (text: string) => {
      for (const line of lines.push(text) ?? []) socket.write(`${JSON.stringify(answered(line, obeyed))}\n`);
    });
  });

function answered(line: string, obeyed: (message: unknown) => object): HandAnswer {
  try {
    return { ok: true, ...obeyed(JSON.parse(line)) };
  } catch (error) {
    return { ok: false, why: (error as Error).message };
  }
}
