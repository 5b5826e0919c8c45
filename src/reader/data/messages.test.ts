// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const API = "export const fetchTides = (id) => fetch(`/api/tides/${id ?? ''}`).then((r) => r.json());";

/** The addresses that a page under `/tides` asks for, in an app with other files. */
function asked(files: Record<string, string>): string[] {
  const { snapshot } = readSource(
    folderOf({
      'index.html': '<div id="root"></div><script type="module" src="/src/main.jsx"></script>',
      'src/main.jsx':
        "import './setup';\nimport Page from './page';\nexport const routes = [{ path: '/tides', element: <Page /> }];",
      'src/setup.js': '',
      'src/api.js': API,
      ...files,
    }),
  );
  return snapshot.routes[0].data.map((d) => d.address);
}

const SENT = {
  'in words': "dispatch({ type: 'tides/load', id: 'x' })",
  'by a function': 'dispatch(loadTides(3))',
  'by a function that is handed over': 'onLoad(loadTides(3))',
};
const page = (send: string, actions = "import { loadTides } from './actions';") => ({
  'src/page.jsx': `import { useDispatch } from 'kit-bindings';\n${actions}\nexport default function Page() {
  const dispatch = useDispatch();\n  useEffect(() => { ${send}; }, []);\n  return <p />;\n}`,
});

/** Ways to listen: what makes the message, and what listens. */
const LISTENERS: [name: string, actions: string, listens: string][] = [
  [
    'a saga for each message',
    "export const loadTides = (id) => ({ type: 'tides/load', id });",
    "import { call, takeLatest } from 'redux-saga/effects';\nimport { fetchTides } from './api';\nfunction* load({ id }) { yield call(fetchTides, id); }\nexport function* watch() { yield takeLatest('tides/load', load); }",
  ],
  [
    'a saga that waits',
    "export const loadTides = (id) => ({ type: 'tides/load', id });",
    "import { call, take } from 'redux-saga/effects';\nimport * as api from './api';\nexport function* watch() { while (true) { const { id } = yield take(['other', 'tides/load']); yield call(api.fetchTides, id); } }",
  ],
  [
    'a listener',
    "export const loadTides = (id) => ({ type: 'tides/load', id });",
    "import { createListenerMiddleware } from 'kit-store';\nimport { fetchTides } from './api';\nconst listening = createListenerMiddleware();\nlistening.startListening({ type: 'tides/load', effect: async ({ id }) => { await fetchTides(id); } });",
  ],
  [
    'a stream',
    "export const loadTides = (id) => ({ type: 'tides/load', id });",
    "import { ofType } from 'kit-streams';\nimport { fetchTides } from './api';\nexport const tidesEpic = (actions) => actions.pipe(ofType('tides/load'), mergeMap(({ id }) => fetchTides(id)));",
  ],
];

describe('messages', () => {
  describe.each(LISTENERS)('%s', (_, actions, listens) => {
    it.each(Object.entries(SENT))('hears what is sent %s', (_how, send) => {
      const found = asked({ 'src/actions.js': actions, 'src/setup.js': listens, ...page(send) });
      expect(found).toEqual(['/api/tides/:id']);
    });

    it('isn’t called by another message', () => {
      const files = { 'src/actions.js': actions, 'src/setup.js': listens };
      expect(asked({ ...files, ...page("dispatch({ type: 'tides/forget' })", '') })).toEqual([]);
    });
  });

  it('are known by the constants that name them, whatever these hold', () => {
    const found = asked({
      'src/types.js':
        "const of = (name) => ({ ASK: name + '_ASK' });\nexport const TIDES = of('TIDES');\nexport const HAVENS = of('HAVENS');",
      'src/actions.js':
        "import { TIDES } from './types';\nexport const loadTides = () => {\n  log('asked');\n  return { type: TIDES.ASK };\n};",
      'src/setup.js':
        "import { all, call, takeEvery } from 'redux-saga/effects';\nimport { fetchTides } from './api';\nimport { HAVENS, TIDES } from './types';\nfunction* tides() { yield all([call(fetchTides, 'all'), call(fetch, '/api/marks')]); }\nfunction* havens() { yield call(fetch, '/api/havens'); }\nexport function* watch() { yield takeEvery(TIDES.ASK, tides); yield takeEvery(HAVENS.ASK, havens); }",
      ...page('dispatch(loadTides())'),
    });
    expect(found).toEqual(['/api/tides/all', '/api/marks']);
  });

  it('are known by what a package makes of their names', () => {
    const found = asked({
      'src/actions.js':
        "import { createAction } from 'kit-store';\nexport const loadTides = createAction('tides/load');",
      'src/setup.js':
        "import { takeLatest } from 'redux-saga/effects';\nimport { fetchTides } from './api';\nimport { loadTides } from './actions';\nfunction* load() { yield fetchTides('x'); }\nexport function* watch() { yield takeLatest(loadTides.type, load); }",
      ...page('dispatch(loadTides())'),
    });
    expect(found).toEqual(['/api/tides/x']);
  });

  it('are sent by what a component is handed, also in a bundle', () => {
    const found = asked({
      'src/actions.js': "export const loadTides = () => ({ type: 'tides/load' });",
      'src/setup.js':
        "import { takeLatest } from 'redux-saga/effects';\nimport { fetchTides } from './api';\nfunction* load() { yield fetchTides('x'); }\nexport function* watch() { yield takeLatest('tides/load', load); }",
      'src/page.jsx':
        "import { connect } from 'kit-bindings';\nimport * as actions from './actions';\nclass Page extends React.Component { componentDidMount() { this.props.actions.loadTides(); } render() { return <p />; } }\nexport default connect(null, (d) => ({ actions: bind(actions, d) }))(Page);",
    });
    expect(found).toEqual(['/api/tides/x']);
  });

  it('lead round in a circle once', () => {
    const found = asked({
      'src/setup.js':
        "import { put, takeEvery } from 'redux-saga/effects';\nfunction* one() { yield fetch('/api/one'); yield put({ type: 'two' }); }\nfunction* two() { yield fetch('/api/two'); yield put({ type: 'one' }); }\nexport function* watch() { yield takeEvery('one', one); yield takeEvery('two', two); }",
      ...page("dispatch({ type: 'one' })", ''),
    });
    expect(found).toEqual(['/api/one', '/api/two']);
  });
});

/** A store of modules, each with a name of its own before what it listens to. */
const STORE = {
  'src/main.js':
    "import { createApp } from 'vue';\nimport Page from './Page.vue';\nexport const routes = [{ path: '/tides', component: Page }];",
  'index.html': '<div id="app"></div><script type="module" src="/src/main.js"></script>',
  'src/api.js': API,
  'src/store/index.js':
    "import { createStore } from 'vuex';\nimport tides from './tides';\nexport default createStore({ modules: { tides, marks: { namespaced: true, state: {}, actions: { load() { return fetch('/api/marks'); } } } }, actions: { start({ dispatch }) { dispatch('tides/load', 'first'); } } });",
  'src/store/tides.js':
    "import { fetchTides } from '../api';\nimport * as more from './more';\nconst actions = { ...more, async load({ commit }, id) { commit('got', await fetchTides(id)); }, again({ dispatch }) { return dispatch('load', 'again'); } };\nexport default { namespaced: true, state: () => ({ all: [] }), actions };",
  'src/store/more.js': 'export const other = () => 1;',
  'package.json': '{ "dependencies": { "vue": "*" } }',
};

/** Ways in which a component sends something to that store, with what is asked for. */
const SENDERS: [name: string, script: string, asked: string[]][] = [
  ['by itself', "created() { this.$store.dispatch('tides/load', 'own'); }", ['/api/tides/own']],
  ['as an object', "created() { this.$store.dispatch({ type: 'marks/load' }); }", ['/api/marks']],
  ['by a method', "created() { this.load('x'); }, methods: { ...mapActions('tides', ['load']) }", ['/api/tides/x']],
  ['by a whole name', "created() { this.load('y'); }, methods: mapActions(['tides/load'])", ['/api/tides/y']],
  ['by a name of its own', "mounted() { this.tell(); }, methods: mapActions({ tell: 'marks/load' })", ['/api/marks']],
  ['from one to another', "created() { this.$store.dispatch('tides/again'); }", ['/api/tides/again']],
  ['to the store itself', "created() { this.$store.dispatch('start'); }", ['/api/tides/first']],
  ['to nobody', "created() { this.$store.dispatch('tides/none'); }", []],
];

describe('stores whose functions have names', () => {
  it.each(SENDERS)('are asked %s', (_, options, expected) => {
    const script = `import { mapActions, mapState } from 'vuex';\nexport default { computed: { ...mapState('tides', ['all']) }, ${options} };`;
    const { snapshot } = readSource(
      folderOf({
        ...STORE,
        'src/Page.vue': `<template><Row v-for="t in all" :key="t.id" :tide="t" /></template>\n<script>\nimport './store';\nimport Row from './Row.vue';\n${script.replace('computed:', 'components: { Row }, computed:')}\n</script>`,
        'src/Row.vue':
          '<template><p>{{ tide.at }}</p></template>\n<script>\nexport default { props: ["tide"] };\n</script>',
      }),
    );
    const [{ data, parts }] = snapshot.routes;
    expect(data.map((d) => d.address)).toEqual(expected);
    // What the component takes over of the store comes with what it asks that for.
    const row = parts.find((p) => p.name === 'Row');
    expect(row?.drawnAfter ?? []).toEqual(data.map((d) => d.id));
  });

  it('are asked through the hook that gives them', () => {
    const { snapshot } = readSource(
      folderOf({
        ...STORE,
        'src/Page.vue':
          "<script setup>\nimport './store';\nimport { onMounted } from 'vue';\nimport { useStore } from 'vuex';\nconst store = useStore();\nonMounted(() => store.dispatch('tides/load', 'hook'));\n</script>\n<template><p /></template>",
      }),
    );
    expect(snapshot.routes[0].data.map((d) => d.address)).toEqual(['/api/tides/hook']);
  });

  it('put a base before addresses that one of its modules tells a package', () => {
    const { snapshot } = readSource(
      folderOf({
        ...STORE,
        'src/api.js': "import axios from 'axios';\nexport const fetchTides = (id) => axios.get(`/tides/${id}`);",
        'src/setup.js': "import axios from 'axios';\naxios.defaults.baseURL = '/base';",
        'src/Page.vue':
          "<template><p /></template>\n<script>\nimport './store';\nimport './setup';\nexport default { created() { this.$store.dispatch('tides/load', 'x'); } };\n</script>",
      }),
    );
    expect(snapshot.routes[0].data.map((d) => d.address)).toEqual(['/base/tides/x']);
  });
});

describe('what one component asks for', () => {
  const FILES = {
    'package.json': '{ "dependencies": { "react": "*" } }',
    'index.html': '<div id="root"></div><script type="module" src="/src/main.jsx"></script>',
    'src/main.jsx':
      "import { createRoot } from 'react-dom/client';\nimport './saga';\nimport App from './App';\ncreateRoot(document.getElementById('root')).render(<App />);",
    'src/App.jsx':
      "import { useDispatch } from 'react-redux';\nimport { Route, Routes } from 'react-router';\nimport Page from './page';\nexport default function App() { const dispatch = useDispatch(); useEffect(() => { dispatch({ type: 'ask' }); fetch('/api/other'); }, []); return <Routes><Route path='/' element={<Page />} /></Routes>; }",
    'src/saga.js':
      "import { takeLatest } from 'redux-saga/effects';\nfunction* load() { yield fetch('/api/tides'); }\nexport function* watch() { yield takeLatest('ask', load); }",
    'src/row.jsx': 'export default function Row() { return <p />; }',
  };
  const HEAD = "import { connect, useSelector } from 'react-redux';\nimport Row from './row';\n";

  it.each([
    [
      'by a hook',
      'export default function Page() { const all = useSelector((s) => s.all); return <ul>{all.map((t) => <Row key={t} />)}</ul>; }',
      ['tides'],
    ],
    [
      'by a wrapper',
      'const Page = ({ all }) => <ul>{all.map((t) => <Row key={t} />)}</ul>;\nexport default connect((s) => ({ all: s.all }))(Page);',
      ['tides'],
    ],
    [
      'by a wrapper with a function of a usual name',
      'class Page extends React.Component { render() { const { loading } = this.props; if (loading) return <p />; return <Row />; } }\nfunction mapStateToProps(s) { return { loading: s.loading }; }\nexport default connect(mapStateToProps)(Page);',
      ['tides'],
    ],
    ['not at all', 'export default function Page({ all }) { return <ul>{all.map((t) => <Row key={t} />)}</ul>; }', []],
  ])('fills what another one takes of the store %s', (_, body, after) => {
    const { snapshot } = readSource(folderOf({ ...FILES, 'src/page.jsx': `${HEAD}${body}` }));
    const [{ data, parts }] = snapshot.routes;
    expect(data.map((d) => d.id)).toEqual(['tides', 'other']);
    expect(parts.find((p) => p.module === 'src/row.jsx')?.drawnAfter ?? []).toEqual(after);
  });
});
