'use client';

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { Box, Button } from '@mui/material';
import { useCallback, useEffect, useState } from 'react';
import { spanWords, type DayBody } from '@/core/planning/day-body';
import type { DayView } from '@/core/planning/day-view';
import type { Late } from '@/core/planning/worked-out';
import { call, type Answer } from '../api';
import { Nothing, Part } from '../page';
import { CrewDialog } from './crew-dialog';
import { DayRow } from './day-row';
import { DayScale, scaleOf } from './day-scale';
import { JobDialog } from './job-dialog';

/** The day is planned anew so often, ms: waits run on, and so does the clock. */
const AGAIN_MS = 60_000;

/** The day: jobs laid into each other's waits, when each is done, and what is late. Its order can be fixed by hand. */
export function DayPart({ changes }: { changes: string }) {
  const [view, setView] = useState<DayView | null>(null);
  const [problem, setProblem] = useState('');
  const [asking, setAsking] = useState<'crew' | { readonly job: string } | null>(null);
  const take = useCallback((answer: Answer<DayView>) => {
    if (answer.ok) setView(answer.value);
    setProblem(answer.ok ? '' : answer.problem.title);
    return answer.ok;
  }, []);
  const look = useCallback(async () => take(await call<DayView>('GET', '/day')), [take]);
  useEffect(() => {
    let gone = false;
    const again = () => {
      if (document.hidden) return;
      void call<DayView>('GET', '/day').then((answer) => {
        if (!gone) take(answer);
      });
    };
    again();
    const timer = setInterval(again, AGAIN_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
    // What happens on the bench plans it anew.
  }, [take, changes]);
  const change = async (body: DayBody): Promise<boolean> => {
    if (!view) return false;
    const answer = await call<DayView>('PUT', '/day', { version: view.version, body });
    if (!answer.ok && answer.problem.code === 'conflict') await look();
    return take(answer);
  };
  return (
    <Part
      title="The day"
      note={
        view && view.tasks.length > 0 ? (
          <Box component="a" href="/api/v1/day.ics" sx={{ color: 'primary.main' }}>
            For a calendar
          </Box>
        ) : undefined
      }
    >
      <Box
        role="alert"
        sx={{ color: 'error.main', fontWeight: 600, display: 'flex', gap: 2, alignItems: 'center' }}
      >
        {problem}
        {problem !== '' && <Button onClick={() => void look()}>Plan it again</Button>}
      </Box>
      {!view && problem === '' && <Nothing>The day is being planned…</Nothing>}
      {view && (
        <Planned
          view={view}
          onChange={change}
          onCrew={() => setAsking('crew')}
          onJob={(job) => setAsking({ job })}
        />
      )}
      {view && asking === 'crew' && (
        <CrewDialog body={view.body} onClose={() => setAsking(null)} onSave={change} />
      )}
      {view && asking && asking !== 'crew' && (
        <JobDialog view={view} job={asking.job} onClose={() => setAsking(null)} onSave={change} />
      )}
    </Part>
  );
}

interface PlannedProps {
  readonly view: DayView;
  readonly onChange: (body: DayBody) => Promise<boolean>;
  readonly onCrew: () => void;
  readonly onJob: (job: string) => void;
}

function Planned({ view, onChange, onCrew, onJob }: PlannedProps) {
  const { plan, tasks, left, body, late, spread } = view;
  /** As it was dragged, until the day is planned by it. */
  const [dragged, setDragged] = useState<readonly string[] | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const order = dragged ?? plan.order;
  const tagOf = (id: string) => tasks.find((one) => one.id === id)?.tag ?? '';
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const moved = arrayMove([...order], order.indexOf(String(active.id)), order.indexOf(String(over.id)));
    setDragged(moved);
    const begun = new Set(tasks.flatMap((task) => (task.begun ? task.id : [])));
    void onChange({ ...body, order: moved.filter((id) => !begun.has(id)) }).finally(() => setDragged(null));
  };
  const scale = scaleOf(view);
  const here = body.technicians.filter((one) => one.here);
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center', py: 0.5 }}>
        <Box sx={{ flex: 1, minWidth: 240, color: 'text.secondary' }}>
          {here.map(({ name, from, until }) => `${name} ${from}–${until}`).join(' · ')} · {body.benches}{' '}
          {body.benches === 1 ? 'bench' : 'benches'}
        </Box>
        {body.order.length > 0 && (
          <Button onClick={() => void onChange({ ...body, order: [] })}>Let it find the order</Button>
        )}
        <Button variant="outlined" onClick={onCrew}>
          Who is here
        </Button>
      </Box>
      {late.map((one) => (
        <Box key={one.task} sx={{ borderLeft: '5px solid', borderColor: 'error.main', pl: 1.25, mb: 0.5 }}>
          {lateWords(one, tagOf)}
        </Box>
      ))}
      {left > 0 && (
        <Box sx={{ borderLeft: '5px solid', borderColor: 'warning.main', pl: 1.25, mb: 0.5 }}>
          {left === 1
            ? 'One more job waits, and is not laid into this day.'
            : `${left} more jobs wait, and are not laid into this day.`}{' '}
          It takes {tasks.length}: those that were promised the soonest.
        </Box>
      )}
      {tasks.length === 0 ? (
        <Nothing>No job waits for its test. What is taken in is laid into the day here.</Nothing>
      ) : (
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <DayScale view={view} />
          <SortableContext items={[...order]} strategy={verticalListSortingStrategy}>
            <Box component="ol" aria-label="Jobs of the day" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {order.map((id) => (
                <DayRow key={id} id={id} view={view} scale={scale} onJob={() => onJob(id)} />
              ))}
            </Box>
          </SortableContext>
        </DndContext>
      )}
      {tasks.length > 0 && (
        <Box sx={{ color: 'text.secondary', pt: 1 }}>
          In brackets: within these times in eight of ten days, by{' '}
          {spread.tests === 0
            ? 'what is usual: no test of this shop was timed yet.'
            : `the last ${spread.tests} ${spread.tests === 1 ? 'test' : 'tests'} of this shop.`}
        </Box>
      )}
    </>
  );
}

/** What is late, by how much, and why. */
function lateWords({ task, by_min, why }: Late, tagOf: (id: string) => string): string {
  const begin = `${tagOf(task)} is ${spanWords(by_min)} later than promised.`;
  if (why.is === 'long') return `${begin} By itself it takes longer than there is.`;
  if (why.is === 'behind')
    return `${begin} Without ${tagOf(why.task)} it would be done ${spanWords(why.earlier_min)} earlier.`;
  return `${begin} No one job is in its way: there is more than can be done.`;
}
