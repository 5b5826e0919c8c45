import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const TIDES = 'query Tides($haven: ID!) { tides(haven: $haven) { id at ...More } }';
const DOCUMENTS = `import { gql } from 'kit-graphql';
const MORE = gql\`fragment More on Tide { metres }\`;
export const TIDES = gql\`
  # query Nothing { none }
  ${TIDES}
  \${MORE}
\`;
export const SAVE = gql\`mutation Save($tide: TideInput!) { save(tide: $tide) { id } }\`;
export const documents = { havens: gql\`query Havens { havens { id } }\` };`;

/** What a page asks for, and whether that holds it up. `setup`: what the app is told of its server. */
function asked(body: string, setup = '', head = "import { documents, SAVE, TIDES } from './documents';"): string[] {
  const { snapshot } = readSource(
    folderOf({
      'package.json': '{ "dependencies": { "react": "*" } }',
      'index.html': '<div id="root"></div><script type="module" src="/src/main.tsx"></script>',
      'src/main.tsx':
        "import './setup';\nimport Page from './page';\nexport const routes = [{ path: '/tides', element: <Page /> }];",
      'src/setup.ts': setup,
      'src/documents.ts': DOCUMENTS,
      'src/page.tsx': `import * as React from 'react';\nimport { gql, useLazyQuery, useMutation, useQuery, useSuspenseQuery } from '@apollo/client';\n${head}\nexport default function Page() {\n${body}\nreturn <p />; }`,
    }),
  );
  const { data, pageAfter = [] } = snapshot.routes[0];
  return data.map((d) => [d.address, pageAfter.includes(d.id) ? 'holds' : ''].filter(Boolean).join(' '));
}

describe('queries of GraphQL', () => {
  it.each([
    [
      'by a document of another module',
      'const { data } = useQuery(TIDES, { variables: { haven } });',
      ['/graphql#Tides'],
    ],
    ['by a document in an object', 'const { data } = useQuery(documents.havens);', ['/graphql#Havens']],
    ['by a document that is written there', 'useQuery(gql`query Here { here { id } }`);', ['/graphql#Here']],
    ['in options', 'const [{ data }] = useQuery({ query: TIDES, variables: {} });', ['/graphql#Tides']],
    ['that hold the page up', 'const { data } = useSuspenseQuery(TIDES);', ['/graphql#Tides holds']],
    ['that wait for an act', 'const [load] = useLazyQuery(TIDES);', []],
    ['that change something', 'const [save] = useMutation(SAVE, { refetchQueries: [TIDES] });', []],
    ['several to one address', 'useQuery(TIDES); useQuery(documents.havens);', ['/graphql#Tides', '/graphql#Havens']],
  ])('are found %s', (_, body, expected) => {
    expect(asked(body)).toEqual(expected);
  });

  it.each([
    [
      'a link',
      "import { HttpLink } from '@apollo/client';\nconst link = new HttpLink({ uri: '/api/ask' });",
      '/api/ask#Tides',
    ],
    [
      'a client',
      "import { Client } from 'urql';\nexport const client = new Client({ url: 'https://ask.example/q' });",
      'https://ask.example/q#Tides',
    ],
    [
      'an address',
      "import { GraphQLClient } from 'graphql-request';\nconst AT = '/ask';\nexport const client = new GraphQLClient(AT);",
      '/ask#Tides',
    ],
    [
      'something else',
      "import { Client } from 'mail';\nexport const client = new Client({ url: '/mail' });",
      '/graphql#Tides',
    ],
  ])('go where the app tells %s', (_, setup, expected) => {
    expect(asked('useQuery(TIDES);', setup)).toEqual([`${expected}`]);
  });

  it('are found through hooks of the app', () => {
    const head =
      "import { TIDES } from './documents';\nconst useTides = (haven) => useQuery(TIDES, { variables: { haven } });";
    expect(asked('const { data } = useTides(1);', '', head)).toEqual(['/graphql#Tides']);
  });

  it('are something else than a place in what is fetched', () => {
    expect(asked("fetch('/icons.svg#boat'); fetch('/api/tides?at=1#first');")).toEqual(['/icons.svg', '/api/tides']);
  });

  it('are no queries where a text only looks like a place in the page', () => {
    expect(asked("useQuery('#tides'); document.querySelector('#app');")).toEqual([]);
  });
});
