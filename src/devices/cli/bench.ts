import { StandIn } from '../logger/stand-in';
import { TYPICAL_BENCH } from '../logger/typical-bench';

/**
 * `npm run device:bench`: the bench logger's stand-in by itself. It listens on HARD_PEDAL_LOGGER_PORT (5025), and on the
 * port above it for the hands at the bench.
 */
const port = Number(process.env.HARD_PEDAL_LOGGER_PORT ?? 5025);
const bench = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
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
