import { printSentence } from '../quantities/sentence';
import { notThrough } from '../procedure/opening';
import { FAMILIES } from '../families/registry';
import { CAPTURED_WORDS } from '../contract/events';
import { instrumentsOf } from '../procedure/measured-item';
import { findItem } from '../contract/steps';
import { fromSI, unitFor, type UnitSet } from '../quantities/units';
import { measured, readingUncertainty_SI } from '../metrology/uncertainty';
import { stateOf } from '../records/judged-run';
import type { StoredRun } from '../records/views';

/** Digits of a reading in a table: more than any gauge has, fewer than a binary fraction shows. */
const DIGITS = 7;

/** Every reading of a run as rows under a head, values in a unit set, times as recorded. */
export function readingsTable(run: StoredRun, set: UnitSet): (string | number)[][] {
  const { procedure, rig, shelf } = run.context;
  const instruments = instrumentsOf(rig, shelf);
  const ports = new Map(FAMILIES[run.kind].ports.map(({ id, name }) => [id, name]));
  const head = [
    'Time',
    'Step',
    'Item',
    'Port',
    'Value',
    'Expanded uncertainty (k = 2)',
    'Unit',
    'Gauge',
    'As typed',
    'Counts',
  ];
  const rows = stateOf(run).captures.flatMap((capture): (string | number)[][] => {
    const found = findItem(procedure, capture.item);
    const gauge = instruments.get(capture.instrument);
    if (found?.item.kind !== 'reading' || !gauge) return [];
    const unit = unitFor(found.item.quantity, set);
    const U_SI = 2 * readingUncertainty_SI(measured([capture.value_SI], gauge));
    const counts = capture.struck
      ? 'struck'
      : capture.stale
        ? 'stale'
        : capture.gateShut
          ? printSentence(notThrough(found.item), set)
          : 'yes';
    return [
      [
        capture.at,
        found.step.title,
        capture.item,
        ports.get(found.item.port) ?? found.item.port,
        Number(fromSI(capture.value_SI, unit).toPrecision(DIGITS)),
        Number((U_SI / unit.factor).toPrecision(3)),
        unit.symbol,
        capture.instrument,
        capture.typed || CAPTURED_WORDS[capture.by],
        counts,
      ],
    ];
  });
  return [head, ...rows];
}
