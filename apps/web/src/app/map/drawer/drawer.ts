import { ChangeDetectionStrategy, Component, computed, effect, inject, model, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatTabLink, MatTabNav, MatTabNavPanel } from '@angular/material/tabs';
import { AgGridAngular } from 'ag-grid-angular';
import {
  AllCommunityModule,
  colorSchemeDark,
  colorSchemeLight,
  ModuleRegistry,
  themeQuartz,
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
import { WholePanel } from './whole-panel';
import { WordField } from '../../shared/word-field';

ModuleRegistry.registerModules([AllCommunityModule]);

interface Row {
  readonly id: string;
  readonly [column: string]: string | number;
}

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

  protected readonly rows = computed<Row[]>(() => {
    const data = this.session.data();
    const map = this.session.prepared();
    const tab = this.tab();
    if (!data || !map || (tab !== 'accounts' && tab !== 'ties')) return [];
    const handles = nodeLabels(data.nodes);
    if (tab === 'ties') {
      const { edges } = map.network;
      const value = (name: string, e: number): number => numbersOf(edges, name)[e];
      const { numbers, texts } = this.tieDetails();
      const own = [...numbers, ...texts];
      return Array.from(map.edges, (e) => ({
        id: `e${e}`,
        source: value('source', e),
        target: value('target', e),
        from: handles[value('source', e)],
        to: handles[value('target', e)],
        weight: value('weight', e),
        ...Object.fromEntries(own.map((name) => [name, data.edges[name][e]])),
      }));
    }
    const names = textsOf(data.nodes, 'name');
    const numbers = this.session.network()?.columns ?? [];
    return Array.from(map.nodes, (v) => ({
      id: `n${v}`,
      node: v,
      handle: handles[v],
      name: names[v],
      ...Object.fromEntries(numbers.map(({ name }) => [name, data.nodes[name][v]])),
    }));
  });

  constructor() {
    effect(() => {
      const tab = this.tab();
      const part = this.opened();
      if (part && tab) this.left.set(part, tab);
    });
    effect(() => {
      const selection = this.session.selection();
      const rows = this.rows();
      if (!this.grid || rows.length === 0) return;
      const id = selection?.what === 'node' ? `n${selection.node}` : null;
      this.grid.deselectAll();
      const row = id ? this.grid.getRowNode(id) : null;
      row?.setSelected(true);
      if (row) this.grid.ensureNodeVisible(row);
    });
  }

  /** A column that is set by hand is set in the table too: each value is a step. */
  private editable(column: string): ColDef {
    return {
      editable: true,
      headerTooltip: `${SET_BY_HAND} Double-click a value to change it.`,
      onCellValueChanged: ({ data, newValue, oldValue }) => {
        const network = this.session.network();
        const value = String(newValue ?? '').trim();
        if (!network || value === oldValue) return;
        const asked = { network: network.id, nodes: [Number((data as Row)['node'])], column, value };
        this.setting.start(network.study, 'mark-nodes', asked, () => void this.session.refresh());
      },
    };
  }

  protected ready(grid: GridApi): void {
    this.grid = grid;
  }

  protected readonly rowId = ({ data }: { data: Row }): string => data.id;

  protected pick({ data }: RowClickedEvent<Row>): void {
    if (!data) return;
    if (this.tab() === 'ties')
      this.session.selectTie({ source: Number(data['source']), target: Number(data['target']) });
    else this.session.selectNode(Number(data['node']));
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
