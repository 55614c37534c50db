import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  model,
  signal,
  untracked,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatTabLink, MatTabNav, MatTabNavPanel } from '@angular/material/tabs';
import { AgGridAngular } from 'ag-grid-angular';
import {
  colorSchemeDark,
  colorSchemeLight,
  CellStyleModule,
  ColumnAutoSizeModule,
  InfiniteRowModelModule,
  LocaleModule,
  ModuleRegistry,
  NumberFilterModule,
  RowApiModule,
  RowSelectionModule,
  ScrollApiModule,
  TextEditorModule,
  TextFilterModule,
  themeQuartz,
  TooltipModule,
  type ColDef,
  type GridApi,
  type RowClickedEvent,
} from 'ag-grid-community';
import { BY_HAND, formatCount, formatValue, nodeLabels, numbersOf, SET_BY_HAND, textsOf } from '@pebble/core';
import { stepRun } from '../../shared/step-run';
import { ThemeChoice } from '../../shared/theme';
import { DRAWER_NAMES, DRAWER_PARTS, type DrawerPart, type DrawerTab } from './drawer-parts';
import { ChartsPanel } from './charts-panel';
import { FormulaForm } from './formula-form';
import { GroupsPanel } from './groups/groups-panel';
import { MapSession } from '../session/map-session';
import { MatrixPanel } from './matrix-panel';
import { MeasureNote } from './measure-note';
import { QuestionList } from './question-list';
import { RanksPanel } from './ranks-panel';
import { RemovalPanel } from './removal-panel';
import { rankingColumn, tieColumns } from '../session/tie-columns';
import type { Table } from './table-order';
import { TableSource, type Row, type Shown } from './table-source';
import { WholePanel } from './whole-panel';
import { WordField } from '../../shared/word-field';

ModuleRegistry.registerModules([
  CellStyleModule,
  ColumnAutoSizeModule,
  InfiniteRowModelModule,
  LocaleModule,
  NumberFilterModule,
  RowApiModule,
  RowSelectionModule,
  ScrollApiModule,
  TextEditorModule,
  TextFilterModule,
  TooltipModule,
]);

const number = {
  type: 'numericColumn',
  valueFormatter: ({ value }: { value: number }) => formatValue(value),
  filter: 'agNumberColumnFilter',
  width: 116,
} as const;

/** The drawer below the map: tables of accounts and ties, and charts of them, questions, groups. */
@Component({
  selector: 'pt-drawer',
  imports: [
    WordField,
    MatButtonToggle,
    MatButtonToggleGroup,
    MatTabLink,
    MatTabNav,
    MatTabNavPanel,
    MatButton,
    AgGridAngular,
    ChartsPanel,
    FormulaForm,
    GroupsPanel,
    MatrixPanel,
    MeasureNote,
    QuestionList,
    RanksPanel,
    RemovalPanel,
    WholePanel,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drawer.html',
  styleUrl: './drawer.scss',
})
export class Drawer {
  readonly tab = model.required<DrawerTab | null>();
  /** Whether it takes more of the screen than the map does. */
  readonly tall = model(false);
  private readonly session = inject(MapSession);
  private readonly theme = inject(ThemeChoice);
  protected readonly counts = computed(() => ({
    nodes: this.session.prepared()?.nodes.length ?? 0,
    edges: this.session.prepared()?.edges.length ?? 0,
  }));
  protected readonly parts = DRAWER_PARTS;
  protected readonly names = DRAWER_NAMES;
  protected readonly opened = computed(() =>
    DRAWER_PARTS.find(({ tabs }) => tabs.some((one) => one === this.tab())),
  );
  /** Where each part was left. */
  private readonly left = new Map<DrawerPart, DrawerTab>();
  protected readonly filterText = signal('');
  /** Whether a formula is being written. */
  protected readonly writing = signal(false);
  protected readonly setting = stepRun();
  protected readonly gridWords = { noRowsToShow: 'No row fits.' };
  private grid: GridApi | null = null;

  protected readonly gridTheme = computed(() =>
    themeQuartz.withPart(this.theme.night() ? colorSchemeDark : colorSchemeLight).withParams({
      fontFamily: 'Atkinson Hyperlegible Next Variable',
      fontSize: 13,
      spacing: 5,
      accentColor: '#B4512F',
      wrapperBorder: false,
      backgroundColor: this.theme.night() ? '#1a2025' : '#ffffff',
      foregroundColor: this.theme.map().ink,
      headerBackgroundColor: this.theme.night() ? '#1b2227' : '#f3f0e8',
    }),
  );

  protected readonly words = this.session.words;
  protected readonly columns = computed<ColDef[]>(() => {
    const data = this.session.data();
    if (this.tab() === 'ties') {
      return [
        { field: 'from', headerName: 'from', filter: true, flex: 1 },
        { field: 'to', headerName: 'to', filter: true, flex: 1 },
        {
          field: 'weight',
          headerName: this.session.isByAddress() && !(data && BY_HAND in data.edges) ? 'messages' : 'weight',
          sort: 'desc',
          ...number,
        },
        ...this.tieDetails().numbers.map((field): ColDef => ({ field, ...number })),
        ...this.tieDetails().texts.map((field): ColDef => ({ field, filter: true })),
      ];
    }
    // What is filled in by hand stands beside the names.
    const columns = [...(this.session.network()?.columns ?? [])].sort(
      (a, b) => Number(b.how === SET_BY_HAND) - Number(a.how === SET_BY_HAND),
    );
    return [
      {
        field: 'handle',
        headerName: this.words().one,
        filter: true,
        pinned: 'left',
        width: 180,
      },
      { field: 'name', headerName: 'name', filter: true, width: 170 },
      ...columns.map((column): ColDef => ({
        field: column.name,
        headerName: column.title,
        headerTooltip: column.how,
        ...(Array.isArray(data?.nodes[column.name]) ? { filter: true, width: 140 } : number),
        ...(column.how === SET_BY_HAND ? this.editable(column.name) : {}),
        ...(data && column.name === rankingColumn(data).column ? { sort: 'desc' as const } : {}),
      })),
    ];
  });

  /** Further columns of ties. Of a part of the time only the weight is known; these tell of the whole. */
  private readonly tieDetails = computed(() => {
    const data = this.session.data();
    const isPart = this.session.prepared()?.network.edges !== data?.edges;
    return data && !isPart ? tieColumns(data) : { numbers: [], texts: [] };
  });

  private readonly table = computed<Table | null>(() => {
    const data = this.session.data();
    const map = this.session.prepared();
    const tab = this.tab();
    if (!data || !map || (tab !== 'accounts' && tab !== 'ties')) return null;
    const handles = nodeLabels(data.nodes);
    if (tab === 'ties') {
      const { edges } = map.network;
      const end = (name: 'source' | 'target') => {
        const ends = numbersOf(edges, name);
        return (row: number): string => handles[ends[map.edges[row]]];
      };
      const weights = numbersOf(edges, 'weight');
      const { numbers, texts } = this.tieDetails();
      return {
        rows: map.edges.length,
        names: ['from', 'to', 'weight', ...numbers, ...texts],
        column: (name) => {
          if (name === 'from' || name === 'to') return end(name === 'from' ? 'source' : 'target');
          const values = name === 'weight' ? weights : data.edges[name];
          return (row) => values[map.edges[row]];
        },
      };
    }
    const own = (this.session.network()?.columns ?? []).map(({ name }) => name);
    const names = textsOf(data.nodes, 'name');
    return {
      rows: map.nodes.length,
      names: ['handle', 'name', ...own.filter((name) => name in data.nodes)],
      column: (name) => {
        const values = name === 'handle' ? handles : name === 'name' ? names : data.nodes[name];
        return (row) => values[map.nodes[row]];
      },
    };
  });
  private readonly shown = computed<Shown | null>(() => {
    const table = this.table();
    return table && { table, prefix: this.tab() === 'ties' ? 'e' : 'n', words: this.filterText() };
  });
  protected readonly source = new TableSource(this.shown);

  constructor() {
    effect(() => {
      const tab = this.tab();
      const part = this.opened();
      if (part && tab) this.left.set(part, tab);
    });
    effect(() => {
      this.shown();
      // What the grid has is read anew where it stands; it forgets nothing of its columns and their filters.
      if (this.grid && !this.grid.isDestroyed()) this.grid.refreshInfiniteCache();
    });
    effect(() => {
      this.session.selection();
      untracked(() => this.mark('brought into view'));
    });
  }

  /** Marks the row of what is selected on the map; rows come when they are seen. */
  protected mark(how?: 'brought into view'): void {
    const { grid } = this;
    const selection = this.session.selection();
    const nodes = this.session.prepared()?.nodes;
    if (!grid || grid.isDestroyed() || !nodes) return;
    const node = selection?.what === 'node' && this.tab() === 'accounts' ? selection.node : null;
    const row = node === null ? -1 : nodes.indexOf(node);
    const place = row < 0 ? -1 : this.source.placeOf(row);
    if (place >= 0 && how) grid.ensureIndexVisible(place);
    const marked = row < 0 ? undefined : grid.getRowNode(`n${row}`);
    if (marked?.isSelected()) return;
    grid.deselectAll();
    marked?.setSelected(true);
  }

  /** A column that is set by hand is set in the table too: each value is a step. */
  private editable(column: string): ColDef {
    return {
      editable: true,
      headerTooltip: `${SET_BY_HAND} Double-click a value to change it.`,
      onCellValueChanged: ({ data, newValue, oldValue }) => {
        const network = this.session.network();
        const value = String(newValue ?? '').trim();
        const node = this.session.prepared()?.nodes[(data as Row).row];
        if (!network || node === undefined || value === oldValue) return;
        const asked = { network: network.id, nodes: [node], column, value };
        this.setting.start(network.study, 'mark-nodes', asked, () => void this.session.refresh());
      },
    };
  }

  protected ready(grid: GridApi): void {
    this.grid = grid;
  }

  protected readonly rowId = ({ data }: { data: Row }): string => data.id;

  protected pick({ data }: RowClickedEvent<Row>): void {
    const map = this.session.prepared();
    if (!data || !map) return;
    if (this.tab() !== 'ties') return this.session.selectNode(map.nodes[data.row]);
    const edge = map.edges[data.row];
    const [source, target] = (['source', 'target'] as const).map(
      (end) => numbersOf(map.network.edges, end)[edge],
    );
    this.session.selectTie({ source, target });
  }

  /** Opens a part where it was left, and closes the one that is open. */
  protected toggle(part: DrawerPart): void {
    if (part === this.opened()) return this.tab.set(null);
    this.tab.set(this.left.get(part) ?? part.tabs[0]);
  }

  protected titleOf({ title, tabs: [first] }: DrawerPart): string {
    const { nodes, edges } = this.counts();
    if (first === 'accounts') return `${this.words().Many} ${formatCount(nodes)}`;
    return first === 'ties' ? `Ties ${formatCount(edges)}` : title;
  }
}
