import { existsSync, readFileSync } from 'node:fs';
import { StandIn, type HandMessage } from '../logger/stand-in';
import { TYPICAL_BENCH } from '../logger/typical-bench';

/**
 * `npm run device:bench`: the bench logger's stand-in by itself. It listens on HARD_PEDAL_LOGGER_PORT (5025), and on the
 * port above it for the hands at the bench. HARD_PEDAL_BENCH names a file that says what stands on it and what its hands
 * have done.
 */
const port = Number(process.env.HARD_PEDAL_LOGGER_PORT ?? 5025);
const bench = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
const left = process.env.HARD_PEDAL_BENCH;
if (left && existsSync(left)) {
  const said = JSON.parse(readFileSync(left, 'utf8')) as { unit: object; hands: object } | null;
  try {
    if (said)
      for (const one of [{ unit: said.unit }, { hands: said.hands }]) bench.obeyed(one as HandMessage);
  } catch (error) {
    // A bench that stands otherwise than its file says is of more use than none.
    console.error(`${left} cannot be followed: ${(error as Error).message}`);
  }
}
void bench.start(port, port + 1).then(
  ({ logger, hands }) => console.log(`Bench logger: 127.0.0.1:${logger}; hands at the bench: ${hands}`),
  (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken: is a bench logger running already? Choose another by HARD_PEDAL_LOGGER_PORT.`
        : error.message,
    );
    process.exit(1);
  },
);
