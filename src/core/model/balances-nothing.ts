/**
 * A unit at whose terminals nothing is balanced: what it has stored is told by its own gauges, it brings its effort to its load, and
 * asks its source where it needs it. To be extended by its `read`.
 */
export abstract class BalancesNothing {
  span(): readonly [number, number] {
    return [0, 0];
  }

  through(): number {
    return 0;
  }

  atRest() {
    return { effort: 0, passes: 0 };
  }
}
