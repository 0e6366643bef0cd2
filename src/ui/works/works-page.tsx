'use client';

import {
  Box,
  Button,
  MenuItem,
  Slider,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  useMediaQuery,
} from '@mui/material';
import { useMemo, useState, type ReactNode } from 'react';
import { faultsOf, type Family } from '@/core/contract/family';
import { FAMILIES, SIMULATED, type FamilyKind } from '@/core/families/registry';
import { shareOf } from '@/core/model/motion';
import { fullOf, givesAt, pressedBy, showing, switchedOn, type Shown } from '@/core/twin/at-work';
import { drawnPorts, type Frame } from '@/core/twin/showing';
import { INHG_PA } from '@/core/quantities/units';
import { KindChoice } from '../kind-choice';
import { Key, useKeys } from '../keys';
import { CommandControl, LevelSlider } from '../live/command-controls';
import { LinkButton } from '../link-button';
import { Page } from '../page';
import { Posed } from '../schematics/moving';
import { SCHEMATICS } from '../schematics/registry';
import { usePrint } from '../settings-context';
import { useShowing, type AtWork } from './use-showing';
import { WorksCurve } from './works-curve';

const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 } as const;
const USUAL_SUPPLY_PA = 20 * INHG_PA;

/** How fast time goes, and the word for it. */
const PACES = [
  { pace: 1, name: 'As in life' },
  { pace: 0.2, name: 'Slow, 1/5' },
  { pace: 0.04, name: 'Very slow, 1/25' },
] as const;
/** One step of a picture that stands, as a part of what a second of life shows, s. */
const STEP_S = 0.1;
/** Room beyond a full application on the slider, and beyond what a healthy one gives on the curve. */
const BEYOND = 1.25;

interface WorksPageProps {
  readonly kind: FamilyKind;
  readonly profile: unknown;
  /** Of a profile of the Shelf; null for typical figures. */
  readonly name: string | null;
}

/** How a unit works: its own drawing moved by its twin, with the pedal, what feeds it and each fault in hand. */
export function WorksPage({ kind, profile, name }: WorksPageProps) {
  const family: Family = FAMILIES[kind];
  const still = useMediaQuery('(prefers-reduced-motion: reduce)');
  const [fault, setFault] = useState<string | null>(null);
  const [severity, setSeverity] = useState(0.7);
  const [supply_Pa, setSupply] = useState(USUAL_SUPPLY_PA);
  const [begun, setBegun] = useState<{ from: 'rest' | 'fed'; turn: number }>({ from: 'fed', turn: 0 });
  const [pace, setPace] = useState<number>(PACES[1].pace);
  const [paused, setPaused] = useState(false);

  const { input, output } = useMemo(() => drawnPorts(family), [family]);
  const drawn = useMemo(
    () => ({ input: family.ports.indexOf(input), output: family.ports.indexOf(output) }),
    [family, input, output],
  );
  const shown = useMemo(
    (): Shown => ({ fault: fault === null ? null : [fault, severity], room: ROOM, supply_Pa }),
    [fault, severity, supply_Pa],
  );
  const asked = useMemo(() => ({ shown, ...begun }), [shown, begun]);
  const at = useShowing(family, profile, asked, paused || still ? 0 : pace, drawn);
  const full = useMemo(
    () => fullOf(family, profile, { room: ROOM, supply_Pa: USUAL_SUPPLY_PA }),
    [family, profile],
  );
  const most = useMemo(() => {
    const usual = { room: ROOM, supply_Pa: USUAL_SUPPLY_PA };
    const gives = givesAt(family, profile, usual, 1.1 * full, drawn.output);
    return { input: BEYOND * full, output: BEYOND * gives };
  }, [family, profile, full, drawn]);

  const { commands } = family.motion!;
  const show = () => at.show(showing(commands, full));
  const again = (from: 'rest' | 'fed') => setBegun(({ turn }) => ({ from, turn: turn + 1 }));
  const step = () => at.step(STEP_S * pace);
  useKeys([
    { key: ' ', label: paused ? 'Go on' : 'Pause', run: () => setPaused(!paused) },
    { key: 'p', label: 'Show an application', run: show },
    { key: 'n', label: 'To the next stage', run: at.toNextStage },
    { key: '.', label: 'One step', run: step },
    { key: 'r', label: 'Begin anew, fed', run: () => again('fed') },
  ]);
  const Drawing = SCHEMATICS[kind];
  const { own, healthy } = at.now;
  const pose = { share: (part: string) => (own.parts[part] ? shareOf(own.parts[part]) : 0), t_s: at.t_s };
  return (
    <Page
      title="How it works"
      actions={
        name === null ? (
          <KindChoice kind={kind} kinds={SIMULATED} />
        ) : (
          <LinkButton href={`/shelf/works?kind=${kind}`}>Typical figures instead of {name}</LinkButton>
        )
      }
    >
      <Box
        sx={{
          display: 'grid',
          gap: 2,
          gridTemplateColumns: { xs: '1fr', lg: 'minmax(0, 1fr) 380px' },
          alignItems: 'start',
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Posed value={pose}>
            <Box sx={{ height: { xs: 380, lg: 340 } }}>
              <Drawing lit={null} />
            </Box>
          </Posed>
          <Stage own={own} healthy={healthy} trouble={at.trouble} />
          <Box
            sx={{
              display: 'flex',
              flexWrap: 'wrap',
              gap: 1,
              alignItems: 'center',
              borderTop: 1,
              borderColor: 'divider',
              pt: 1,
            }}
          >
            <Button variant="contained" onClick={show} sx={{ gap: 0.8 }}>
              Show an application <Key name="p" />
            </Button>
            <Button variant="outlined" onClick={at.toNextStage} sx={{ gap: 0.8 }}>
              To the next stage <Key name="n" />
            </Button>
            <Button onClick={() => setPaused(!paused)} disabled={still} sx={{ gap: 0.8 }}>
              {paused || still ? 'Go on' : 'Pause'} <Key name=" " />
            </Button>
            <Button onClick={step} sx={{ gap: 0.8 }}>
              One step <Key name="." />
            </Button>
            <ToggleButtonGroup
              size="small"
              exclusive
              aria-label="How fast"
              value={pace}
              onChange={(_event, chosen: number | null) => chosen && setPace(chosen)}
            >
              {PACES.map((one) => (
                <ToggleButton key={one.pace} value={one.pace}>
                  {one.name}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
            <Box sx={{ ml: 'auto', fontVariantNumeric: 'tabular-nums', color: 'text.secondary' }}>
              {at.t_s.toFixed(2)} s
            </Box>
          </Box>
          <Hands at={at} family={family} most={BEYOND * full} />
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', mt: 1 }}>
            {onBenchPump(family) && <Supply value={supply_Pa} onSet={setSupply} />}
            <Button size="small" onClick={() => again('rest')}>
              Begin with nothing on
            </Button>
            <Button size="small" onClick={() => again('fed')} sx={{ gap: 0.8 }}>
              Begin fed <Key name="r" />
            </Button>
            <Button size="small" onClick={() => at.set(switchedOn(commands))}>
              Switch its feed on
            </Button>
          </Box>
        </Box>
        <Box sx={{ display: 'grid', gap: 1.5, minWidth: 0 }}>
          <FaultChoice
            family={family}
            profile={profile}
            fault={fault}
            severity={severity}
            isAlike={at.played && !at.apart}
            onFault={setFault}
            onSeverity={setSeverity}
          />
          <Box sx={{ height: 250 }}>
            <WorksCurve input={input} output={output} most={most} trail={at.trail} />
          </Box>
          <Parts family={family} own={own} healthy={healthy} />
        </Box>
      </Box>
    </Page>
  );
}

/** Whether the pump of a bench makes its vacuum: how much can be said. */
const onBenchPump = (family: Family) =>
  family.setting === 'bench' && family.motion!.commands.some(({ id }) => id === 'valve');

/** What happens now in a sentence; with a fault, what a healthy one would do at the same moment. */
function Stage({ own, healthy, trouble }: { own: Frame; healthy: Frame | null; trouble: string | null }) {
  const differs = healthy && healthy.stage?.id !== own.stage?.id;
  return (
    <Box aria-live="polite" sx={{ minHeight: 76, py: 1, fontSize: '1.08rem' }}>
      <Box data-testid="stage" sx={{ fontWeight: 600 }}>
        {trouble ? `The twin cannot go on from here: ${trouble}` : own.stage?.says}
      </Box>
      {differs && (
        <Box sx={{ color: 'warning.dark', mt: 0.5, fontSize: '0.98rem' }}>
          A healthy one, now: {healthy.stage?.says}
        </Box>
      )}
    </Box>
  );
}

/** The pedal or the handle, and every switch there is. */
function Hands({ at, family, most }: { at: AtWork; family: Family; most: number }) {
  const { commands } = family.motion!;
  const level = pressedBy(commands);
  const isNamed = commands.filter(({ kind }) => kind === 'choice').length > 1;
  const [dragged, setDragged] = useState<number | null>(null);
  return (
    <Box component="section" aria-label="Hands" sx={{ display: 'grid', gap: 1, mt: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <LevelSlider
          level={level}
          most={Math.min(level.most, most)}
          value={dragged ?? Number(at.hands[level.id])}
          onMove={(value) => {
            setDragged(value);
            at.set({ [level.id]: value, [level.speed.id]: level.speed.most });
          }}
          onSet={() => setDragged(null)}
        />
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
        {commands.map((command) => (
          <CommandControl
            key={command.id}
            command={command}
            value={at.hands[command.id] ?? command.usual}
            isNamed={isNamed}
            onSet={(value) => at.set({ [command.id]: value })}
          />
        ))}
      </Box>
    </Box>
  );
}

function Supply({ value, onSet }: { value: number; onSet: (value_Pa: number) => void }) {
  const print = usePrint();
  return (
    <TextField
      select
      size="small"
      label="The pump makes"
      value={value}
      onChange={({ target }) => onSet(Number(target.value))}
      sx={{ width: 170 }}
    >
      {[5, 10, 15, 20, 25].map((inHg) => (
        <MenuItem key={inHg} value={inHg * INHG_PA}>
          {print.value(inHg * INHG_PA, 'depression')}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface FaultChoiceProps {
  readonly family: Family;
  readonly profile: unknown;
  readonly fault: string | null;
  readonly severity: number;
  /** An application was shown, and no part stood elsewhere. */
  readonly isAlike: boolean;
  readonly onFault: (fault: string | null) => void;
  readonly onSeverity: (severity: number) => void;
}

/** A fault to look at, how far it has gone, and what it is. */
function FaultChoice({ family, profile, fault, severity, isAlike, onFault, onSeverity }: FaultChoiceProps) {
  const faults = useMemo(() => faultsOf(family, profile), [family, profile]);
  const [dragged, setDragged] = useState(severity);
  const chosen = faults.find(({ id }) => id === fault);
  return (
    <Box>
      <TextField
        select
        fullWidth
        size="small"
        label="Fault"
        value={fault ?? ''}
        onChange={({ target }) => onFault(target.value === '' ? null : target.value)}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">None: it is healthy</MenuItem>
        {faults.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name.charAt(0).toUpperCase() + name.slice(1)}
          </MenuItem>
        ))}
      </TextField>
      {chosen && (
        <Box sx={{ mt: 1 }}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
            <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
              Just begun
            </Box>
            <Slider
              size="small"
              aria-label="How far it has gone"
              value={dragged}
              min={0.05}
              max={1}
              step={0.05}
              getAriaValueText={(part) => `${Math.round(100 * part)} %`}
              onChange={(_event, part) => setDragged(part as number)}
              onChangeCommitted={(_event, part) => onSeverity(part as number)}
            />
            <Box component="span">Severe</Box>
          </Box>
          <Told>{chosen.plain}</Told>
          {isAlike && (
            <Told>
              <b>What is drawn moves as in a healthy one.</b> This fault shows elsewhere, or only under other
              hands: with its feed off, or later.
            </Told>
          )}
          <Told>Confirmed by: {chosen.confirm}</Told>
        </Box>
      )}
    </Box>
  );
}

const Told = ({ children }: { children: ReactNode }) => (
  <Box sx={{ color: 'text.secondary', fontSize: '0.92rem' }}>{children}</Box>
);

/** Where every part is, in numbers: what the drawing shows, told. */
function Parts({ family, own, healthy }: { family: Family; own: Frame; healthy: Frame | null }) {
  const print = usePrint();
  return (
    <Box
      component="dl"
      aria-label="Where every part is"
      sx={{
        display: 'grid',
        gridTemplateColumns: healthy ? '1fr auto auto' : '1fr auto',
        columnGap: 1.5,
        rowGap: 0.1,
        m: 0,
        fontSize: '0.9rem',
        fontVariantNumeric: 'tabular-nums',
      }}
    >
      {family.motion!.parts.map(({ id, name, quantity }) => (
        <Box key={id} sx={{ display: 'contents' }}>
          <Box component="dt">{name}</Box>
          <Box component="dd" data-testid={`part-${id}`} sx={{ m: 0, textAlign: 'right', fontWeight: 600 }}>
            {print.value(own.parts[id]!.at, quantity)}
          </Box>
          {healthy && (
            <Box component="dd" sx={{ m: 0, textAlign: 'right', color: 'text.secondary' }}>
              healthy {print.value(healthy.parts[id]!.at, quantity)}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
