'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import DragIndicator from '@mui/icons-material/DragIndicator';
import { Box, Button } from '@mui/material';
import Link from 'next/link';
import { clockWords, rangeWords } from '@/core/planning/day-body';
import type { DayView } from '@/core/planning/day-view';
import { COLUMNS, placeOn, type Scale } from './day-scale';

interface DayRowProps {
  readonly id: string;
  readonly view: DayView;
  readonly scale: Scale;
  readonly onJob: () => void;
}

/** One job of the day: somebody at it, and what goes on by itself; when it is done, and what was promised. */
export function DayRow({ id, view, scale, onJob }: DayRowProps) {
  const task = view.tasks.find((one) => one.id === id);
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id,
    disabled: task?.begun ?? false,
  });
  if (!task) return null;
  const own = view.plan.placed.filter((one) => one.task === id);
  const who = view.body.technicians.find((one) => one.id === own[0]!.technician)?.name ?? '';
  const [low, high] = view.range_min[id]!;
  const isLate = view.late.some((one) => one.task === id);
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '44px minmax(0, 1fr) minmax(0, 1fr) auto', md: COLUMNS },
        gap: { xs: 1, md: 2 },
        alignItems: 'center',
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: isDragging ? 'background.paper' : undefined,
        position: 'relative',
        zIndex: isDragging ? 1 : undefined,
      }}
    >
      {task.begun ? (
        // Under way: it is gone on with first.
        <Box sx={{ height: 44 }} />
      ) : (
        <Button
          {...attributes}
          {...listeners}
          aria-label={`Move ${task.tag}`}
          sx={{
            minWidth: 44,
            minHeight: 44,
            p: 0,
            cursor: 'grab',
            touchAction: 'none',
            color: 'text.secondary',
          }}
        >
          <DragIndicator />
        </Button>
      )}
      <Box sx={{ minWidth: 0 }}>
        <Box component={Link} href={`/jobs/${id}`} sx={{ fontWeight: 700, color: 'primary.main' }}>
          {task.tag}
        </Box>
        <Box
          sx={{
            color: 'text.secondary',
            fontSize: '0.85rem',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
        >
          {task.begun ? `${who}, under way` : who}
        </Box>
      </Box>
      <Box
        role="img"
        aria-label={own
          .map(
            (one) =>
              `${task.segments[one.segment]!.title}: ${clockWords(one.from_min)} to ${clockWords(one.attendedUntil_min)}`,
          )
          .join('; ')}
        sx={{
          position: 'relative',
          height: 30,
          gridColumn: { xs: '2 / -1', md: 'auto' },
          gridRow: { xs: 2, md: 'auto' },
        }}
      >
        {own.map((one) => (
          <Box key={one.segment}>
            <Stretch scale={scale} from={one.attendedUntil_min} until={one.until_min} thin />
            <Stretch scale={scale} from={one.from_min} until={one.attendedUntil_min} late={isLate} />
          </Box>
        ))}
      </Box>
      <Box>
        <b>{clockWords(view.plan.finish_min[id]!)}</b>{' '}
        <Box component="span" sx={{ color: 'text.secondary', fontSize: '0.85rem' }}>
          ({rangeWords(low, high)})
        </Box>
      </Box>
      <Button
        onClick={onJob}
        aria-label={`${task.tag}: promised, and by whom`}
        sx={{
          minHeight: 44,
          justifyContent: 'flex-start',
          textAlign: 'left',
          color: isLate ? 'error.main' : undefined,
          fontWeight: isLate ? 700 : undefined,
        }}
      >
        {task.due_min === null ? '–' : task.due_min < 0 ? 'past' : clockWords(task.due_min)}
      </Button>
    </Box>
  );
}

/** Somebody at it, or, thin, what goes on by itself. */
function Stretch({
  scale,
  from,
  until,
  thin,
  late,
}: {
  scale: Scale;
  from: number;
  until: number;
  thin?: boolean;
  late?: boolean;
}) {
  const [left, right] = [placeOn(scale, from), placeOn(scale, until)];
  if (right <= left) return null;
  return (
    <Box
      sx={{
        position: 'absolute',
        left: `${left}%`,
        width: `${right - left}%`,
        top: thin ? 13 : 4,
        height: thin ? 4 : 22,
        bgcolor: thin ? 'text.secondary' : late ? 'error.main' : 'primary.main',
        opacity: thin ? 0.5 : 1,
        borderRadius: '2px',
      }}
    />
  );
}
