// Small apps that take what apps take of widely used packages: entry, pages that are deferred, and what these defer in turn.

/** Packages that many apps take parts of; the figures in the documents are of their versions of November 2026. */
export const PACKAGES = [
  ...['react@19', 'react-dom@19', 'react-router@7', 'three', 'd3', 'lodash-es', 'date-fns', 'zod', 'lucide-react'],
  ...['@radix-ui/react-dialog', '@radix-ui/react-select', '@radix-ui/react-tabs', '@radix-ui/react-tooltip'],
  ...['framer-motion', '@codemirror/view', '@codemirror/state', '@codemirror/lang-javascript', '@codemirror/commands'],
  ...['@tanstack/react-query', '@tanstack/react-table', 'rxjs', 'chart.js', 'yup', 'zustand', 'i18next', 'pdf-lib'],
  ...['react-icons', '@tiptap/react', '@tiptap/starter-kit', '@mui/material', '@emotion/react', '@emotion/styled'],
  ...['recharts', 'antd', 'styled-components', 'axios', 'dayjs', 'luxon', 'immer', '@reduxjs/toolkit', 'react-redux'],
  ...[
    'react-hook-form',
    '@dnd-kit/core',
    'marked',
    'highlight.js',
    'fuse.js',
    'dompurify',
    'leaflet',
    'vue',
    'vue-router',
    'pinia',
  ],
];

const ICONS = (names) => ['lucide-react', names];
const DATES = (names) => ['date-fns', names];
const WORDS = (names) => ['lodash-es', names];

/** Each app: what its entry takes, and its pages with what they take and what they defer. A package with its names; `*` for all of it as one name. */
export const APPS = {
  board: {
    entry: [
      ['@tanstack/react-query', 'QueryClient QueryClientProvider'],
      ['zustand', 'create'],
      ICONS('Home Settings Search Menu X ChevronDown Bell User'),
      ['@radix-ui/react-tooltip', '*'],
    ],
    pages: {
      overview: {
        takes: [
          ['recharts', 'LineChart Line XAxis YAxis Tooltip'],
          DATES('format parseISO addDays differenceInDays'),
          ICONS('TrendingUp TrendingDown Calendar Download'),
        ],
      },
      table: {
        takes: [
          ['@tanstack/react-table', 'useReactTable getCoreRowModel getSortedRowModel flexRender'],
          ['@radix-ui/react-select', '*'],
          ICONS('ArrowUp ArrowDown Filter Columns2 Trash2 Pencil'),
        ],
      },
      form: {
        takes: [
          ['react-hook-form', 'useForm Controller'],
          ['zod', 'z'],
          ['@radix-ui/react-dialog', '*'],
          ['@radix-ui/react-tabs', '*'],
        ],
        defers: [['pdf-lib', 'PDFDocument']],
      },
      tasks: {
        takes: [
          ['@dnd-kit/core', 'DndContext useDraggable useDroppable'],
          ['framer-motion', 'motion AnimatePresence'],
          ICONS('Plus GripVertical Check Circle Archive'),
        ],
      },
    },
  },
  notes: {
    entry: [
      WORDS('debounce throttle groupBy sortBy'),
      ['immer', 'produce'],
      ['i18next', 'default'],
      ['axios', 'default'],
    ],
    pages: {
      write: {
        takes: [
          ['@tiptap/react', 'useEditor EditorContent'],
          ['@tiptap/starter-kit', 'default'],
        ],
        defers: [['highlight.js', 'default']],
      },
      code: {
        takes: [
          ['@codemirror/view', 'EditorView keymap'],
          ['@codemirror/state', 'EditorState'],
          ['@codemirror/lang-javascript', 'javascript'],
          ['@codemirror/commands', 'defaultKeymap'],
        ],
      },
      read: {
        takes: [
          ['marked', 'marked'],
          ['dompurify', 'default'],
          ['dayjs', 'default'],
          WORDS('uniqBy orderBy chunk merge'),
        ],
      },
      find: {
        takes: [
          ['fuse.js', 'default'],
          WORDS('escapeRegExp isEqual cloneDeep flatten keyBy'),
          ['rxjs', 'fromEvent debounceTime switchMap map filter of'],
        ],
      },
    },
  },
  scene: {
    entry: [
      ['d3', 'select scaleLinear axisBottom'],
      ['luxon', 'DateTime'],
    ],
    pages: {
      space: {
        takes: [
          ['three', 'Scene PerspectiveCamera WebGLRenderer Mesh BoxGeometry MeshStandardMaterial DirectionalLight'],
        ],
      },
      map: { takes: [['leaflet', '*']] },
      charts: {
        takes: [
          ['chart.js', 'Chart LineController LineElement PointElement LinearScale CategoryScale'],
          ['d3', '*'],
        ],
      },
      tree: {
        takes: [
          ['d3', 'hierarchy tree linkHorizontal zoom'],
          ['yup', 'object string number'],
        ],
      },
    },
  },
  shop: {
    entry: [
      ['styled-components', 'default'],
      ['@reduxjs/toolkit', 'configureStore createSlice'],
      ['react-redux', 'Provider useSelector'],
    ],
    pages: {
      list: {
        takes: [
          ['@mui/material', 'Button Card CardContent Typography Grid Chip TextField'],
          ['react-icons/fa', 'FaCartPlus FaHeart FaStar'],
        ],
      },
      item: {
        takes: [['@mui/material', 'Tabs Tab Rating Dialog Slider'], DATES('formatDistance isAfter startOfWeek')],
      },
      pay: {
        takes: [
          ['antd', 'Form Input Select DatePicker Steps'],
          ['yup', 'object string'],
        ],
      },
      orders: {
        takes: [
          ['antd', 'Table Tag Modal'],
          ['react-icons/fi', 'FiTruck FiBox FiCheck'],
        ],
      },
    },
  },
};

const local = (name, n) => (name === 'default' || name === '*' ? `whole${n}` : name);

/** Import statements, and an expression that uses all that they give. */
function taken(takes) {
  const used = [];
  const lines = takes.map(([from, names], n) => {
    const list = names.split(' ');
    for (const name of list) used.push(name === '*' ? `whole${n}.Root, whole${n}.version` : local(name, n));
    if (names === '*') return `import * as whole${n} from '${from}';`;
    return names === 'default' ? `import whole${n} from '${from}';` : `import { ${list.join(', ')} } from '${from}';`;
  });
  return { lines, used: `[${used.join(', ')}]` };
}

function pageOf(name, { takes, defers = [] }) {
  const { lines, used } = taken(takes);
  const later = defers.map(
    ([from, names], n) =>
      `const later${n} = async () => { const { ${names} } = await import('${from}'); return ${names}; };`,
  );
  return [
    ...lines.map((l) => l.replace('{ default }', '{ default: found }')),
    ...later.map((l) => l.replace('{ default }', '{ default: found }').replace('return default', 'return found')),
    `export default function Page() {`,
    `  return <section><h1>${name}</h1>{${used}.map((x) => typeof x).join(', ')}<button onClick={() => { ${defers.map((_, n) => `void later${n}();`).join(' ')} }}>more</button></section>;`,
    '}',
    '',
  ].join('\n');
}

/** The files of an app, by path. */
export function filesOf([name, { entry, pages }]) {
  const { lines, used } = taken(entry);
  const names = Object.keys(pages);
  return {
    'package.json': JSON.stringify({ name, private: true, dependencies: { react: '19' } }),
    'index.html':
      '<!doctype html><html><body><div id="root"></div><script type="module" src="/src/main.jsx"></script></body></html>',
    'src/main.jsx': [
      `import { lazy, Suspense } from 'react';`,
      `import { createRoot } from 'react-dom/client';`,
      `import { createBrowserRouter, RouterProvider } from 'react-router';`,
      ...lines,
      ...names.map((n) => `const ${n}Page = lazy(() => import('./pages/${n}.jsx'));`),
      `const router = createBrowserRouter([${names.map((n, i) => `{ path: '/${i === 0 ? '' : n}', element: <${n[0].toUpperCase()}${n.slice(1)} /> }`).join(', ')}]);`,
      ...names.map(
        (n) =>
          `function ${n[0].toUpperCase()}${n.slice(1)}() { const Inner = ${n}Page; return <Suspense fallback={null}><Inner /></Suspense>; }`,
      ),
      `createRoot(document.getElementById('root')).render(<><p>{${used}.map((x) => typeof x).join(', ')}</p><RouterProvider router={router} /></>);`,
      '',
    ].join('\n'),
    ...Object.fromEntries(Object.entries(pages).map(([n, page]) => [`src/pages/${n}.jsx`, pageOf(n, page)])),
  };
}
