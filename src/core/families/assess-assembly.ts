import type { Assessment, Result } from '../contract/result';
import { printNames, sentence, type Sentence } from '../quantities/sentence';

const joined = (names: readonly string[]) => names.join(', ');

const GROUPS = ['supply', 'unit', 'load'] as const;

/** What a verdict on a whole is about, as it is named. */
export interface SpokenOf extends Readonly<Record<(typeof GROUPS)[number], string>> {
  /** All of it, as what met its limits. */
  readonly all: string;
}

const TOO_HIGH = sentence(
  'The source makes what a healthy engine at this altitude makes: it is not at fault, and the booster has less to work with here.',
);

const named = (list: readonly Result[]) => printNames(list.map(({ name }) => name));
const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1);

/** Results of the unit that hang on what feeds it, and on what it drives. */
export type Excused = Readonly<Record<'supply' | 'load', readonly string[]>>;

/**
 * A whole's test in plain words: which of the supply, the unit and what it drives falls short, and which does not.
 *
 * @param excused failures of the unit that a supply or a load which fails explains, by whose they are
 */
export function assessAssembly(results: readonly Result[], excused: Excused, names: SpokenOf): Assessment {
  const fails = (result: Result) => result.verdict === 'fails';
  const explained = new Set(
    (['supply', 'load'] as const).flatMap((about) =>
      results.some((result) => result.about === about && fails(result)) ? excused[about] : [],
    ),
  );
  const counts = ({ id }: Result) => !explained.has(id);
  const failing = GROUPS.flatMap((group) => {
    const found = results.filter((result) => result.about === group && fails(result) && counts(result));
    return found.length > 0 ? [{ group, found }] : [];
  });
  const cleared = GROUPS.filter(
    (group) =>
      !failing.some((one) => one.group === group) &&
      results.some(({ about, verdict }) => about === group && verdict === 'meets'),
  );
  const close = results.filter(({ verdict }) => verdict === 'close');
  const missing = results.filter(({ verdict }) => verdict === 'not-taken');
  const open: Sentence[] = [
    ...(close.length > 0 ? [sentence(`Too close to call: ${named(close)}.`)] : []),
    ...(missing.length > 0 ? [sentence(`Not taken: ${named(missing)}.`)] : []),
  ];
  // Only the need fails, and what makes the vacuum is as it should be here: the place is too high for this booster.
  const verdictOf = (id: string) => results.find((result) => result.id === id)?.verdict;
  const tooHigh =
    failing.flatMap(({ found }) => found).every(({ id }) => id === 'supply-need') &&
    verdictOf('supply-idle') === 'meets';
  if (failing.length > 0) {
    const onlySupply = failing.every(({ group }) => group === 'supply');
    const clearedWords =
      cleared.length > 0
        ? [sentence(`Within its limits so far: ${joined(cleared.map((group) => names[group]))}.`)]
        : [];
    return {
      call: onlySupply ? 'weak-supply' : 'faulty',
      headline: tooHigh
        ? 'Less vacuum here than the booster needs, from a healthy source'
        : `${capital(failing.map(({ group }) => names[group]).join(' and '))} ${failing.length > 1 ? 'fail' : 'fails'}`,
      reasons: [
        ...failing.map(({ group, found }) =>
          sentence(`Outside its limits, ${names[group]}: ${named(found)}.`),
        ),
        ...(tooHigh ? [TOO_HIGH] : []),
        ...clearedWords,
        ...open,
      ],
    };
  }
  if (close.length > 0) return { call: 'open', headline: 'Not settled yet', reasons: open };
  if (missing.length > 0)
    return {
      call: 'incomplete',
      headline: cleared.length > 0 ? 'So far within limits, not complete' : 'Nothing judged yet',
      reasons: open,
    };
  return { call: 'healthy', headline: `${names.all} met every limit tested`, reasons: [] };
}
