import { FAMILIES, type FamilyKind } from '../families/registry';
import { homeChecksOf, homeFigure } from '../families/home-checks';
import type { HomeCheck } from '../contract/home-check';
import { printQuantity } from '../quantities/print';
import type { UnitSet } from '../quantities/units';
import { carePlan } from '../families/care-plan';
import { cell, type Block } from './document';
import type { Printing } from './printing';
import type { StoredRun } from '../records/views';

/** What is to be expected at a check, with the figure of a sound one in somebody’s units. */
export function expectedAtHome(kind: FamilyKind, profile: unknown, check: HomeCheck, set: UnitSet): string {
  const figure = homeFigure(kind, profile, check);
  if (!figure) return check.expect;
  return check.expect.replace('{value}', rounded(figure, set));
}

/** Nobody counts or feels more closely than two figures. */
const rounded = ({ value, quantity }: NonNullable<ReturnType<typeof homeFigure>>, set: UnitSet): string =>
  quantity === 'count'
    ? String(Math.round(value))
    : printQuantity(value, quantity, set, { u_SI: Math.abs(value) / 8 });

/** What the customer can try and what is due when, on a page of its own behind the one in plain words. */
export function atHomePage(
  { kind, context, startedAt, finishedAt }: Pick<StoredRun, 'kind' | 'context' | 'startedAt' | 'finishedAt'>,
  printing: Printing,
): Block[] {
  const { profile, procedure } = context;
  const checks = homeChecksOf(kind);
  const due = carePlan(kind, profile, (finishedAt ?? startedAt).slice(0, 10));
  const onVehicle = procedure.setting === 'vehicle';
  return [
    { kind: 'title', text: 'At home', aside: [FAMILIES[kind].name] },
    ...(checks.length > 0
      ? ([
          { kind: 'heading', text: 'Home check' },
          {
            kind: 'paragraph',
            text: `Without tools${onVehicle ? '' : ', once it is fitted and its brake was bled and checked'}, in the open, standing on level ground, the parking brake on and wheels chocked. It finds much and proves nothing: where anything is otherwise, do not drive, and tell us. Your answers count when we open the job again.`,
          },
          {
            kind: 'table',
            name: 'Home check',
            columns: ['Try', 'Expect', 'If not', 'As described?'],
            widths: [34, 27, 27, 12],
            rows: checks.map((check) => [
              cell(check.name, { small: [check.try] }),
              cell(expectedAtHome(kind, profile, check, printing.set)),
              cell(check.otherwise),
              cell('□ yes  □ no'),
            ]),
          },
        ] as const)
      : []),
    { kind: 'heading', text: 'Care plan' },
    {
      kind: 'paragraph',
      text: 'Typical intervals from the day of this test. The maker’s own come first.',
    },
    {
      kind: 'table',
      name: 'Care plan',
      columns: ['Due', 'What', 'Why'],
      widths: [16, 36, 48],
      rows: due.map(({ on, what, why }) => [cell(on), cell(what), cell(why)]),
    },
  ];
}
