'use client';

import ViewColumnOutlined from '@mui/icons-material/ViewColumnOutlined';
import { Box, Button } from '@mui/material';
import {
  ColumnsPanelTrigger,
  DataGrid,
  Toolbar,
  type GridColDef,
  type GridColumnVisibilityModel,
  type GridValidRowModel,
} from '@mui/x-data-grid';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { PER_PAGE, type ListQuery } from '@/core/records/list-query';
import { useRemembered } from '../remembered';
import type { List } from './use-list';

interface RecordGridProps<Row extends GridValidRowModel, Query extends ListQuery> {
  /** Name of the list, also of what is remembered of its columns. */
  readonly label: string;
  readonly list: List<Query>;
  readonly rows: readonly Row[];
  readonly total: number;
  /** Columns; a column that can be sorted by has the name of the sort as its field. */
  readonly columns: readonly GridColDef<Row>[];
  /** Columns that are not shown until they are asked for. */
  readonly hidden: readonly string[];
  readonly hrefOf: (row: Row) => string;
}

/** Records in a grid: the server pages and sorts, columns can be hidden and that is remembered, Enter opens a row. */
export function RecordGrid<Row extends GridValidRowModel, Query extends ListQuery & { sort: string }>(
  props: RecordGridProps<Row, Query>,
) {
  const { label, list, rows, total, columns, hidden, hrefOf } = props;
  const router = useRouter();
  const [kept, keep] = useRemembered(`hard-pedal columns ${label}`);
  const shown: GridColumnVisibilityModel = kept
    ? (JSON.parse(kept) as GridColumnVisibilityModel)
    : Object.fromEntries(hidden.map((field) => [field, false]));
  const { page, sort, order } = list.query;
  // The grid takes a new object for a new order, and goes back to the first page.
  const sortModel = useMemo(() => [{ field: sort, sort: order }], [sort, order]);
  const paginationModel = useMemo(() => ({ page: page - 1, pageSize: PER_PAGE }), [page]);
  return (
    <Box onClickCapture={({ target }) => (target as Element).closest('a') && list.leave()}>
      <DataGrid
        aria-label={label}
        rows={rows as readonly Row[]}
        columns={columns}
        rowCount={total}
        paginationMode="server"
        paginationModel={paginationModel}
        onPaginationModelChange={(model) => list.ask({ page: model.page + 1 } as Partial<Query>)}
        pageSizeOptions={[PER_PAGE]}
        sortingMode="server"
        sortingOrder={['desc', 'asc']}
        sortModel={sortModel}
        onSortModelChange={([by]) =>
          by && list.ask({ sort: by.field, order: by.sort ?? 'desc' } as Partial<Query>)
        }
        columnVisibilityModel={shown}
        onColumnVisibilityModelChange={(model) => keep(JSON.stringify(model))}
        disableColumnFilter
        disableRowSelectionOnClick
        rowSelection={false}
        disableVirtualization
        getRowHeight={() => 'auto'}
        showToolbar
        slots={{ toolbar: GridBar }}
        onCellKeyDown={({ row }, event) => {
          if (event.key !== 'Enter' || event.target !== event.currentTarget) return;
          event.preventDefault();
          list.leave();
          router.push(hrefOf(row as Row));
        }}
        sx={LOOK}
      />
    </Box>
  );
}

function GridBar() {
  return (
    <Toolbar>
      <ColumnsPanelTrigger render={<Button startIcon={<ViewColumnOutlined />}>Columns</Button>} />
    </Toolbar>
  );
}

const LOOK = {
  border: 0,
  borderRadius: 0,
  bgcolor: 'transparent',
  '--DataGrid-t-color-background-base': 'transparent',
  '--DataGrid-t-header-background-base': 'transparent',
  '& .MuiDataGrid-toolbar': { minHeight: 44, p: 0, border: 0, bgcolor: 'transparent' },
  '& .MuiDataGrid-columnHeaders': { borderTop: 2, borderColor: 'text.primary' },
  '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 650 },
  '& .MuiDataGrid-cell': {
    py: 1,
    lineHeight: 1.4,
    fontVariantNumeric: 'tabular-nums',
    overflowWrap: 'anywhere',
  },
  '& .MuiDataGrid-cell:focus-visible, & .MuiDataGrid-columnHeader:focus-visible': {
    outline: '3px solid var(--mui-palette-warning-main)',
    outlineOffset: '-3px',
  },
  '& .MuiDataGrid-footerContainer': { borderColor: 'divider' },
} as const;
