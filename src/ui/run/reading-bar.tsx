'use client';

import { Box, Button } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import type { Instrument } from '@/core/metrology/instrument';
import {
  checkCapture,
  gaugeOfGate,
  secondLook,
  shortWay,
  type CaptureProblem,
} from '@/core/procedure/check-capture';
import type { RunEventOf } from '@/core/contract/events';
import { captureNow, readyFor } from '@/core/procedure/hands-free';
import type { LivePorts } from '@/core/procedure/live';
import type { ReadingItem, Step } from '@/core/contract/steps';
import { parseReading, type ReadingResult } from '@/core/quantities/reading';
import { refusalSentence } from '@/core/quantities/refusal';
import { unitFor, type Unit } from '@/core/quantities/units';
import type { LiveMoment } from '@/core/shop/live';
import type { Expectation } from '@/core/contract/result';
import { Key, useKeys } from '../keys';
import { gaugeNow } from '../live/live-gauges';
import { usePrint, useSettings } from '../settings-context';
import { confirmCapture, refuseTone } from '../signal';
import { Bar, type BarProps } from './bar';
import { ExpectedLine } from './expected-line';
import { broughtTo, gaugeInUse, outputOf, zerosLeft } from './gauge-in-use';
import { GaugeChoice, ReadingField, WhichMeant } from './reading-field';
import { TOO_SOON, useJustChanged } from './use-just-changed';
import type { NewEvent, RunHandle } from './use-run';

/** A reading is captured by itself so often at the most: one that still does not count needs a hand. */
const MOST_TRIES = 3;

interface ReadingBarProps {
  readonly run: RunHandle;
  readonly step: Step;
  readonly item: ReadingItem;
  readonly expectation: Expectation | null;
  readonly others: BarProps['others'];
  readonly text: string;
  readonly onText: (text: string) => void;
  /** The field was tapped with a finger. */
  readonly onTap: () => void;
  /** What the live bench shows; null where readings are typed. */
  readonly moment: LiveMoment | null;
  readonly livePorts: LivePorts | null;
  readonly handsFree: boolean;
}

type Captured = Omit<RunEventOf<'captured'>, 'id' | 'at' | 'deed'>;

/** A value that was asked about: kept only by a key of its own, or by typing it again. */
interface Question {
  readonly say: string;
  readonly keep: Captured;
  /** Something was typed since it was asked. */
  readonly retyped: boolean;
}

/** The key that says by one press what would be typed, and keeps what was asked about. */
const SHORT_KEY = 'F6';

/** Asks for one reading: what a healthy unit shows, the field, the gauge it is read on. */
export function ReadingBar(props: ReadingBarProps) {
  const { run, step, item, expectation, others, text, onText, onTap, moment, livePorts, handsFree } = props;
  const settings = useSettings();
  const print = usePrint();
  const field = useRef<HTMLInputElement>(null);
  const [atFirst] = useState(text);
  const [picked, setPicked] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [ambiguous, setAmbiguous] = useState<{
    readonly values: readonly number[];
    readonly unit: Unit;
  } | null>(null);
  const [question, setQuestion] = useState<Question | null>(null);
  const justChanged = useJustChanged(question ? `${item.id} ${question.say}` : item.id);
  const { context, state, family } = run;
  const port = family.ports.find(({ id }) => id === item.port)!;
  const unit = unitFor(item.quantity, settings.unitSet);
  const own = context.rig[item.port] ?? [];
  const choices = [
    ...own,
    ...context.shelf.filter((g) => g.quantity === item.quantity && !own.some(({ tag }) => tag === g.tag)),
  ];
  const gateAim = item.gate && (item.gate === 'zero' ? 0 : (item.gate.high ?? item.gate.low));
  const aim =
    gateAim ?? Math.max(item.target_Pa ?? 0, expectation?.expected ?? 0, expectation?.limits?.low ?? 0);
  const rules = { quantity: item.quantity, unit, barometer_Pa: context.conditions.barometer_Pa };
  const typed: ReadingResult = parseReading(text, rules);
  const empty = text.trim() === '';
  const brought = broughtTo(run, item.port);
  const named = picked ?? item.gauge ?? brought ?? (item.gate ? (gaugeOfGate(own)?.tag ?? null) : null);
  const heard = moment && !named ? gaugeNow(own, moment) : null;
  const gauge =
    empty && heard ? heard : gaugeInUse(choices, own, named, Math.max(aim, typed.ok ? typed.value_SI : 0));
  const shown = moment && gauge ? moment.shown[gauge.tag] : undefined;
  const live = empty ? shown : undefined;
  const settled = Boolean(gauge && moment?.settled.includes(gauge.tag));
  const low = own.find((g) => g.tiedTo && g.fullScale_Pa < aim && g.tag !== gauge?.tag);

  useEffect(() => field.current?.focus(), [item.id]);

  const refuse = (say: string) => {
    refuseTone(settings.sound);
    setMessage(say);
  };
  const made = (of: ReadingItem, on: Instrument, value_SI: number, by: Captured['by']): Captured => ({
    type: 'captured',
    item: of.id,
    value_SI,
    typed: by === 'typed' ? text : '',
    by,
    instrument: on.tag,
    confirmedUnlikely: false,
  });
  const send = async (...events: NewEvent[]) => {
    if (run.busy || !(await run.send(...events))) return;
    confirmCapture(settings.sound);
    onText('');
    setMessage(null);
    setQuestion(null);
  };
  /** Sends a value, or says what stands in its way. */
  const capture = async (value_SI: number, by: Captured['by']) => {
    if (!gauge) return;
    const candidate = { item, gauge, value_SI, by };
    const seen = shown === undefined || by === 'hands-free' ? null : { value_SI: shown, settled };
    const problem: CaptureProblem | null =
      checkCapture(family, context, state, candidate) ?? secondLook(candidate, seen);
    const event = made(item, gauge, value_SI, by);
    if (!problem) return send(event);
    refuse(problem.say(settings.unitSet));
    const again = question?.retyped && by === 'typed' && question.keep.typed === text;
    if (problem.asks && again && question.keep.value_SI === value_SI)
      return send({ ...event, confirmedUnlikely: true });
    setQuestion(
      problem.asks
        ? { say: problem.say(settings.unitSet), keep: { ...event, confirmedUnlikely: true }, retyped: false }
        : null,
    );
  };

  /** @param onLine the value typed is the output of this line, its input being at the aim */
  const commit = (from: 'field' | 'key', onLine = false) => {
    if (run.busy) return;
    // What was typed since the prompt changed was meant for it; a press alone may not have been.
    const since = question ? question.retyped : text !== atFirst;
    const meant = from === 'field' && !empty && since;
    if (justChanged() && !meant) return refuse(TOO_SOON);
    setAmbiguous(null);
    if (live !== undefined && !onLine) return void capture(live, 'gauge');
    const line = onLine ? outputOf(step, item) : null;
    const read = line
      ? parseReading(text, { ...rules, unit: unitFor(line.quantity, settings.unitSet) })
      : typed;
    if (!read.ok) {
      if (read.why.code === 'ambiguous')
        setAmbiguous({ values: read.why.candidates_SI, unit: read.why.unit });
      return refuse(refusalSentence(read.why, port.name, settings.unitSet));
    }
    if (line) void captureLine(line, read.value_SI);
    else void capture(read.value_SI, 'typed');
  };

  /** Both readings of a line: the input at its aim, the output as typed. */
  const captureLine = async (line: ReadingItem, value_SI: number) => {
    const input = shortWay(context, state, item);
    const outputs = context.rig[line.port] ?? [];
    const on = gaugeInUse(outputs, outputs, null, value_SI);
    if (!gauge || !on || !input) return;
    const problem = checkCapture(family, context, state, { item: line, gauge: on, value_SI, by: 'typed' });
    if (problem) return refuse(`${problem.say(settings.unitSet)} Read the two one by one.`);
    await send(made(item, gauge, input.value_SI, input.by), made(line, on, value_SI, 'typed'));
  };

  /** Captured by itself so often, and the events of the run then: what did not count is taken again, a few times. */
  const tried = useRef({ times: 0, at: -1 });
  const [ready, setReady] = useState(false);
  if (!ready && livePorts && readyFor(context.procedure, item, livePorts)) setReady(true);
  const due =
    ready &&
    handsFree &&
    live !== undefined &&
    livePorts !== null &&
    captureNow(context.procedure, item, livePorts);
  const take = useRef(() => undefined as void);
  useEffect(() => {
    take.current = () => void capture(live!, 'hands-free');
  });
  useEffect(() => {
    const { times, at } = tried.current;
    if (!due || times >= MOST_TRIES || at === run.events.length || run.busy) return;
    tried.current = { times: times + 1, at: run.events.length };
    take.current();
  }, [due, run.busy, run.events.length]);

  const way = empty && live === undefined ? shortWay(context, state, item) : null;
  const zeros = way?.by === 'at-zero' ? zerosLeft(run, step) : [];
  const short = question
    ? { label: `Keep ${print.value(question.keep.value_SI, item.quantity)}`, run: () => send(question.keep) }
    : way && {
        label: zeros.length > 1 ? `All ${zeros.length} gauges at zero` : SHORT_LABEL[way.by],
        run: () =>
          zeros.length > 1
            ? send(...zeros.map(({ of, on }) => made(of, on, 0, 'at-zero')))
            : capture(way.value_SI, way.by),
      };
  const goShort = () => void (justChanged() ? refuse(TOO_SOON) : short?.run());
  const line = way?.by === 'at-aim' ? null : outputOf(step, item);
  useKeys([
    {
      key: settings.captureKey,
      label: 'Capture the reading (foot-switch)',
      run: () => commit('key'),
      inOwnField: true,
    },
    ...(short ? [{ key: SHORT_KEY, label: short.label, run: goShort, inOwnField: true }] : []),
  ]);

  const change = (value: string) => {
    onText(value);
    setMessage(null);
    setAmbiguous(null);
    setQuestion((asked) => asked && { ...asked, retyped: true });
  };

  return (
    <Bar
      message={message ?? run.problem?.title}
      prompt={
        <Box id="prompt">
          <Box sx={{ fontSize: '1.1rem', fontWeight: 650 }}>{item.prompt}</Box>
          <ExpectedLine run={run} item={item} expectation={expectation} />
          {low && (
            <Box sx={{ color: 'warning.dark', fontWeight: 600 }}>
              Shut the cock of {low.tag} first: its scale ends at{' '}
              {print.value(low.fullScale_Pa, item.quantity)}.
            </Box>
          )}
        </Box>
      }
      primary={{ label: 'Capture', key: settings.captureKey, run: () => commit('field'), busy: run.busy }}
      others={others}
    >
      {ambiguous && (
        <WhichMeant
          {...ambiguous}
          onPick={(meant) => {
            change(meant);
            field.current?.focus();
          }}
        />
      )}
      <Box sx={{ display: 'flex', alignItems: 'flex-end', gap: 1 }}>
        <ReadingField
          field={field}
          label={`${port.name}, ${unit.symbol}${live === undefined ? '' : settled ? ' · settled' : ' · moving'}`}
          shown={
            live === undefined ? '' : print.value(live, item.quantity, { bare: true, u_SI: gauge!.step_Pa })
          }
          text={text}
          wrong={Boolean(message)}
          onText={change}
          onTap={onTap}
          onEnter={(shifted) => commit('field', shifted && outputOf(step, item) !== null)}
        />
        <GaugeChoice gauge={gauge} choices={choices} onPick={setPicked} />
      </Box>
      {short && (
        <Button
          variant="outlined"
          disabled={run.busy}
          onClick={goShort}
          sx={{ minHeight: 68, gap: 1, flexDirection: { md: 'column' } }}
        >
          {short.label} <Key name={SHORT_KEY} />
        </Button>
      )}
      {line && !empty && !question && (
        <Button
          variant="outlined"
          disabled={run.busy}
          onClick={() => commit('field', true)}
          sx={{ minHeight: 68, gap: 1, flexDirection: { md: 'column' } }}
        >
          Output, input at aim <Key name="Shift Enter" />
        </Button>
      )}
    </Bar>
  );
}

const SHORT_LABEL = {
  'at-aim': 'Input is at the aim',
  'at-zero': 'Gauge at zero',
  'as-last-supply': 'As the last supply',
} as const;
