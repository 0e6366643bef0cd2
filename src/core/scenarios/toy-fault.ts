import type { Fault } from '../contract/family';

/** A fault of a toy twin, whose chances can be worked out by hand: nothing is seen of it unless it is said. */
export const toyFault = (
  id: string,
  prior: number,
  apply: Fault['apply'],
  more: Partial<Fault> = {},
): Fault => ({
  id,
  prior,
  name: id,
  plain: '',
  apply,
  signs: {},
  confirm: '',
  repair: '',
  parts: [id],
  cautions: [],
  ...more,
});
