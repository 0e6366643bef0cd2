import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import type { Instrument } from '../metrology/instrument';

/** What a shop has of what a test needs. */
export interface ShopState {
  readonly instruments: readonly Pick<Instrument, 'usualPort' | 'quantity'>[];
  readonly profiles: readonly { readonly kind: FamilyKind }[];
  readonly technicians: number;
  /** Name on the letterhead; empty where there is none. */
  readonly shopName: string;
  /** A unit of the shop's own was tested to the end. */
  readonly tested: boolean;
}

/** One thing to do before the first test, and where. */
export interface FirstStep {
  readonly id: 'gauges' | 'profile' | 'technicians' | 'letterhead' | 'test';
  readonly title: string;
  /** What it is for, and what is still missing. */
  readonly words: string;
  readonly href: string;
  readonly done: boolean;
  /** What has to be done before it; null where it can be done now. */
  readonly waitsFor: string | null;
}

/** Kind of unit whose gauges are asked for while no profile says which. */
const USUAL_KIND = FAMILY_KINDS[0];

/** Names of ports on which no gauge of the shelf stands. */
export function bareOf(kind: FamilyKind, instruments: ShopState['instruments']): string[] {
  const stands = (id: string, quantity: string | null) =>
    instruments.some((gauge) => gauge.usualPort === id && gauge.quantity === quantity);
  return FAMILIES[kind].ports
    .filter(({ id, quantity, optional }) => !optional && !stands(id, quantity))
    .map(({ name }) => name);
}

/** What a new shop does before its first test, in order; null once it has tested a unit of its own. */
export function firstSteps(shop: ShopState): FirstStep[] | null {
  if (shop.tested) return null;
  const kinds = shop.profiles.length > 0 ? shop.profiles.map(({ kind }) => kind) : [USUAL_KIND];
  // One kind of unit that can be tested is enough to begin with.
  const [bare] = kinds.map((kind) => bareOf(kind, shop.instruments)).sort((a, b) => a.length - b.length) as [
    string[],
  ];
  const [gauged, profiled] = [bare.length === 0, shop.profiles.length > 0];
  return [
    {
      id: 'gauges',
      title: 'Gauges',
      words: gauged
        ? 'Every port has its gauge.'
        : `Each with its range, class and calibration: every figure here carries their error. Still without one: ${bare.join(', ')}.`,
      href: '/shelf/instruments/new',
      done: gauged,
      waitsFor: null,
    },
    {
      id: 'profile',
      title: 'A profile',
      words:
        'What a sound unit of one kind does, and its limits: begun from typical figures, changed to what its maker says.',
      href: '/shelf/profiles/new',
      done: profiled,
      waitsFor: null,
    },
    {
      id: 'technicians',
      title: 'Technicians',
      words: 'Those who test and sign, each with a PIN.',
      href: '/shelf/technicians',
      done: shop.technicians > 0,
      waitsFor: null,
    },
    {
      id: 'letterhead',
      title: 'Letterhead',
      words:
        'Name, address and telephone as they stand on reports; the bench’s altitude and vacuum, beside them.',
      href: '/shelf/settings',
      done: shop.shopName !== '',
      waitsFor: null,
    },
    {
      id: 'test',
      title: 'The first test',
      words: 'Take in a unit and test it: the run says what to do next, and what a sound unit shows.',
      href: '/jobs/new',
      done: false,
      waitsFor:
        gauged && profiled ? null : gauged ? 'a profile' : profiled ? 'gauges' : 'gauges and a profile',
    },
  ];
}
