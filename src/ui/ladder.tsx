'use client';

import { Box } from '@mui/material';
import { lowEnd_SI } from '@/core/metrology/accuracy';
import { type Instrument } from '@/core/metrology/instrument';
import { unitFor, type Quantity, type UnitSet } from '@/core/quantities/units';
import { useSize } from './use-size';

/** A scale to be drawn. */
export type LadderGauge = Pick<Instrument, 'tag' | 'fullScale_Pa' | 'lowEnd_Pa'> & {
  readonly quantity: Quantity;
};

interface LadderProps {
  readonly name: string;
  readonly channel: string;
  /** Gauges of the port, any order: low and high range stand side by side, as on the bench. */
  readonly gauges: readonly LadderGauge[];
  readonly unitSet: UnitSet;
  /** Expected band, Pa. */
  readonly band?: { low?: number; high?: number } | null;
  /** Last reading, Pa, and those before it. */
  readonly reading?: number | null;
  readonly trail?: readonly number[];
  /** Tag of the gauge to be read now. */
  readonly inUse?: string | null;
  readonly lit?: boolean;
}

const TOP = 8;
/** Room below a scale for the gauge's tag. */
const FOOT = 24;
/** Size before the screen has been measured. */
const UNMEASURED = { width: 120, height: 400 };

/** One port's pressure or vacuum as vertical scales, one per gauge, with the expected band and the reading. */
export function Ladder({
  name,
  channel,
  gauges,
  unitSet,
  band,
  reading,
  trail = [],
  inUse,
  lit,
}: LadderProps) {
  const ordered = [...gauges].sort((a, b) => a.fullScale_Pa - b.fullScale_Pa);
  const quantity = ordered[0]?.quantity ?? 'pressure';
  const unit = unitFor(quantity, unitSet);
  const [box, size] = useSize(UNMEASURED);
  const column = size.width / Math.max(1, ordered.length);
  return (
    <Box
      component="figure"
      sx={{
        m: 0,
        minWidth: 0,
        minHeight: 0,
        display: 'flex',
        flexDirection: 'column',
      }}
      aria-label={describe(name, reading, unit.symbol, unit.factor)}
    >
      <Box
        component="figcaption"
        sx={{
          fontSize: '0.78rem',
          fontWeight: 650,
          color: `var(--hp-${channel})`,
          lineHeight: 1.2,
          minHeight: '2.4em',
        }}
      >
        {name}
        <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
          {' '}
          {unit.symbol}
        </Box>
      </Box>
      <Box ref={box} sx={{ flex: 1, minHeight: 0, overflow: 'hidden', opacity: lit ? 1 : 0.75 }}>
        <svg width={size.width} height={size.height} aria-hidden style={{ display: 'block' }}>
          {ordered.map((gauge, i) => (
            <g key={gauge.tag} transform={`translate(${i * column},0)`}>
              <Scale
                gauge={gauge}
                height={size.height - TOP - FOOT}
                width={column}
                channel={channel}
                unitFactor={unit.factor}
                band={band}
                reading={reading}
                trail={trail}
                inUse={inUse === gauge.tag}
                passed={
                  i < ordered.length - 1 &&
                  reading !== null &&
                  reading !== undefined &&
                  reading > gauge.fullScale_Pa
                }
              />
            </g>
          ))}
        </svg>
      </Box>
    </Box>
  );
}

interface ScaleProps {
  readonly gauge: LadderGauge;
  readonly height: number;
  readonly width: number;
  readonly channel: string;
  readonly unitFactor: number;
  readonly band?: LadderProps['band'];
  readonly reading?: number | null;
  readonly trail: readonly number[];
  readonly inUse: boolean;
  /** The reading lies past this range's end: the scale is greyed out. */
  readonly passed: boolean;
}

function Scale({
  gauge,
  height,
  width,
  channel,
  unitFactor,
  band,
  reading,
  trail,
  inUse,
  passed,
}: ScaleProps) {
  const full = gauge.fullScale_Pa;
  // Four figures want more room than three.
  const wide = Math.round(full / unitFactor) >= 1000;
  const axis = Math.min(wide ? 37 : 30, width * (wide ? 0.6 : 0.55));
  const low = lowEnd_SI(gauge);
  const span = full - low;
  const y = (value: number) => TOP + height * (1 - Math.min(1, Math.max(0, (value - low) / span)));
  const step = niceStep(span / unitFactor);
  const first = Math.ceil(low / unitFactor / step - 1e-9);
  const count = Math.floor(full / unitFactor / step + 1e-9) - first + 1;
  const ticks = Array.from({ length: count }, (_, i) => (first + i) * step);
  const color = `var(--hp-${channel})`;
  const shown = reading !== null && reading !== undefined && reading <= full * 1.0001;
  const bandHigh = band?.high ?? full;
  const bandLow = band?.low ?? low;
  return (
    <g opacity={passed ? 0.35 : 1}>
      {band && bandLow <= full && (
        <rect
          x={axis}
          y={y(bandHigh)}
          width={16}
          height={Math.max(2, y(bandLow) - y(bandHigh))}
          fill="var(--hp-band)"
        />
      )}
      <line
        x1={axis}
        x2={axis}
        y1={TOP}
        y2={TOP + height}
        stroke="var(--hp-line)"
        strokeWidth={inUse ? 2.4 : 1.2}
      />
      {ticks.map((tick) => (
        <g key={tick}>
          <line
            x1={axis - 6}
            x2={axis}
            y1={y(tick * unitFactor)}
            y2={y(tick * unitFactor)}
            stroke="var(--hp-line)"
          />
          <text
            x={axis - 8}
            y={y(tick * unitFactor) + 4}
            textAnchor="end"
            fontSize={11.5}
            fill="var(--hp-line)"
          >
            {Number(tick.toPrecision(6))}
          </text>
        </g>
      ))}
      {trail
        .filter((value) => value <= full)
        .map((value, i) => (
          <line
            key={i}
            x1={axis + 1}
            x2={axis + 13}
            y1={y(value)}
            y2={y(value)}
            stroke={color}
            strokeWidth={1.2}
            opacity={0.4}
          />
        ))}
      {shown && (
        <>
          <line x1={axis} x2={axis + 17} y1={y(reading)} y2={y(reading)} stroke={color} strokeWidth={2.5} />
          <path d={`M${axis + 17} ${y(reading)} l8 -6 v12 z`} fill={color} />
        </>
      )}
      <text
        x={axis}
        y={TOP + height + 21}
        textAnchor="middle"
        fontSize={11.5}
        fontWeight={inUse ? 700 : 400}
        fill="var(--hp-line)"
      >
        {gauge.tag}
      </text>
    </g>
  );
}

const describe = (name: string, reading: number | null | undefined, symbol: string, factor: number) =>
  reading === null || reading === undefined
    ? `${name}: no reading yet`
    : `${name}: ${(reading / factor).toFixed(1)} ${symbol}`;

/** A step of 1, 2 or 5 times a power of ten that gives about five to fifteen ticks. */
export function niceStep(full: number): number {
  const rough = full / 8;
  const power = 10 ** Math.floor(Math.log10(rough));
  const lead = rough / power;
  return (lead < 1.5 ? 1 : lead < 3.5 ? 2 : lead < 7.5 ? 5 : 10) * power;
}
