import { SHOWN_BY_LOAD, SHOWN_BY_UNIT, type Fault, type Look, type Part } from '../../contract/family';
import { moving } from '../../model/vectors';
import { part } from '../part-kinds';
import { grown } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);

const corroded = grown(0.02, 0.3);
const flat = grown(1, 3.5);

/** Faults of a battery, its feed and its earth, named and weighted as in handbook-models 8.8: either way has half of the weight. */
export const faults: readonly Fault[] = [
  {
    id: 'feed-poor',
    prior: 14 / 2,
    brings: ['hard', 'lamp'],
    name: 'poor feed',
    plain: 'Cable, fuse or plug on the way to the booster has too much resistance: its motor runs out early.',
    apply: moves((p, s) => ({ feed_Ohm: p.feed_Ohm + corroded(s) })),
    signs: { 'hot-connector': 'hot' },
    confirm:
      'Volts lost in the feed while the motor holds, the earth as it should be; runout early, the gain as ever.',
    repair: 'Find where they are lost, by halves, under load; renew plug, fuse holder or cable there.',
    parts: ['feed'],
    cautions: ['high-current'],
  },
  {
    id: 'earth-poor',
    prior: 14 / 2,
    brings: ['hard', 'lamp'],
    name: 'poor earth',
    plain: 'The earth of the booster has too much resistance: its motor runs out early.',
    apply: moves((p, s) => ({ earth_Ohm: p.earth_Ohm + corroded(s) })),
    signs: { 'hot-connector': 'hot' },
    confirm:
      'Volts lost in the earth while the motor holds, the feed as it should be; runout early, the gain as ever.',
    repair: 'Clean or renew the earth, bare metal and a new lug; read the volts lost under load again.',
    parts: ['earth'],
    cautions: ['high-current'],
  },
  {
    id: 'battery-low',
    prior: 10,
    brings: ['hard', 'lamp'],
    name: 'battery low',
    plain: 'The battery is flat or worn: under load the booster has too few volts to push with.',
    apply: moves((p, s) => ({ battery_V: p.battery_V - flat(s) })),
    signs: {},
    confirm: 'Volts low at the posts with nothing drawn, feed and earth as they should be.',
    repair: 'Charge and load-test the battery, renew it where it fails; read the volts again.',
    parts: ['battery'],
    cautions: ['high-current'],
  },
];

/** What is felt for. Handbook-models 8.5: it is missed as often as that of a pump. */
export const looks: readonly Look[] = [{ item: 'hot-connector', falseAlarm: 0.02, miss: 0.5 }];

/** All that a motor does on what it is fed with. */
const DRIVEN = [SHOWN_BY_UNIT.travel, SHOWN_BY_UNIT.pressure, SHOWN_BY_LOAD.pressure];

export const parts: readonly Part[] = [
  part('feed', 'Cable, fuse and plug of the feed', ['feeds', 'hold', ...DRIVEN], []),
  part('earth', 'Earth of the booster', ['feeds', 'hold', ...DRIVEN], []),
  part('battery', 'Battery', ['volts', 'hold', ...DRIVEN], []),
];
